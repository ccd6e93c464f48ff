# frozen_string_literal: true

require_relative "../../lasting"
require_relative "../../store/refusal"

module Bavard
  module Live
    # What people do and what a show sets, one after the other, by a thread of its own, so that none of it waits for what feeds
    # bring. None of it is ever let go; it is tried until the database takes it.
    class JournalDeeds
      RETRY_AFTER_S = 0.5
      # So long it goes on trying when it is to end.
      STOP_WITHIN_S = 5

      # @return [String, nil] why nothing can be written just now
      attr_reader :trouble
      # @return [Integer] how many the database refused for what they are
      attr_reader :refused

      # @param writing [Store::DeedWriting, nil]
      # @param file [DeedFile, nil] where what waits lies while the database is away; nil: there is none
      # @param log [#warn, #error]
      # @param told [#call] of each that was refused
      def initialize(log:, writing: nil, file: nil, told: -> {})
        @writing = writing
        @file = file
        @log = log
        @told = told
        @lock = Mutex.new
        @changed = ConditionVariable.new
        @waiting = []
        @put = @written = @refused = @left = 0
      end

      def start
        leftover
        @thread = Lasting.new("deeds", told: ->(error) { @log.error("deeds: beginning anew", error) }) { run }.start
        self
      end

      # @param deed [Store::DeedWriting::Deed, nil] nil: what the block does, which cannot wait in a file
      # @return [Integer] its number, for {#await}
      def put(deed = nil, &work)
        @lock.synchronize do
          @waiting << (deed || work)
          keep_in_file(@waiting.last)
          @changed.broadcast
          @put += 1
        end
      end

      # @return [Boolean] whether something that an earlier process could not write is not written yet
      def behind? = @lock.synchronize { @written < @left }

      # @return [Integer] number of the last one that was put
      def last = @lock.synchronize { @put }
      def waiting = @lock.synchronize { @waiting.size }

      # @param number [Integer]
      # @param within_s [Numeric] seconds to wait for it at most; not at all while the database is away
      # @return [Boolean] whether it is written, and all before it
      def await(number, within_s)
        deadline_s = now_s + within_s
        @lock.synchronize do
          @changed.wait(@lock, deadline_s - now_s) while @written < number && !@trouble && now_s < deadline_s
          @written >= number
        end
      end

      # Writes what is waiting, unless the database is away, and ends.
      def stop
        @lock.synchronize do
          @stop_by_s = now_s + STOP_WITHIN_S
          @stopping = true
          @changed.broadcast
        end
        @thread.join
      end

      private

      # What an earlier process could not write any more.
      def leftover
        @waiting = @file&.read || []
        @put = @left = @waiting.size
        @file&.clear if @waiting.empty?
      end

      # As soon as one lies there all that come later do, until all are written: they count in their order.
      def keep_in_file(work)
        return unless @file && (@trouble || @file.any?)

        @file.append((@file.any? ? [work] : @waiting).grep(Store::DeedWriting::Deed))
      rescue SystemCallError, JSON::GeneratorError => error
        @log.error("journal: what people do cannot wait in a file", error)
      end

      def run
        while (work = first)
          write(work)
          break if @stopping && @trouble && now_s > @stop_by_s

          sleep(RETRY_AFTER_S) if @trouble
        end
      end

      def first
        @lock.synchronize do
          @changed.wait(@lock) while @waiting.empty? && !@stopping
          @waiting.first
        end
      end

      def write(work)
        work.is_a?(Proc) ? work.call : @writing.write(work)
        done
      rescue StandardError => error
        return refuse(error) if Store::Refusal.of?(error)

        @log.warn("journal: the database does not take what people do", error) unless @trouble
        enter(error.message.lines.first.to_s.strip)
      end

      # What the database refuses for what it says would stand in the way for ever.
      def refuse(error)
        @log.error("journal: something was refused and left out", error)
        @refused += 1
        @told.call
        done
      end

      def done
        @lock.synchronize do
          @waiting.shift
          @written += 1
          @trouble = nil
          @file&.clear if @waiting.empty?
          @changed.broadcast
        end
      end

      def enter(trouble)
        @lock.synchronize do
          @trouble = trouble
          keep_in_file(nil) unless @file.nil? || @file.any?
          @changed.broadcast
        end
      end

      def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
