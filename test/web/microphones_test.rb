# frozen_string_literal: true

require_relative "../support/web_test"
require_relative "../../lib/bavard/web/links/microphone_socket"

# Links by which microphones come into a room, and what may come over them.
class MicrophonesTest < WebTest
  # What the relay gives a follower: takes what is said to the page.
  class Page
    def initialize(socket)
      @socket = socket
      @said = []
      socket.opened(self)
    end

    def send_frame(text) = @said << JSON.parse(text)
    def say(value) = @socket.heard(self, value.is_a?(String) ? value : JSON.generate(value))
    def close = @socket.closed(self)
    def said = @said.slice!(0..)
  end

  def setup
    super
    sign_up
    made = send_form("/feeds/", {"kind" => "microphones", "name" => "Hide"})
    @feed_id = made["id"]
    wait_for("the room to be open") { lane.state.state == :live }
  end

  def show = @shows.run(@record.id)
  def lane = show.lanes[@feed_id]
  def links = send_form("/feeds/#{@feed_id}/microphones/anybody", {"on" => "0"})
  def add(**given) = send_form("/feeds/#{@feed_id}/microphones", given.transform_keys(&:to_s))
  def path_of(name) = URI(links["people"].find { |one| one["name"] == name }["link"]).path
  def page_at(path) = Page.new(Bavard::Web::MicrophoneSocket.new(@site, Bavard::Web::MicrophoneSocket.link(@site, path.split("/").last)))

  def heard_so_far = show.ask { |running| running.voices.heard }

  # As the show knows the room, once it has come so far.
  def room
    show.ask do |running|
      running.voices.rooms[@feed_id]&.members.to_a.to_h { |member| [member.name, [member.talks?, *member.marks]] }
    end
  end

  # Pages are answered before feeds are.
  def assert_room(expected)
    wait_for("the room to be #{expected}, not #{room}") { room == expected }
  end

  # As many as a second has, loud and in its own time.
  def talk(page, level = 20)
    8.times do
      @clock.now_ms += 40
      heard = heard_so_far
      page.say(l: level)
      wait_for("the level to be heard") { heard_so_far > heard }
    end
  end

  def test_somebody_comes_talks_mutes_and_is_seen
    add(name: "Teo")
    get path_of("Teo")
    assert_includes last_response.body, '<bdi id="you">Teo</bdi>'
    assert_equal "camera=(), microphone=(self), geolocation=()", last_response.headers["permissions-policy"]
    page = page_at(path_of("Teo"))
    assert_equal [{"room" => "Hide", "you" => "Teo"}], page.said
    assert_room({"Teo" => [false]})
    talk(page)
    assert_room({"Teo" => [true]})
    assert_equal [{"talks" => true}], page.said
    page.say(muted: true)
    assert_room({"Teo" => [false, :muted]})
    assert_equal [{"talks" => false}], page.said
    page.say(l: 20)
    assert_room({"Teo" => [false, :muted]})
    assert links["people"].first["there"]
    page.close
    @clock.now_ms += 20_000
    wait_for("Teo to be gone") { room.empty? }
    assert_includes(stores.cast.of_show(@record.id).map(&:name), "Teo")
  end

  def test_whatever_comes_over_a_line_only_levels_count
    add(name: "Teo")
    page = page_at(path_of("Teo"))
    page.said
    ["", "{", "[]", "7", "null", '{"l":"20"}', '{"l":-3}', '{"l":128}', '{"l":1e400}', '{"l":20.5}', '{"muted":"yes"}', '{"op":"levels"}', "\xff", "{\"l\":20}#{" " * 100}",
      "[" * 60].each { |text| page.say(text) }
    page.say("é".b)
    assert_room({"Teo" => [false]})
    assert_empty page.said
    assert_equal 0, means.meters.rejected_count(:voice)
  end

  def test_a_page_that_sends_too_fast_is_not_heard_more
    add(name: "Teo")
    page = page_at(path_of("Teo"))
    1000.times { page.say(l: 20) }
    page.say(muted: true)
    assert_room({"Teo" => [false, :muted]})
    assert_equal 15, heard_so_far
    page.say(muted: false)
    25.times { (@clock.now_ms += 40) && page.say(l: 20) }
    page.say(muted: true)
    page.say(muted: false)
    wait_for("them all") { heard_so_far == 40 }
  end

  def test_a_room_that_is_switched_off_and_on_takes_in_again
    add(name: "Teo")
    page = page_at(path_of("Teo"))
    send_form("/feeds/#{@feed_id}/disconnect")
    page.said
    # Once its thread has ended.
    told = wait_for("the page to be told") do
      @clock.now_ms += 40
      page.say(l: 30)
      page.said.then { |said| said if said.any? }
    end
    assert_equal [{"off" => Bavard::Web::MicrophoneSocket::OFF}], told
    page.say(l: 30)
    assert_empty page.said
    send_form("/feeds/#{@feed_id}/connect")
    wait_for("the room to be open") { lane.connection&.open? && lane.state.state == :live }
    page.say(l: 30)
    assert_equal [{"room" => "Hide", "you" => "Teo"}], page.said
    assert_room({"Teo" => [false]})
  end

  # Somebody else, it may be; the link that was found then may have ended since.
  def test_who_is_cut_off_while_a_link_is_looked_up_is_counted_after
    add(name: "Teo")
    path = path_of("Teo")
    count = 3
    hub.define_singleton_method(:cuts) { count }
    find = stores.microphones.method(:by_token)
    stores.microphones.define_singleton_method(:by_token) { |token| find.call(token).tap { count += 1 } }
    assert_equal [3, 4], [joined("#{path}/live")["cuts"], count]
  end

  # By which it is let go, and comes again, where its show goes on in another process.
  def test_a_page_is_known_by_its_show
    add(name: "Teo")
    assert_equal @record.id, joined("#{path_of("Teo")}/live")["bavard.show"]
  end

  def test_a_link_that_is_renewed_or_taken_away_is_void
    add(name: "Teo")
    before = path_of("Teo")
    teo = links["people"].first["id"]
    page = page_at(before)
    send_form("/feeds/#{@feed_id}/microphones/#{teo}/anew")
    refute_equal before, path_of("Teo")
    get before
    assert_equal 404, last_response.status
    assert_match(/not valid any more/, last_response.body)
    after = path_of("Teo")
    page.close
    page = page_at(after)
    assert_room({"Teo" => [false]})
    send_form("/feeds/#{@feed_id}/microphones/#{teo}/remove")
    wait_for("Teo to be gone") { room.empty? }
    page.say(l: 3)
    assert_empty room, "what still comes over the line that is being cut"
    get after
    assert_equal 404, last_response.status
  end

  def test_at_the_link_for_anybody_a_name_becomes_a_link_of_ones_own
    anybody = URI(send_form("/feeds/#{@feed_id}/microphones/anybody", {"on" => "1"})["anybody"]).path
    get anybody
    assert_includes last_response.body, "What are you called?"
    assert_nil last_response.headers["set-cookie"]
    header "X-Requested-With", "XMLHttpRequest"
    post "#{anybody}/name", {"name" => " \u00a0 "}
    assert_equal [422, "name"], [last_response.status, JSON.parse(last_response.body)["field"]]
    post "#{anybody}/name", {"name" => "  <b>Sun\0niva</b>\nof the reeds #{"x" * 300}"}
    own = JSON.parse(last_response.body)["at"]
    get own
    assert_includes last_response.body, "&lt;b&gt;Sunniva&lt;/b&gt; of the reeds xxx"
    assert_equal 60, stores.microphones.of_feed(@feed_id).last.name.size
    post "#{own}/name", {"name" => "Else"}
    assert_equal 404, last_response.status, "their name is the host’s to change"
    links
    get anybody
    assert_equal 404, last_response.status
    get own
    assert_equal 200, last_response.status
  end

  def test_there_is_a_ceiling_and_nothing_secret_in_the_database
    Bavard::Store::Microphones::MOST.times { |number| stores.microphones.add(@feed_id, name: "One #{number}") }
    stores.microphones.for_anybody(@feed_id, true)
    assert_match(/60 microphones in this room already/, add(name: "One more")["error"])
    rows = db[:microphones].all.inspect
    stores.microphones.of_feed(@feed_id).each { |link| refute_includes rows, link.token }
  end

  def test_somebody_of_the_cast_wears_what_they_wear_elsewhere
    stores.cast.seen(@record.id, "hidewire", "teo", "teodor_83", 1)
    known = stores.cast.of_show(@record.id).first
    stores.cast.keep(@record.id, known.id, short: "Teo", colour: "#f3b634", states: {"silent" => "a" * 32})
    told = add(member: known.id.to_s)
    assert_equal ["Teo"], told["people"].map { |one| one["name"] }
    assert_empty told["cast"], "Teo has a link"
    page_at(path_of("Teo"))
    key = stores.microphones.of_feed(@feed_id).first.key
    worn = show.ask { |running| running.voices.worn(@feed_id, key) }
    assert_equal ["Teo", "#f3b634", {"silent" => "a" * 32}], [worn.short, worn.colour, worn.states]
  end

  def test_the_hosts_own_is_the_same_each_time
    2.times { assert_match(%r{\A/mic/[\w-]{32}\z}, send_form("/feeds/microphones/mine")["path"]) }
    assert_equal [["Odalys", db[:accounts].get(:id)]], stores.microphones.of_feed(@feed_id).map { |link| [link.name, link.account_id] }
    send_form("/feeds/#{@feed_id}/remove")
    path = send_form("/feeds/microphones/mine")["path"]
    assert_equal ["Microphones"], stores.feeds.of_show(@record.id).map(&:name)
    get path
    assert_equal 200, last_response.status
  end

  def test_nobody_elses_room_can_be_reached
    add(name: "Teo")
    teo = links["people"].first["id"]
    clear_cookies
    @csrf = nil
    sign_up(email: "other@reedmere.example", show: "Another")
    ["", "/anybody", "/#{teo}/anew", "/#{teo}/remove"].each do |path|
      send_form("/feeds/#{@feed_id}/microphones#{path}", {"name" => "x", "on" => "1"})
      assert_equal 404, last_response.status, path
    end
  end
end
