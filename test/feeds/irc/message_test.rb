# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/irc/line_reader"
require_relative "../../../lib/bavard/feeds/irc/message"

class MessageTest < Minitest::Test
  Message = Bavard::Feeds::Irc::Message
  Tags = Bavard::Feeds::Irc::Tags
  LineReader = Bavard::Feeds::Irc::LineReader

  def test_tags_source_command_and_parameters
    message = Message.parse("@id=7;+draft/x=a\\sb :ann!a@b PRIVMSG #x :hello there: you")
    assert_equal({"id" => "7", "+draft/x" => "a b"}, message.tags.to_h)
    assert_equal ["ann", "PRIVMSG", ["#x", "hello there: you"]], [message.nick, message.command, message.params]
  end

  def test_a_trailing_parameter_may_be_empty_or_a_word
    assert_equal ["#x", ""], Message.parse(":a PRIVMSG #x :").params
    assert_equal %w[#x word], Message.parse(":a PRIVMSG #x word").params
  end

  def test_tag_values_are_unescaped_as_ircv3_says
    assert_equal "a; b\\c\r\n", Message.parse("@k=a\\:\\sb\\\\c\\r\\n PING").tags["k"]
    assert_equal "b", Message.parse("@k=\\b\\ PING").tags["k"]
  end

  # Whatever is written, a tag that is looked for is the one that reading them all would find.
  def test_a_tag_is_found_as_if_all_were_read
    parts = ["k", "kk", "+k", "ä", "=", "=", ";", ";", "\\", "\\s", "ü", ""]
    random = Random.new(7)
    2000.times do
      text = Array.new(random.rand(12)) { parts.sample(random:) }.join
      all = text.split(";").to_h { |pair| [pair[/\A[^=]*/], Tags.unescape(pair[/=(.*)/m, 1] || "")] }
      %w[k kk +k ä].each { |key| assert_equal [all[key]], [Tags.new(text)[key]], [text, key].inspect }
      assert_equal all.except(""), Tags.new(text).to_h, text.inspect
    end
  end

  def test_escaping_is_undone_by_unescaping
    PropCheck.forall(PropCheck::Generators.printable_string) { |text| assert_equal text, Tags.unescape(Message.escape(text)) }
  end

  def test_what_is_no_message_is_nil
    ["", " ", "@", "@a=b", ":only", ":x 12", "\u0001", "12345 x", "@a= :"].each { |line| assert_nil Message.parse(line), line.inspect }
  end

  def test_no_text_makes_it_fail
    PropCheck.forall(PropCheck::Generators.printable_string) do |text|
      assert(Message.parse(text.delete("\r\n")).then { |message| message.nil? || message.is_a?(Message) })
    end
  end

  def lines_of(*pieces)
    reader = LineReader.new
    found = []
    pieces.each { |piece| reader.feed(piece.b) { |line| found << line } }
    [found, reader.too_long]
  end

  def test_lines_are_cut_wherever_the_bytes_were_torn
    whole = "PRIVMSG #x :naïve 🌅\r\nPING :b\n"
    PropCheck.forall(PropCheck::Generators.choose(0..whole.bytesize)) do |at|
      assert_equal [["PRIVMSG #x :naïve 🌅", "PING :b"], 0], lines_of(whole.byteslice(0, at), whole.byteslice(at..))
    end
  end

  def test_bytes_that_are_not_utf_8_are_read_as_old_clients_meant_them
    assert_equal [["PRIVMSG #x :caf\u00e9 \u2013"], 0], lines_of("PRIVMSG #x :caf\xE9 \x96\r\n")
  end

  def test_every_byte_gives_valid_text
    (0..255).each do |byte|
      found, = lines_of("A ".b + byte.chr + "\xFF B\r\n".b)
      assert(found.all?(&:valid_encoding?), "byte #{byte}")
    end
  end

  def test_a_line_that_never_ends_is_thrown_away_and_counted_once
    found, too_long = lines_of("x" * 20_000, "y" * 20_000, "z\r\nPING :b\r\n")
    assert_equal [["PING :b"], 1], [found, too_long]
  end
end
