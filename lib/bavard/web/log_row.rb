# frozen_string_literal: true

require "json"
require_relative "../core/chat/event_words"
require_relative "../core/gate/rules"

module Bavard
  module Web
    # An entry of the log as its page tells it.
    class LogRow
      SHOWN = {"aired" => "on air", "draft" => "in drafts", "nowhere" => "nowhere"}.freeze
      NO_MARK = ["ring", "#74838f"].freeze
      DAY = "%d %b %H:%M:%S"
      EXACT = "%H:%M:%S.%L"

      # @param entry [Store::Lines::Entry]
      # @param feed [Store::Feeds::Feed, nil] nil where it is gone for good
      def initialize(entry, feed)
        @entry = entry
        @line = entry.line
        @feed = feed
      end

      def name = @line.person.display_name
      def text = @line.text
      def at = time(@line.arrived_at_ms, DAY)
      def feed_name = @feed ? @feed.name : "gone"
      def mark = JSON.generate(@feed ? [@feed.shape, @feed.colour] : NO_MARK)
      def event = @line.event? ? Core::Chat::EventWords.of(@line) : nil
      def paid = @line.event? ? nil : @line.paid&.words

      # @return [Boolean] whether viewers do not see it
      def off? = @entry.pulled || !@entry.verdict.pass?

      # @return [String] what became of it
      def outcome
        return "kept off: #{label(@entry.verdict.rule)}" unless @entry.verdict.pass?
        return "taken away" if @entry.pulled

        @entry.aired ? "on air" : "let through"
      end

      # @return [String] of the style sheet, for the outcome
      def outcome_class
        return "off" unless @entry.verdict.pass?

        @entry.aired && !@entry.pulled ? "well" : ""
      end

      # @return [Array<String>] its way, step by step, and what else is known
      def steps = @entry.trace.map { |step, at_ms, what| [step, words(step, at_ms, what)].compact.join(" ") } + facts

      private

      def words(step, at_ms, what)
        case step
        when "received" then time(at_ms, EXACT)
        when "dressed" then what && "#{what} emote#{"s" unless what == 1}"
        when "judged" then what == "passed" ? what : label(what)
        else SHOWN.fetch(what.to_s, what)
        end
      end

      def facts
        [@entry.verdict.seen && "saw “#{@entry.verdict.seen}”", @line.platform_time_ms && "said there #{time(@line.platform_time_ms, DAY)}",
          @line.reply && "answers #{@line.reply.name || "an earlier line"}", "signed in as #{@line.person.login}"].compact
      end

      def label(rule) = Core::Gate::Rules.label(rule)
      def time(at_ms, form) = Time.at(at_ms/1000r).strftime(form)
    end
  end
end
