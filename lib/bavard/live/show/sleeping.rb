# frozen_string_literal: true

require_relative "../../timer"

module Bavard
  module Live
    # When nobody needs a show, how it goes to sleep, and what it costs while it is awake. Part of {Show}.
    module Sleeping
      # Where nothing goes on in it: no page follows, no feed is wanted, and nothing is waited for.
      #
      # @return [Boolean]
      def at_rest?
        ask { quiet? }
      rescue Busy
        false
      end

      # Ends it, if nothing goes on in it and nobody asks anything. Whoever does so later asks the one that is woken.
      #
      # @return [Boolean] whether it has ended
      def go_to_sleep
        answer = Queue.new
        ask { @sleepy = answer }
        Timer.pop(answer, Show::ANSWER_WITHIN_S) { return false }.tap { |asleep| leave if asleep }
      end

      # @return [Array<Relay::Topic>] that pages of it follow
      def topics = [topic, prompter.topic, *desks.each_value.flat_map { |desk| [desk.air_topic, desk.draft_topic] }]

      # @return [Integer] screens and browser sources that show something of it
      def screens_open = desks.each_value.sum { |desk| @hub.size(desk.air_topic) }

      # @return [Float] seconds of a processor since it was woken
      attr_reader :processor_s

      # @return [Hash{FeedLane => Integer}] what its feeds have brought that waits
      def waiting_of_feeds = @mailbox.waiting_of_feeds

      # @return [Float] of one processor, since it runs
      def processor_share = @processor_s / [(now_ms - @woken_ms) / 1000.0, 1].max

      private

      # With all done that was asked.
      def fall_asleep
        answer = @sleepy
        @sleepy = nil
        answer << (@stopping = quiet? && @mailbox.retire)
      end

      def quiet?
        topics.all? { |one| @hub.size(one).zero? } && lanes.each_value.none? { |lane| lane.feed.wanted } && parts_due.empty?
      end
    end
  end
end
