# frozen_string_literal: true

require "minitest/autorun"
require "minitest/mock"
require_relative "../../../lib/bavard/feeds/xmpp"

# Where a server is, as the name service says it (RFC 6120 §3.2).
class XmppPlacesTest < Minitest::Test
  Xmpp = Bavard::Feeds::Xmpp

  # A way out that writes down where somebody wanted to go.
  Door = Struct.new(:wanted) do
    def open(host, port, **)
      wanted << [host, port]
      raise Errno::ECONNREFUSED
    end
  end

  def setup = @wanted = []

  # @return [Bavard::Feeds::Ended]
  def go(srv: [], **given)
    read = Xmpp.read({"jid" => "hide@rooms.reedmere.example"}.merge(given.transform_keys(&:to_s)))
    address = Xmpp::Address.new(**read[:address].transform_keys(&:to_sym), password: nil)
    session = Xmpp::Session.new(1, address, Bavard::Feeds::NOTHING_TO_RESUME, reject: ->(_what) {})
    connection = Xmpp::Connection.new(address, session, clock: -> { 0 }, take: ->(_intake) {}, reject: ->(_what) {}, outbox: nil, door: Door.new(@wanted))
    names = Struct.new(:timeouts, :found) { def getresources(*) = found }.new(nil, srv)
    Resolv::DNS.stub(:open, ->(&asked) { asked.call(names) }) { connection.run(nil) }
  end

  def srv(priority, weight, port, host) = Resolv::DNS::Resource::IN::SRV.new(priority, weight, port, host)

  def test_the_places_that_are_told_are_tried_in_their_order
    ended = go(srv: [srv(20, 0, 5222, "spare.example"), srv(10, 1, 5333, "b.example"), srv(10, 9, 5223, "a.example"), srv(0, 0, 0, "")])
    assert_equal [["a.example", 5223], ["b.example", 5333], ["spare.example", 5222]], @wanted
    assert_match(/Nothing answers at spare.example, port 5222/, ended.reason)
  end

  def test_where_nothing_is_told_it_is_the_server_itself_and_what_the_host_says_wins
    go
    go(place: "127.0.0.1:15222", srv: [srv(1, 1, 1, "other.example")])
    assert_equal [["reedmere.example", 5222], ["127.0.0.1", 15_222]], @wanted
  end
end
