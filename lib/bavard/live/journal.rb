# frozen_string_literal: true

require "json"
require "sequel"
require_relative "../lasting"
require_relative "../store/lines"

module Bavard
  module Live
    # Writes what happens to the log in batches, from a thread of its own, so that the database never holds up the
    # screen. While the database is away, or more comes in than it takes, it keeps what it can and says how much it had to let
    # go: of what feeds bring, and of those shows that bring the most. What people do is never let go.
    class Journal
      BATCH_EVERY_S = 0.02
      BATCH = 500
      MOST_WAITING = 50_000
      # A show may have that many more than its share where they take lines away: those are let go last.
      DELETES_SHARE = 2
      RETRY_AFTER_S = 0.5
      # What says nothing of the entry itself: it is tried again.
      AWAY = [Sequel::PoolTimeout, SystemCallError, IOError, ThreadError].freeze
      # That long after the last entry was let go, it counts as over.
      SHEDDING_S = 60
      # show_id:: of the show whose feeds brought it; nil for what is always kept
      # what:: a line's entry, an outcome, or work to do
      Waiting = Struct.new(:show_id, :what)

      # @return [Integer] entries that were given up for want of room, or that the database refused
      attr_reader :lost
      # @return [String, nil] why nothing can be written just now
      attr_reader :trouble

      # @param meters [Meters, nil] told of what is let go
      # @param room [Integer] entries that can wait
      def initialize(lines, log:, meters: nil, room: MOST_WAITING)
        @room = room
        @lines = lines
        @log = log
        @meters = meters
        @lock = Mutex.new
        @filled = ConditionVariable.new
        @waiting = []
        @shares = Hash.new(0)
        @shed_at_s = {}
        @lost = 0
      end

      def start
        @thread = Lasting.new("journal", told: ->(error) { @log.error("journal: beginning anew", error) }) { run }.start
        self
      end

      # @param entry [Store::Lines::Entry]
      def line(show_id, entry) = put_of(show_id, entry, 1)

      # What became of a line that was held.
      #
      # @param outcome [Store::Lines::Outcome]
      def settle(show_id, outcome) = put_of(show_id, outcome, 1)

      # What a feed takes away, after the lines that came before it.
      # @yield with the Store::Lines
      def take_away(show_id, &work) = put_of(show_id, work, DELETES_SHARE)

      # What is to happen after the lines that came before it, and is never let go: what people do, and what a show sets.
      # @yield with the Store::Lines
      def later(&work)
        @lock.synchronize { put(Waiting.new(nil, work)) }
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

      # @return [Array<Integer>] shows of which something was let go in the last minute
      def shedding
        since = now_s - SHEDDING_S
        @lock.synchronize { @shed_at_s.select { |_, at_s| at_s > since }.keys }
      end

      private

      def put(waiting)
        @waiting << waiting
        @filled.signal
      end

      # Once there is no room, each show has an equal share of it: whoever brings the most loses first.
      def put_of(show_id, what, times)
        kept = @lock.synchronize do
          next shed(show_id) unless @waiting.size < @room || @shares[show_id] < share(times)

          @shares[show_id] += 1
          put(Waiting.new(show_id, what))
        end
        @meters&.shed unless kept
      end

      def share(times) = times * @room / [@shares.size, 1].max

      # @return [false]
      def shed(show_id)
        @lost += 1
        warn_of(show_id)
        @shed_at_s[show_id] = now_s
        false
      end

      def warn_of(show_id)
        return if @shed_at_s.fetch(show_id, -SHEDDING_S) > now_s - SHEDDING_S

        @log.warn("journal: more comes in for show #{show_id} than is written; part of its log is lost")
      end

      def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)

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
      rescue StandardError => error
        raise unless refused?(error)
        return run.each { |entry| write_run([entry]) } if run.size > 1

        refuse(error)
      end

      def put_down(run)
        case run.first.what
        when Store::Lines::Entry then @lines.add(run.first.show_id, run.map(&:what))
        when Store::Lines::Outcome then @lines.settle(run.map(&:what))
        else run.each { |waiting| waiting.what.call(@lines) }
        end
      end

      # An entry the database refuses for what it says would stand in the way for ever.
      def refuse(error)
        @lost += 1
        @log.error("journal: an entry was refused and left out", error)
        taken_off(1)
      end

      # Not because the database or the disk is away or full, but for what it is, whatever is wrong with it.
      def refused?(error)
        return false if AWAY.any? { |kind| error.is_a?(kind) }

        !error.is_a?(Sequel::DatabaseError) || error.is_a?(Sequel::ConstraintViolation) || error.wrapped_exception.is_a?(PG::DataException)
      end

      def taken_off(count)
        @lock.synchronize do
          @waiting.shift(count).each do |waiting|
            next unless waiting.show_id

            @shares[waiting.show_id] -= 1
            @shares.delete(waiting.show_id) if @shares[waiting.show_id].zero?
          end
        end
      end

      def together?(before, after)
        before.what.instance_of?(after.what.class) && (!before.what.is_a?(Store::Lines::Entry) || before.show_id == after.show_id)
      end
    end
  end
end
