# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/irc/address"

class IrcAddressTest < Minitest::Test
  def read(given) = Bavard::Feeds::Irc::Address.read(given)
  def pasted(text) = read("paste" => text).then { |address| [address.host, address.port, address.tls, address.channel] }

  def test_an_address_is_read_in_one_piece
    {"irc://127.0.0.1:4610/%23reedmere" => ["127.0.0.1", 4610, false, "#reedmere"],
     "IRCS://Irc.Reedmere.EXAMPLE/%23Dawn" => ["irc.reedmere.example", 6697, true, "#dawn"],
     "irc.reedmere.example:7000 #Dawn" => ["irc.reedmere.example", 7000, false, "#dawn"],
     "irc.reedmere.example#dawn" => ["irc.reedmere.example", 6667, false, "#dawn"],
     "irc.reedmere.example/dawn" => ["irc.reedmere.example", 6667, false, "#dawn"],
     "irc.reedmere.example/@Dawn" => ["irc.reedmere.example", 6667, false, "#dawn"],
     "irc.reedmere.example:+6697/#dawn" => ["irc.reedmere.example", 6697, true, "#dawn"],
     "  irc://[::1]:6667/#dawn  " => ["::1", 6667, false, "#dawn"],
     "irc://ann@irc.reedmere.example/dawn?x=1" => ["irc.reedmere.example", 6667, false, "#dawn"]}.each do |text, wanted|
      assert_equal wanted, pasted(text), text
    end
  end

  def test_a_channel_alone_takes_the_server_from_its_field
    assert_equal(["#dawn", "irc.reedmere.example"], read("paste" => "@DAWN", "host" => "irc.reedmere.example").then { |a| [a.channel, a.host] })
  end

  def test_typed_fields_win_over_the_pasted
    assert_equal 7000, read("paste" => "irc://x.example:6667/#a", "port" => "7000").port
  end

  def test_what_is_wrong_is_named
    {{"paste" => "irc://x.example"} => "channel", {"paste" => "#dawn"} => "host", {"paste" => "?? ??"} => "paste",
     {"paste" => "irc://x.example/%zz"} => "paste", {"host" => "x.example", "channel" => "a", "port" => "70000"} => "port",
     {"host" => "x_y..z", "channel" => "a"} => "host", {"host" => "x.example", "channel" => "a b"} => "channel",
     {"host" => "x.example", "channel" => "a", "nick" => "1up"} => "nick",
     {"host" => "x.example", "channel" => "a", "nick" => "ann", "password" => "a\r\nQUIT"} => "password"}.each do |given, field|
      assert_equal field, assert_raises(Bavard::Error, given.inspect) { read(given) }.field
    end
  end

  def test_the_address_as_people_write_it_holds_no_password
    address = read("paste" => "irc://[::1]:6667/#dawn", "nick" => "ann", "password" => "marsh")
    assert_equal "irc://[::1]:6667/#dawn", address.to_s
  end
end
