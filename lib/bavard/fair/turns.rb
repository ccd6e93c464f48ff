# frozen_string_literal: true

require_relative "../error"

module Bavard
  # Several owners share what there is of something, and none keeps it from another.
  module Fair
    # Long work for many owners: so much of it at once, one piece of it for each owner, owners in turn. Whoever asks waits in their own
    # thread; how many may wait is bounded, for all and for each.
    #
    #   turns = Turns.new(at_once: 2, most_waiting: 6, most_of_one: 2)
    #   turns.take(show_id) { make(picture) }
    class Turns
      # @param at_once [Integer] pieces of work
      # @param most_waiting [Integer] threads that wait, of all owners
      # @param most_of_one [Integer] threads that work or wait, of one owner
      def initialize(at_once:, most_waiting: 1000, most_of_one: 1000)
        @at_once = at_once
        @most_waiting = most_waiting
        @most_of_one = most_of_one
        @lock = Mutex.new
        @changed = ConditionVariable.new
        @working = {}
        @waiting = {}
      end

      # @param owner [Object] whose work it is
      # @param patient [Boolean] whether it waits however many do: a thread that has nothing else to do
      # @return what the block gives
      # @raise [Bavard::Busy] where too much waits already, in words that go on after "it"
      def take(owner, patient: false)
        at_work = false
        wait(owner, patient) { at_work = true }
        yield
      ensure
        @lock.synchronize { done(owner) } if at_work
      end

      # @return [Integer] how many threads wait
      def waiting = @lock.synchronize { count_waiting }

      private

      # The block is called once it is that owner's turn: whoever is ended then gives it back.
      def wait(owner, patient)
        ticket = Object.new
        @lock.synchronize do
          refuse(owner) unless patient
          (@waiting[owner] ||= []) << ticket
          @changed.wait(@lock) until next_ticket.equal?(ticket)
          @working[owner] = true
          yield
        ensure
          leave(owner, ticket)
        end
      end

      def refuse(owner)
        of_one = @waiting[owner].to_a.size + (@working.key?(owner) ? 1 : 0)
        raise Busy, "others of yours are being made just now; bring it again when they are done" if of_one >= @most_of_one
        raise Busy, "many others are being made just now; bring it again in a moment" if count_waiting >= @most_waiting
      end

      def count_waiting = @waiting.sum { |_, tickets| tickets.size }

      # Of the first owner in line who has none at work.
      def next_ticket
        @waiting.find { |owner, _| !@working.key?(owner) }&.last&.first if @working.size < @at_once
      end

      def leave(owner, ticket)
        tickets = @waiting[owner] or return
        tickets.delete(ticket)
        @waiting.delete(owner) if tickets.empty?
        @changed.broadcast
      end

      # Whoever had a turn goes behind all others.
      def done(owner)
        @working.delete(owner)
        tickets = @waiting.delete(owner)
        @waiting[owner] = tickets if tickets
        @changed.broadcast
      end
    end
  end
end
