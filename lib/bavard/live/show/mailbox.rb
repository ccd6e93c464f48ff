# frozen_string_literal: true

module Bavard
  module Live
    # What waits for a show: what people and pages ask comes first, then what its feeds bring, of each in turn, so that one that
    # floods holds up nobody but itself. The reader can wait until a given moment. (Ruby 3.1's Queue#pop takes no timeout.)
    class Mailbox
      # Of what feeds bring, so much is taken between two looks at what is asked.
      AT_ONCE = 30

      # @param most [Integer] items kept of one feed; whoever brings more waits for room, so that a flood slows its own socket only
      # @param at_once [Integer]
      def initialize(most: 2000, at_once: AT_ONCE)
        @most = most
        @at_once = at_once
        @lock = Mutex.new
        @filled = ConditionVariable.new
        @emptied = ConditionVariable.new
        @asked = []
        @brought = {}.compare_by_identity
      end

      # @param lane [Object] whose turn it takes
      # @return [Boolean] whether a sender would have to wait
      def full?(lane)
        @lock.synchronize { waiting(lane) >= @most }
      end

      # @return [Hash{Object => Integer}] how much waits of each feed
      def waiting_of_feeds = @lock.synchronize { @brought.transform_values(&:size) }

      # What a feed brings. Waits for room, and gives way as soon as something waits: whoever reads a flood would else keep the others
      # from running for as long as Ruby lets it, a tenth of a second at a time.
      def put(item, lane)
        behind = @lock.synchronize do
          @emptied.wait(@lock) while waiting(lane) >= @most && !@closed
          add(item, lane)
          waiting(lane) > 1
        end
        Thread.pass if behind
      end

      # Behind what this feed brought, room or not: for senders that may not wait.
      #
      # @return [Boolean] false where nobody takes anything out any more
      def follow(item, lane)
        @lock.synchronize { !@retired && add(item, lane) }
      end

      # Before everything that feeds bring, at once.
      #
      # @return [Boolean] false where nobody takes anything out any more
      def drop_in(item)
        @lock.synchronize do
          next false if @retired

          @asked << item
          @filled.signal
          true
        end
      end

      # Nothing is put in from now on, if nothing is there now.
      #
      # @return [Boolean] whether that is so
      def retire
        @lock.synchronize { @retired = @asked.empty? && @brought.empty? }
      end

      # Nothing is put in from now on.
      #
      # @return [Array] what is asked and was not taken out
      def give_up
        @lock.synchronize do
          @retired = true
          @asked.slice!(0..)
        end
      end

      # Lets every sender through, from now on.
      def close
        @lock.synchronize do
          @closed = true
          @emptied.broadcast
        end
      end

      # @param seconds [Float, nil] how long to wait for the first; nil: for ever
      # @return [Array] all that is asked, and some of what feeds brought; perhaps nothing
      def take(seconds)
        @lock.synchronize do
          @filled.wait(@lock, seconds) if @asked.empty? && @brought.empty? && (seconds.nil? || seconds.positive?)
          taken = @asked
          @asked = []
          turns(taken) if @brought.any?
          taken
        end
      end

      private

      def waiting(lane) = @brought[lane]&.size || 0

      def add(item, lane)
        (@brought[lane] ||= []) << item
        @filled.signal
        true
      end

      # Whoever had a turn comes last in the next round.
      def turns(taken)
        @at_once.times do
          lane, items = @brought.first || break
          @brought.delete(lane)
          taken << items.shift
          @brought[lane] = items if items.any?
        end
        @emptied.broadcast
      end
    end
  end
end
