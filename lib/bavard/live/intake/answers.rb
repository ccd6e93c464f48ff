# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Live
    # The newest lines the host sent, and feed by feed whether they went. Belongs to its show's thread.
    class Answers
      KEPT = 5
      # Characters of one answer, wherever it is written.
      LONGEST = 400
      Answer = Struct.new(:id, :text, :at_ms, :feeds)

      # @param given [String] as it was typed
      # @return [String] one line of it
      # @raise [Bavard::Error]
      def self.read(given)
        text = given.gsub(/\s+/, " ").strip
        raise Error.new("There is nothing to send yet.", field: "text") if text.empty?
        raise Error.new("An answer has room for #{LONGEST} characters.", field: "text", value: text.length) if text.length > LONGEST

        text
      end

      def initialize
        @answers = []
        @last_id = 0
      end

      # @return [Integer] its id
      def begin(text, feed_ids, now_ms)
        @answers << Answer.new(@last_id += 1, text, now_ms, feed_ids.to_h { |feed_id| [feed_id, {state: :sending}] })
        @answers.shift if @answers.size > KEPT
        @last_id
      end

      # @param answered [Core::Answered]
      def came(feed_id, answered)
        answer = @answers.find { |known| known.id == answered.answer_id } or return
        answer.feeds[feed_id] = {state: answered.went ? :went : :refused, reason: answered.reason} if answer.feeds.key?(feed_id)
      end

      # @return [Array<Hash>] newest first
      def report
        @answers.reverse.map { |answer| {id: answer.id, text: answer.text, at: answer.at_ms, feeds: answer.feeds.map { |id, how| {id:, **how} }} }
      end
    end
  end
end
