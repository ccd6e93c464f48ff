# frozen_string_literal: true

require "minitest/autorun"
require "socket"
require_relative "../../lib/bavard/outward/door"

# Who is let out to where.
class DoorTest < Minitest::Test
  Door = Bavard::Outward::Door
  Global = Bavard::Outward::Global

  INSIDE = %w[0.0.0.0 0.1.2.3 10.0.0.1 100.64.0.1 100.127.255.255 127.0.0.1 127.255.0.9 169.254.169.254 168.63.129.16 172.16.0.1 172.31.255.255
    192.0.0.192 192.0.2.9 192.168.1.1 198.18.0.1 198.19.255.255 198.51.100.1 203.0.113.7 224.0.0.1 239.1.1.1 240.0.0.1 255.255.255.255
    :: ::1 ::127.0.0.1 ::10.0.0.1 ::ffff:127.0.0.1 ::ffff:8.8.8.8 ::ffff:0:127.0.0.1 64:ff9b::7f00:1 64:ff9b:1::1 100::1 2001::1 2001:0:7f00:1::
    2001:10::1 2001:20::1 2001:db8::1 2002:7f00:1:: 3fff::1 5f00::1 fc00::1 fd00:ec2::254 fe80::1 fe80::1%eth0 febf::1 fec0::1 feff::1 ff02::1].freeze
  WORLD = %w[1.1.1.1 8.8.8.8 100.63.255.255 100.128.0.0 172.15.0.1 172.32.0.1 192.0.1.1 198.17.0.1 198.20.0.1 223.255.255.255 2400::1 2606:4700::1
    2a00:1450::1].freeze

  def test_every_form_of_an_address_inside
    assert_empty INSIDE.select { |address| Global.global?(address) }
    assert_empty WORLD.reject { |address| Global.global?(address) }
    %w[word 1.2.3 1.2.3.4.5 ::g].push("").each { |address| refute Global.global?(address), address }
  end

  def test_this_machine_by_its_other_addresses
    own = Socket.ip_address_list.map(&:ip_address)
    assert_empty(own.select { |address| Global.global?(address) })
  end

  # @return [String] the words of a refusal
  def refused(door, host, port = 6667) = assert_raises(Door::Refused, host) { door.lookup(host, port) }.message

  def test_whatever_way_it_is_written
    %w[127.0.0.1 127.1 2130706433 0x7f.1 0x7f000001 0177.0.0.1 localhost LOCALHOST localhost. [::1] ::1 ::ffff:127.0.0.1 ::ffff:7f00:1 0 0.0.0.0].each do |host|
      assert_match(/in the open/, refused(Door.new, host))
    end
  end

  # What the system says of names, for the length of a block.
  def names(told)
    asked = []
    really = Addrinfo.method(:getaddrinfo)
    look = lambda do |host, port, *more, **options|
      next really.call(host, port, *more, **options) if host.match?(Door::LITERAL)

      asked << host
      answer = told.fetch(host) { raise SocketError, "getaddrinfo: Name or service not known" }
      (answer.first.is_a?(Array) ? answer.shift : answer).map { |address| Addrinfo.tcp(address, port) }
    end
    Addrinfo.stub(:getaddrinfo, look) { yield asked }
  end

  def test_a_name_that_leads_inside_and_one_that_leads_nowhere_are_told_alike
    names("printer.reedmere.example" => ["10.0.0.9"]) do
      inside, nowhere = %w[printer.reedmere.example nobody.reedmere.example].map { |host| refused(Door.new, host).sub(host, "") }
      assert_equal nowhere, inside
    end
  end

  # It may well be there again in a moment.
  def test_a_listed_name_that_cannot_be_looked_up_is_trouble_of_the_network_and_no_refusal
    door = Door.new(inside: ["chat.reedmere.example"])
    door.define_singleton_method(:addresses_of) { |*| raise SocketError, "no answer" }
    assert_raises(SocketError) { door.lookup("chat.reedmere.example", 443) }
    assert_raises(Door::Refused) { door.lookup("other.reedmere.example", 443) }
  end

  def test_no_name_at_all_is_not_this_machine
    [nil, "", "[]"].each { |host| assert_raises(Door::Refused) { Door.new(inside: ["127.0.0.1"]).lookup(host, 80) } }
  end

  def test_one_address_inside_among_others_is_enough
    names("both.example" => ["1.1.1.1", "127.0.0.1"], "fine.example" => ["1.1.1.1", "2606:4700::1"], "none.example" => []) do
      refused(Door.new, "both.example")
      refused(Door.new, "none.example")
      assert_equal ["1.1.1.1", "2606:4700::1"], Door.new.lookup("fine.example", 80)
    end
  end

  def test_a_name_is_looked_up_once_and_the_connection_made_to_what_was_looked_at
    names("turns.example" => [["1.1.1.1"], ["127.0.0.1"]]) do |asked|
      http = Door.new.http(URI("http://turns.example/"), open_within_s: 1, read_within_s: 1)
      assert_equal ["1.1.1.1", ["turns.example"]], [http.ipaddr, asked]
      refused(Door.new, "turns.example")
    end
  end

  def test_what_the_operator_lists_is_open
    names("chat.home.example" => ["10.1.2.3"], "CHAT.home.example" => ["10.1.2.3"]) do
      refused(Door.new(inside: ["10.2.0.0/16", "other.example", "chat.home.example:6697"]), "chat.home.example")
      ["10.1.0.0/16", "chat.home.example", "chat.home.example:6667"].each do |entry|
        assert_equal ["10.1.2.3"], Door.new(inside: [entry]).lookup("chat.home.example", 6667), entry
      end
      assert_equal ["10.1.2.3"], Door.new(inside: ["chat.home.example"]).lookup("CHAT.home.example", 1)
    end
    assert_equal ["::1"], Door.new(inside: ["[::1]:6667"]).lookup("[::1]", 6667)
    assert_equal %w[a.example b.example:1 10.0.0.0/8], Door.list(" A.example, b.example:1\n10.0.0.0/8 ")
    assert_equal [], Door.list(nil)
  end

  def test_a_list_that_cannot_be_read_is_refused_with_its_word
    {"10.0.0.0/99" => "no network", "a:b:c" => "no host", "host:port" => "no host"}.each do |entry, words|
      error = assert_raises(Bavard::Error) { Door.new(inside: [entry]) }
      assert_includes error.message, entry
      assert_includes error.message, words
    end
  end

  def test_a_lookup_that_takes_its_time
    Addrinfo.stub(:getaddrinfo, ->(*) { Queue.new.pop }) do
      assert_raises(Errno::ETIMEDOUT) { Door.new.lookup("slow.example", 80, within_s: 0.05) }
    end
  end

  def test_the_second_address_where_the_first_does_not_answer
    listening = TCPServer.new("127.0.0.1", 0)
    names("two.example" => ["127.0.0.2", "127.0.0.1"]) do
      door = Door.new(inside: ["two.example"])
      door.open("two.example", listening.addr[1], tls: false, within_s: 5).close
      listening.accept.close
    end
    listening.close
    names("two.example" => ["127.0.0.2", "127.0.0.1"]) do
      assert_raises(Errno::ECONNREFUSED) { Door.new(inside: ["two.example"]).open("two.example", 1, tls: false, within_s: 5) }
    end
  end
end
