# frozen_string_literal: true

require "cgi"
require_relative "../lib/bavard/core/chat/line"
require_relative "../lib/bavard/core/gate/ladder"
require_relative "../lib/bavard/core/gate/rule_set"
require_relative "../lib/bavard/core/pieces/kinds/chat"
require_relative "../lib/bavard/core/stage/document"
require_relative "../lib/bavard/feeds/irc"
require_relative "../lib/bavard/live/lines/line_ids"
require_relative "../lib/bavard/live/playout/playout"
require_relative "../lib/bavard/relay/topic"
require_relative "cpu"
require_relative "steal"

module Bench
  # From the bytes of an IRC line with 12 tags to a frame that is ready to send out, one frame a line, on one core;
  # beside it the floor: a bare parse-and-escape of the same lines.
  class Pipeline
    include Cpu

    RUNS = 60
    LINES = 400
    UNESCAPED = {":" => ";", "s" => " "}.freeze
    TEXTS = ["morning all 🌅 who is on the boardwalk today?", "@Odalys can we see the wing again please",
      "that is a second-year bird, look at the iris", "log of yesterday is on reedmere.example/log", "صباح الخير من شرفة الطيور",
      "the mist coming off the water is unreal", "🪶🪶🪶", "ring number looks like K41 207"].freeze
    # Takes frames, and sends them nowhere.
    Nowhere = Struct.new(:bytes) { def deliver(_topic, frame) = self.bytes += frame.bytesize }

    def run
      @lines = (0...LINES).map { |number| wire(number) }
      least = {ours: Float::INFINITY, bare: Float::INFINITY}
      _, steal = Steal.around do
        RUNS.times do
          least[:ours] = [least[:ours], cpu { ours }].min
          least[:bare] = [least[:bare], cpu { bare }].min
        end
      end
      {lines_per_s: (LINES / least[:ours]).round, us_per_line: (least[:ours] / LINES * 1e6).round(1),
       bare_us_per_line: (least[:bare] / LINES * 1e6).round(1), ratio_to_bare: (least[:ours] / least[:bare]).round(2),
       runs: RUNS, steal_percent: steal.round(1)}
    end

    # @return [Hash{Symbol => Float}] objects that are made for a line, by ours and by the bare way
    def objects
      @lines = (0...LINES).map { |number| wire(number) }
      {ours: made { ours }, bare: made { bare }}
    end

    private

    # The second time, when what is made once is there.
    def made
      yield
      before = GC.stat(:total_allocated_objects)
      yield
      (GC.stat(:total_allocated_objects) - before).fdiv(LINES)
    end

    # 12 tags, as a server with everything on sends them.
    def wire(number)
      tags = {"msgid" => "abcdef#{number}", "time" => "2026-11-24T05:52:#{format("%02d", number % 60)}.250Z", "account" => "viewer#{number % 90}",
              "draft/display-name" => "Viewer\\s#{number % 90}", "draft/color" => format("#%06x", (number % 90 * 185_287) % 0xffffff),
              "draft/badges" => "subscriber/12,ringer", "draft/emotes" => "", "room" => "4711", "flags" => "a\\:b", "first" => "0",
              "mod" => "0", "client-nonce" => "n#{number}"}
      "@#{tags.map { |key, value| "#{key}=#{value}" }.join(";")} :v#{number % 90}!u@h PRIVMSG #dawn :#{TEXTS[number % TEXTS.size]}\r\n"
    end

    def ours
      parts = pipeline
      now_ms = 1_795_499_520_000
      @lines.each do |bytes|
        parts[:reader].feed(bytes) { |text| parts[:session].receive(text, now_ms) }
        parts[:session].take_intakes.each { |intake| through(parts, intake, now_ms) }
        parts[:playout].flush(now_ms)
        now_ms += Bavard::Live::Playout::FRAME_MS
      end
      raise "a line was lost" unless parts[:shown] == LINES
    end

    def through(parts, intake, now_ms)
      return unless intake.kind == :line

      line = Bavard::Core::Chat::Line.from(intake, id: parts[:ids].next(now_ms))
      parts[:playout].add(line) if parts[:gate].hear(line, parts[:memory]).pass?
      parts[:shown] += 1
    end

    def pipeline
      address = Bavard::Feeds::Irc::Address.read("paste" => "irc://x.example/#dawn")
      session = Bavard::Feeds::Irc::Session.new(feed_id: 1, address:, mapping: Bavard::Feeds::Irc::Mapping.new)
      session.begin(0)
      [":s 421 * CAP :?", ":s 001 g :hi", ":g!u@h JOIN #dawn"].each { |text| session.receive(text, 0) }
      session.take_intakes
      document = Bavard::Core::Stage::Document.empty.merge("pieces" => [Bavard::Core::Pieces::ChatPiece.build("chat1")])
      playout = Bavard::Live::Playout.new(Bavard::Relay::Topic.new("bench"), Nowhere.new(0),
        Bavard::Live::Playout::Shared.new(->(_line) { ["circle", "#5fb8d6"] }, nil, "Odalys Fenn"), document:)
      {reader: Bavard::Feeds::Irc::LineReader.new, session:, ids: Bavard::Live::LineIds.new(0), playout:, shown: 0,
       gate: Bavard::Core::Gate::Ladder.from(Bavard::Core::Gate::RuleSet::DEFAULT["rules"]), memory: Bavard::Core::Gate::Memory.new}
    end

    # What any program would have to do: cut the line up and make its words safe.
    def bare
      @lines.each do |bytes|
        head, _source, _command, _channel, text = bytes.dup.force_encoding(Encoding::UTF_8).scrub.chomp.split(" ", 5)
        tags = head[1..].split(";").to_h do |pair|
          key, value = pair.split("=", 2)
          [key, value.gsub(/\\(.)/) { UNESCAPED.fetch(Regexp.last_match(1), Regexp.last_match(1)) }]
        end
        "<b>#{CGI.escapeHTML(tags["draft/display-name"])}</b> #{CGI.escapeHTML(text[1..])}"
      end
    end
  end
end
