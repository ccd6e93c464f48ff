# frozen_string_literal: true

require_relative "../../../core/gate/rules"
require_relative "../../../core/moderation/deed"

module Bavard
  module Web
    # Where a line went, step by step, in words: from its arrival to why it left, and what people did about it.
    class Trace
      SECOND_MS = 1000
      SHOWN = {"aired" => ["Went on the picture", nil],
               "draft" => ["In drafts only", "its feed is read for the draft alone, or no stage on air takes it in"],
               "thinned" => ["Not on the picture", "its feed brings more than anybody can read; only some of it goes there"],
               "nowhere" => ["On no stage", "no chat piece on air takes in such lines"]}.freeze

      JUDGED = {"drop" => ["Gate kept it off", "off"], "hold" => ["Gate holds it", "mind"], "mask" => ["Gate covered part of it", "told"],
                "calm" => ["Gate toned it down", "told"]}.freeze

      EDITED = "edited"

      # @param entry [Store::Lines::Entry]
      # @param feed [Store::Feeds::Feed, nil]
      # @param deeds [Array<Core::Moderation::Deed>] about the line
      def initialize(entry, feed, deeds)
        @entry = entry
        @line = entry.line
        @feed = feed
        @deeds = deeds
      end

      # @return [Array<Hash>] at: when, plus: since it came, title, words, kind: well, off, mind or told
      def steps
        came = @entry.trace.first&.at(1) || @line.arrived_at_ms
        all = @entry.trace.filter_map { |name, at_ms, what| step(name, at_ms, what) } + @deeds.flat_map { |deed| done(deed) }
        all << pulled_since if @entry.pulled && all.none? { |one| one[:kind] == "off" }
        all.sort_by.with_index { |one, index| [one[:at], index] }.map.with_index { |one, index| one.merge(plus: plus(one[:at] - came, index)) }
      end

      private

      def step(name, at_ms, what)
        title, words, kind = name == EDITED ? ["Changed by its writer", what && "it said “#{what}” before", "mind"] : happening(name, what)
        {at: at_ms, title:, words:, kind: kind || "well"} if title
      end

      def happening(name, what)
        case name
        when "received" then ["Came in from #{@feed ? @feed.name : "a feed that is gone"}", about]
        when "dressed" then ["Dressed", what ? "#{what} emote#{"s" unless what == 1}, #{badges}" : "no emotes, #{badges}"]
        when "judged" then judged(what)
        when "held" then ["On hold", @entry.verdict.hold? ? "until somebody lets it go" : "somebody may pull it", "mind"]
        when "stopped" then ["Stopped by the brake", "it goes when somebody lets it go", "mind"]
        when "released" then ["Hold ended", "nobody pulled it"]
        when "let go" then ["Let go", nil]
        when "left" then ["Left without being shown", what, "off"]
        when "deleted" then ["Deleted on the platform", "it was not on the picture yet", "off"]
        when "shown" then SHOWN.fetch(what.to_s, ["Shown", what]) + [what.to_s == "aired" ? "well" : "told"]
        when "painted" then ["On screen, #{what[0]}", "drawn by #{what[1]}"]
        when "gone" then ["Left the screen, #{what[0]}", what[1]]
        end
      end

      def about
        facts = ["signed in as #{@line.person.login}"]
        facts << "said there #{exact(@line.platform_time_ms)}" if @line.platform_time_ms
        facts << "first line there" if @line.first_time
        facts.join("; ")
      end

      def badges
        count = @line.person.badges.size
        count.zero? ? "no badges" : "#{count} badge#{"s" unless count == 1}"
      end

      def judged(what)
        return ["Gate let it through", "no rule had anything to say"] if what == "passed"
        return ["Gate: #{label(what)}", @entry.verdict.seen && "saw “#{@entry.verdict.seen}”", "off"] if what.is_a?(String)

        words = what["found"].map { |one| [label(one["rule"]), one["why"]].compact.join(": ") }.join("; ")
        title, kind = JUDGED.fetch(what["action"], ["Gate let it through", "well"])
        [title, words, kind]
      end

      def done(deed)
        title = "#{deed.by} #{deed.words} it"
        kind = deed.what == "pull" ? "off" : "told"
        found = [{at: deed.at_ms, title:, words: nil, kind:}]
        found << {at: deed.undone_ms, title: "#{deed.undone_by} took that back", words: nil, kind: "told"} if deed.undone_ms
        found
      end

      def pulled_since
        {at: @entry.trace.last&.at(1) || @line.arrived_at_ms, title: "Taken away", words: "deleted on the platform, or its person silenced there",
         kind: "off"}
      end

      def label(rule) = Core::Gate::Rules.label(rule)
      def exact(ms) = Time.at(ms/1000r).strftime("%H:%M:%S")

      def plus(ms, index)
        return exact(@line.arrived_at_ms) + Time.at(@line.arrived_at_ms/1000r).strftime(".%L") if index.zero?
        return "+ #{ms} ms" if ms < SECOND_MS

        "+ #{format("%.2f", ms / 1000.0)} s"
      end
    end
  end
end
