# frozen_string_literal: true

require "json"
require_relative "../../../core/chat/event_words"
require_relative "../../../core/gate/rules"
require_relative "trace"

module Bavard
  module Web
    # An entry of the log as its page tells it.
    class LogRow
      NO_MARK = ["ring", "#74838f"].freeze
      DAY = "%d %b %H:%M:%S"

      # @param feed [Store::Feeds::Feed, nil]
      # @return [String] its mark as JSON, for the page to draw
      def self.mark_of(feed) = JSON.generate(feed ? [feed.shape, feed.colour] : NO_MARK)

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
      def mark = LogRow.mark_of(@feed)
      def event = @line.event? ? Core::Chat::EventWords.of(@line) : nil
      def paid = @line.event? ? nil : @line.paid&.words

      # @return [Boolean] whether viewers do not see it
      def off? = @entry.pulled || !@entry.verdict.pass?

      # @return [String] what became of it
      def outcome
        return "taken away" if @entry.pulled
        return "on air" if @entry.aired
        return "on hold" if @entry.held
        return "let through" if @entry.verdict.pass?

        "#{@entry.verdict.hold? ? "held" : "kept off"}: #{label(@entry.verdict.rule)}"
      end

      # @return [String] of the style sheet, for the outcome
      def outcome_class
        return "well" if @entry.aired && !@entry.pulled
        return "mind" if @entry.held

        @entry.verdict.pass? ? "" : "off"
      end

      # @return [Array<String>] its way, step by step
      def steps = Trace.new(@entry, @feed, []).steps.map { |step| [step[:plus], step[:title], step[:words]].compact.join(" · ") } + facts

      # @return [Integer] by which the prompter finds it
      def id = @line.id

      private

      def facts = [@line.reply && "answers #{@line.reply.name || "an earlier line"}"].compact
      def label(rule) = Core::Gate::Rules.label(rule)
      def time(at_ms, form) = Time.at(at_ms/1000r).strftime(form)
    end
  end
end
