# frozen_string_literal: true

require_relative "pauses"

module Bavard
  # A thread whose end is never unseen: what its work raises is told, and the work begins anew; where the thread itself is ended,
  # whoever looks after all of them begins it anew. A work that returns is done.
  #
  #   Lasting.new("journal", told: ->(error) { … }) { run }.start
  #   Lasting.look   # now and then
  class Lasting
    LONGEST_PAUSE_S = 2
    ALL = {}.compare_by_identity
    LOCK = Mutex.new

    # Begins anew what was ended from outside.
    def self.look
      LOCK.synchronize { ALL.keys }.each(&:revive)
    end

    attr_reader :name

    # @param name [String] of the thread
    # @param told [#call] gets what the work raised, nil where the thread was ended
    # @yield the work, from its beginning: called again after a fault
    def initialize(name, told:, &work)
      @name = name
      @told = told
      @work = work
    end

    # Whoever looks meanwhile waits: there would be two of it.
    def start
      LOCK.synchronize do
        @thread = Thread.new { last }
        @thread.name = name
        ALL[self] = true
      end
      self
    end

    def alive? = @thread&.alive? || false

    # Waits until the work is done, or so long.
    #
    # @return [Boolean] whether it is
    def join(seconds = nil)
      seconds ? !@thread&.join(seconds).nil? : (@thread&.join && true)
    end

    # Ends it where it is.
    def kill
      done
      @thread&.kill
    end

    def revive
      return if @done || alive?

      @told.call(nil)
      start
    end

    private

    def last
      pauses = Pauses.new(longest_s: LONGEST_PAUSE_S)
      begin
        @work.call
        done
      rescue StandardError => error
        @told.call(error)
        sleep pauses.next
        retry
      end
    end

    def done
      @done = true
      LOCK.synchronize { ALL.delete(self) }
    end
  end
end
