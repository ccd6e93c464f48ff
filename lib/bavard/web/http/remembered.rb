# frozen_string_literal: true

require "sequel"

module Bavard
  module Web
    # Who is who, for the length of an outage: what the database said last of somebody who was there a while ago. Only what they were, and
    # only while it does not answer; whoever is signed out or put out of a show is forgotten at once.
    class Remembered
      LASTS_MS = 12 * 3_600_000
      MOST = 5000
      # What is asked of a session, by its id.
      OF_SESSIONS = %i[session account factors].freeze
      Entry = Struct.new(:value, :at_ms)

      # @param clock [#call] Unix milliseconds
      def initialize(clock)
        @clock = clock
        @lock = Mutex.new
        @entries = {}
        @forgot = 0
      end

      # @param key [Array] who is asked about, and what
      # @yieldreturn what the database says now
      # @raise [Sequel::Error] where it says nothing and nothing is remembered
      def of(*key)
        before = @forgot
        yield.tap { |value| keep(key, value, before) }
      rescue Sequel::DatabaseError, Sequel::PoolTimeout
        known = @lock.synchronize { @entries[key] }
        raise unless known && @clock.call - known.at_ms <= LASTS_MS

        known.value
      end

      # What went on in sessions other than these: they were ended elsewhere, as by the operator.
      #
      # @param ids [Array<String>]
      def forget_sessions_but(ids)
        going_on = ids.to_h { |id| [id, true] }
        forgetting { @entries.delete_if { |(kind, id), _| OF_SESSIONS.include?(kind) && !going_on.key?(id) } }
      end

      # Whoever it was: they are asked about again.
      def forget = forgetting { @entries.clear }

      private

      def forgetting
        @lock.synchronize do
          @forgot += 1
          yield
        end
      end

      # What is not so is no reason to let anybody in later, and neither is what was so before somebody was to be forgotten.
      def keep(key, value, before)
        @lock.synchronize do
          @entries.delete(key)
          return unless value && before == @forgot

          @entries[key] = Entry.new(value, @clock.call)
          @entries.shift if @entries.size > MOST
        end
      end
    end
  end
end
