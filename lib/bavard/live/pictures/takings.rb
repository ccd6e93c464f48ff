# frozen_string_literal: true

require "securerandom"
require_relative "../../error"
require_relative "../../store/refusal"
require_relative "../../unwatched"
require_relative "../journal/disk"

module Bavard
  module Live
    # Pictures and films that somebody brings and that take a while: each made anew by a thread of its own, watched and stopped from
    # the page that brought it.
    class Takings
      # Of one show: that are on their way, and that are remembered.
      MOST_RUNNING = 4
      KEPT = 20

      # One of them. share:: 0 to 100; state:: :running, :done, :refused, :stopped; result:: what came of it; error:: why not
      class Taking
        attr_reader :id, :show_id, :name, :share, :state, :result, :error

        def initialize(show_id, name)
          @id = SecureRandom.alphanumeric(12)
          @show_id = show_id
          @name = name
          @share = 0
          @state = :running
          @lock = Mutex.new
          @ended = ConditionVariable.new
        end

        # @param done [Numeric] of total
        def told(done, total) = (@share = (100 * done / total).round.clamp(0, 100) if total.positive?)

        def stopped? = @state == :stopped
        def running? = @state == :running
        def stop = end_as(:stopped)

        # @yield does it, and gives what came of it
        def run
          result = yield self
          end_as(:done) { @result = result }
        rescue Stopped
          nil
        rescue Error => error
          end_as(:refused) { @error = error }
        end

        # @param within_s [Numeric]
        # @return [Boolean] whether it is over by then
        def over?(within_s)
          ends_s = now + within_s
          @lock.synchronize { @ended.wait(@lock, [ends_s - now, 0].max) while running? && now < ends_s }
          !running?
        end

        def report = {state: @state, share: @share, name: @name, words: @error&.message, result: @result}.compact

        private

        # The first that ends it counts.
        def end_as(state)
          @lock.synchronize do
            return unless running?

            yield if block_given?
            @state = state
            @ended.broadcast
          end
        end

        def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      end

      def initialize(log)
        @log = log
        @lock = Mutex.new
        @takings = []
      end

      # @param name [String] of the file
      # @yieldparam taking [Taking] that is told how far it is
      # @yieldreturn [Object] for the page that brought it
      # @return [Taking]
      # @raise [Bavard::Busy]
      def begin(show_id, name, &work)
        taking = Taking.new(show_id, name)
        @lock.synchronize do
          make_room(show_id)
          @takings << taking
        end
        Thread.new { follow(taking, work) }.name = "taking"
        taking
      end

      # @return [Taking, nil]
      def find(show_id, id) = @lock.synchronize { @takings.find { |taking| taking.id == id && taking.show_id == show_id } }

      def stop_all = @lock.synchronize { @takings.dup }.each(&:stop)

      private

      def follow(taking, work)
        taking.run(&work)
      rescue StandardError => error
        @log.error("something that was brought failed", error)
        taking.run { raise Error, Store::Refusal.no_room?(error) ? Disk::FULL : "Something went wrong on our side. Nothing was changed." }
      end

      def make_room(show_id)
        running, over = @takings.select { |taking| taking.show_id == show_id }.partition(&:running?)
        raise Busy, "#{running.size} files of yours are on their way already. Bring this one when they are done." if running.size >= MOST_RUNNING

        @takings -= over.first([over.size - KEPT + 1, 0].max)
      end
    end
  end
end
