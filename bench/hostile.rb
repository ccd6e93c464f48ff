# frozen_string_literal: true

require "json"
require_relative "../lib/bavard/core/chat/line"
require_relative "../lib/bavard/core/gate/ladder"
require_relative "../lib/bavard/core/gate/memory"
require_relative "../lib/bavard/core/gate/rule_set"
require_relative "../lib/bavard/core/reading/speech"
require_relative "../lib/bavard/feeds/activities/reading"
require_relative "../lib/bavard/feeds/described"
require_relative "../lib/bavard/feeds/irc"
require_relative "../lib/bavard/live/lines/line_card"
require_relative "../test/support/ordinary_irc_server"
require_relative "hostile_drawn"

module Bench
  # 100 000 lines of somebody who wants to be more than they are, over each way in: read, dressed, judged, spoken and drawn by the air page
  # in a browser. What became of them.
  class Hostile
    MANY = 25_000
    CHANNEL = "#reedmere"
    PLATFORMS = File.expand_path("../docs/platforms", __dir__)
    MARK = ["circle", "#5fb8d6"].freeze
    # What lines are made of: words of the wires, markup, patterns, signs that write otherwise, and what is no text.
    PARTS = ["PRIVMSG #reedmere :hi", "+draft/event=tip", "+draft/amount=100000000/EUR;", "badges=host", "\u0001ACTION ",
      "\r\n:s MODE #reedmere +o eve", "\\:", "\\s", "<script>alert(1)</script>", "<img src=x onerror=alert(1)>", "<svg/onload=alert(1)>",
      "javascript:alert(1)", "&lt;b&gt;", "{{7*7}}", "<%= 7 %>", "${7}", "\"}],\"paid\":{\"minor\":1000000,\"currency\":\"EUR\"}",
      "\",\"type\":\"visit\"", "'; DROP TABLE lines; --", "\u202E", "\u2066", "\u0000", "\uFFF9", "a\u0301\u0301\u0301", "👩‍👩‍👧‍👦", "🦆🦆🦆",
      "\u{1F1E9}", "\uFE0F", "\u200D", "@odalys", "@everyone", "https://evil.example/?q=", "hxxp://evil dot example", ":owl:", "!command",
      "/me", "ÀÉ", "صباح", "n e s t", "?!?!", "\\u0000", "\xFF".b.force_encoding("UTF-8"), "\xED\xA0\x80".b.force_encoding("UTF-8")].freeze
    JUNK = [nil, true, -1, 0, 10**30, 1.5, "", [], {}, [[]], {"a" => {}}, "0", "NaN"].freeze

    def run
      @random = Random.new(13)
      @found = Hash.new(0)
      @cards = []
      %i[irc polling socket webhook].each { |way| MANY.times { |number| try(way, number) } }
      {lines: 4 * MANY, first_exception: @first, **%i[read not_read forged exceptions].to_h { |what| [what, @found[what]] },
       **HostileDrawn.new(@cards).run}
    end

    private

    # Every third is no item at all but what looks like one.
    def try(way, number)
      intakes = send(way, words, number % 3 == 2)
      @found[intakes.empty? ? :not_read : :read] += 1
      intakes.each { |intake| follow(intake, way) }
    rescue Bavard::Error
      @found[:not_read] += 1
    rescue StandardError => error
      @found[:exceptions] += 1
      @first ||= "#{way}: #{error.class} #{error.message[0, 120]} #{error.backtrace.first}"
    end

    def words = Array.new(@random.rand(1..8)) { PARTS.sample(random: @random) }.join(@random.rand(2).zero? ? "" : " ")

    # What only the platform says may stand there; in an item of junk it says what it likes.
    def follow(intake, way)
      @found[:forged] += 1 if forged?(intake, way)
      return unless intake.kind == :line

      line = Bavard::Core::Chat::Line.from(intake, id: @found[:read])
      ladder.hear(line, memory)
      Bavard::Core::Reading::Speech.of(line)
      @cards << Bavard::Live::LineCard.of(line, "#5fb8d6", MARK, nil)
    end

    def forged?(intake, way)
      return false if @junk
      return true if intake.kind != :line || intake.body.paid || intake.body.badges.any?

      way == :irc ? intake.body.login != "~eve" && !intake.body.login.start_with?("~") : intake.body.login != "eve"
    end

    def irc(words, _junk)
      @junk = false
      @server ||= OrdinaryIrcServer.new("eve")
      @irc ||= joined
      @server.relay("#{words} PRIVMSG #{CHANNEL} :x\n#{words}\n@#{words} PRIVMSG #{CHANNEL} :#{words}\nPRIVMSG #{CHANNEL} :#{words}")
        .each { |line| @irc.receive(line, 1000) }
      @irc.take_intakes
    end

    def joined
      address = Bavard::Feeds::Irc::Address.read("paste" => "irc://irc.example/#{CHANNEL}")
      Bavard::Feeds::Irc::Session.new(feed_id: 1, address:, mapping: Bavard::Feeds::Irc::Mapping.new({}), digits: -> { 42 }).tap do |session|
        session.begin(0)
        [":s CAP * LS :message-tags account-tag", ":s CAP * ACK :message-tags account-tag", ":s 001 guest42 :Welcome",
          ":s 005 guest42 PREFIX=(ov)@+ :are supported", ":guest42!g@h JOIN #{CHANNEL}"].each { |line| session.receive(line, 0) }
        session.take_intakes
      end
    end

    def polling(words, junk)
      item = {"type" => "message", "id" => "m1", "at" => "2026-11-25T05:52:00Z", "text" => words,
              "author" => {"login" => "eve", "name" => words[0, 40]}}
      by_description("lantern", spoilt(item, junk))
    end

    def socket(words, junk)
      event = {"op" => "event", "kind" => "line", "id" => "m1", "ts" => 1, "body" => words, "from" => {"login" => "eve", "nick" => words[0, 40]}}
      by_description("skein", spoilt(event, junk))
    end

    def by_description(name, item)
      @readings ||= Hash.new { |all, key| all[key] = Bavard::Feeds::Described::Description.load(File.join(PLATFORMS, "#{key}.json")).reading }
      [@readings[name].read(over_wire(item), 1, 9).intake].compact
    end

    def webhook(words, junk)
      activity = {"type" => "Create", "actor" => {"type" => "Person", "preferredUsername" => "eve", "name" => words[0, 40]},
                  "object" => {"type" => "Note", "mediaType" => "text/#{%w[plain html].sample(random: @random)}", "content" => words}}
      [Bavard::Feeds::Activities::Reading.read(JSON.generate(spoilt(activity, junk)), 1, 9, fallback_id: "f")]
    end

    # As a platform's own JSON has it.
    def over_wire(item) = JSON.parse(JSON.generate(item))

    def spoilt(item, junk)
      @junk = junk
      item = item.transform_values { |value| clean(value) }
      return item unless junk

      more = %w[emotes badges worth paid reply_to re author from object actor number count bavard:event type kind].to_h { |name| [name, anything] }
      item.merge(more.to_a.sample(4, random: @random).to_h)
    end

    # No JSON has bytes that are no UTF-8.
    def clean(value)
      return value.scrub if value.is_a?(String)

      value.is_a?(Hash) ? value.transform_values { |one| clean(one) } : value
    end

    def anything
      one = JUNK.sample(random: @random)
      @random.rand(3).zero? ? [one, {"login" => one, "at" => one, "length" => one, "minor" => one, "currency" => one}] : one
    end

    # Every rule, none of which ends what the others look at.
    def ladder
      held = %w[who_may_be_shown asked_for scripts links]
      @ladder ||= Bavard::Core::Gate::Ladder.from(Bavard::Core::Gate::RuleSet::DEFAULT["rules"].map do |rule|
        rule.merge({"on" => true}, held.include?(rule["kind"]) ? {"action" => "hold"} : {})
      end)
    end

    def memory = @memory ||= Bavard::Core::Gate::Memory.new(left_out: Bavard::Core::Gate::LeftOut.new([]), first_seen: ->(_) { 0 })
  end
end
