# frozen_string_literal: true

require "prop_check"
require_relative "../support/plain"
require_relative "../../lib/bavard/core/chat/line"
require_relative "../../lib/bavard/core/gate/ladder"
require_relative "../../lib/bavard/core/gate/rule_set"
require_relative "../../lib/bavard/core/pieces/kinds/chat"
require_relative "../../lib/bavard/core/stage/document"
require_relative "../../lib/bavard/feeds/irc"
require_relative "../../lib/bavard/core/moderation/line_state"
require_relative "../../lib/bavard/live/playout/playout"
require_relative "../../lib/bavard/relay/topic"

# Any bytes on the IRC socket: whatever comes, the way to the frame holds, and a good line in between gets through.
class SocketToFrameTest < Minitest::Test
  TAGS = %w[msgid time account batch draft/display-name draft/color draft/badges draft/emotes label x/y ; = \\].freeze
  COMMANDS = %w[PRIVMSG NOTICE REDACT BATCH JOIN PART NICK TOPIC KICK MODE CAP AUTHENTICATE FAIL 001 005 332 433 903 PING].freeze
  # After these the connection is over.
  LAST_WORDS = %w[ERROR 473 464 904].freeze
  TARGETS = ["#dawn", "#DAWN", "guest42", "#other", "*", "", ":"].freeze
  NASTY = [
    "\u202E", "\u0000", "\u2028", "\uFFFE", "\u{E0001}", "\u0301" * 60, "👨‍👩‍👧‍👦", "ﷺ", "\\",
    ";", "@", "://", "<script>", "\u0001ACTION ", "\u0001",
    "\u0003", "\u0004ff0000", "%", "{{", "x" * 600, "http://", "a.b", "!cmd"
  ].freeze
  RUNS = 400
  LINES_A_RUN = 60

  Nowhere = Struct.new(:frames) do
    def deliver(_topic, frame) = frames << frame
  end

  # @param random [Random]
  def text(random)
    Array.new(random.rand(5)) { piece(random).b }.join
  end

  def piece(random)
    case random.rand(4)
    when 0 then random.bytes(random.rand(40))
    when 1 then NASTY.sample(random:)
    when 2 then Array.new(random.rand(20)) { random.rand(0x20..0x2FFF) }.pack("U*")
    else %w[morning all wren K41 207 @Odalys reedmere.example 🌅].sample(random.rand(6), random:).join(" ")
    end
  end

  def line(random)
    return text(random) if random.rand(10).zero?

    tags = Array.new(random.rand(5)) { "#{TAGS.sample(random:)}=#{text(random)}".b }
    head = tags.empty? ? "" : "@#{tags.join(";")} "
    "#{head}:ann!a@b #{command(random)} #{TARGETS.sample(random:)} :#{text(random)}".b
  end

  def command(random)
    case random.rand(1000)
    when 0 then LAST_WORDS.sample(random:)
    when 1..600 then "PRIVMSG"
    else COMMANDS.sample(random:)
    end
  end

  # PropCheck gives the seeds, so that a failure names the one to look at.
  def test_twenty_four_thousand_lines_of_anything
    count = 0
    @went_through = 0
    PropCheck.forall(PropCheck::Generators.choose(0..(2**31))).with_config(n_runs: RUNS).check do |seed|
      random = Random.new(seed)
      lines = Array.new(LINES_A_RUN) { line(random) }
      count += lines.size
      run_through(lines)
    end
    assert_operator count, :>=, 20_000
    assert_operator @went_through, :>, RUNS / 2
  end

  private

  def run_through(lines)
    way = new_way
    lines.each_with_index { |one, number| feed(way, "#{one}\r\n".b, number) }
    feed(way, ":ann!a@b PRIVMSG #dawn :the good line\r\n", lines.size)
    way[:playout].flush(10**9)
    through = way[:hub].frames.last(3).any? { |frame| frame.include?("the good line") }
    @went_through += 1 if through
    assert(through || way[:session].ended)
    way[:hub].frames.each { |frame| check(JSON.parse(frame)) }
  end

  # What may stand in a frame: valid text without controls, colours that are colours, never more than was sent.
  def check(frame)
    assert_match(/\A\w{8}:\d+\z/, frame["at"])
    (frame.dig("in", "chat1") || []).each do |card|
      texts = card["f"].map(&:last)
      assert((texts + [card["n"]]).all? { |words| words.valid_encoding? && !words.match?(/[\u0000-\u001F\u007F\u2028\u2029]/) })
      assert_match(/\A#\h{6}\z/, card["c"])
      refute_empty texts.join.strip
      refute_empty card["n"]
    end
  end

  def feed(way, bytes, number)
    way[:reader].feed(bytes.b) do |one|
      way[:session].receive(one, number * 100)
      way[:session].take_outgoing
    end
    way[:session].tick(number * 100)
    way[:session].take_intakes.each { |intake| take(way, intake, number) }
    way[:playout].flush(number * 100)
  end

  def take(way, intake, number)
    case intake.kind
    when :line
      line = Bavard::Core::Chat::Line.from(intake, id: (number * 1000) + (way[:next] += 1))
      line.state = Bavard::Core::Moderation::LineState.new(:aired)
      way[:playout].add(line) if !line.text.empty? && way[:gate].hear(line, way[:memory]).pass?
    when :delete_line
      way[:playout].each_line { |line| line.state.move(:delete) if line.platform_id == intake.platform_id && line.state.seen? }
    end
  end

  def new_way
    address = Bavard::Feeds::Irc::Address.read("paste" => "irc://x.example/#dawn")
    session = Bavard::Feeds::Irc::Session.new(feed_id: 1, address:, mapping: Bavard::Feeds::Irc::Mapping.new, digits: -> { 42 },
      resume: Bavard::Feeds::Resume.new("m1", 0))
    session.begin(0)
    [":s CAP * LS :batch message-tags draft/chathistory", ":s CAP * ACK :batch message-tags draft/chathistory", ":s 001 guest42 :hi",
      ":guest42!u@h JOIN #dawn"].each { |one| session.receive(one, 0) }
    hub = Nowhere.new([])
    piece = Bavard::Core::Pieces::ChatPiece.build("chat1", "stay_ms" => "for good", "at_most" => 20)
    playout = Bavard::Live::Playout.new(Bavard::Relay::Topic.new("t"), hub, Bavard::Live::Playout::Shared.new(->(_line) { %w[circle #5fb8d6] }, nil, "Odalys"),
      document: Bavard::Core::Stage::Document.empty.merge("pieces" => [piece]))
    {reader: Bavard::Feeds::Irc::LineReader.new, session:, hub:, playout:, next: 0,
     gate: Bavard::Core::Gate::Ladder.from(Bavard::Core::Gate::RuleSet::DEFAULT["rules"]), memory: Bavard::Core::Gate::Memory.new}
  end
end
