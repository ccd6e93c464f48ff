# frozen_string_literal: true

require "json"
require_relative "../store/lines"

module Bavard
  module Live
    # Writes what happens to the log in batches, from a thread of its own, so that the database never holds up the
    # screen. While the database is away it keeps what it can and says how much it had to let go.
    class Journal
      BATCH_EVERY_S = 0.02
      BATCH = 500
      MOST_WAITING = 50_000
      RETRY_AFTER_S = 0.5

      # @return [Integer] entries that were given up for want of room
      attr_reader :lost
      # @return [String, nil] why nothing can be written just now
      attr_reader :trouble

      def initialize(lines, log:)
        @lines = lines
        @log = log
        @lock = Mutex.new
        @filled = ConditionVariable.new
        @waiting = []
        @lost = 0
      end

      def start
        @thread = Thread.new { run }
        @thread.name = "journal"
        self
      end

      # @param entry [Store::Lines::Entry]
      def line(show_id, entry)
        put([show_id, entry])
      end

      # What became of a line that was held.
      #
      # @param outcome [Store::Lines::Outcome]
      def settle(outcome)
        put(outcome)
      end

      # What is to happen after the lines that came before it.
      # @yield with the Store::Lines
      def later(&work)
        put(work)
      end

      # Writes what is waiting and ends.
      def stop
        @lock.synchronize do
          @stopping = true
          @filled.signal
        end
        @thread.join
      end

      def waiting
        @lock.synchronize { @waiting.size }
      end

      private

      def put(entry)
        @lock.synchronize do
          next @lost += 1 if @waiting.size >= MOST_WAITING

          @waiting << entry
          @filled.signal
        end
      end

      def run
        loop do
          batch = take
          write(batch) unless batch.empty?
          break if @stopping && (@trouble || waiting.zero?)

          sleep(@trouble ? RETRY_AFTER_S : BATCH_EVERY_S) unless @stopping
        end
      end

      def take
        @lock.synchronize do
          @filled.wait(@lock) if @waiting.empty? && !@stopping
          @waiting.first(BATCH)
        end
      end

      # What was written is taken off only then: a batch that failed is tried again.
      def write(batch)
        runs = batch.chunk_while { |before, after| together?(before, after) }
        runs.each { |run| write_run(run) }
        @trouble = nil
      rescue Sequel::DatabaseError, Sequel::PoolTimeout => error
        @log.warn("journal: the database does not take the log", error) unless @trouble
        @trouble = error.message.lines.first.to_s.strip
      end

      def write_run(run)
        put_down(run)
        taken_off(run.size)
      rescue Sequel::DatabaseError, JSON::GeneratorError => error
        raise unless refused?(error)
        return run.each { |entry| write_run([entry]) } if run.size > 1

        refuse(error)
      end

      def put_down(run)
        case run.first
        when Array then @lines.add(run.first[0], run.map(&:last))
        when Store::Lines::Outcome then @lines.settle(run)
        else run.each { |work| work.call(@lines) }
        end
      end

      # An entry the database refuses for what it says would stand in the way for ever.
      def refuse(error)
        @lost += 1
        @log.error("journal: an entry was refused and left out", error)
        taken_off(1)
      end

      def refused?(error)
        error.is_a?(JSON::GeneratorError) || error.is_a?(Sequel::ConstraintViolation) || error.wrapped_exception.is_a?(PG::DataException)
      end

      def taken_off(count)
        @lock.synchronize { @waiting.shift(count) }
      end

      def together?(before, after)
        before.instance_of?(after.class) && (before.is_a?(Store::Lines::Outcome) || (before.is_a?(Array) && before[0] == after[0]))
      end
    end
  end
end
