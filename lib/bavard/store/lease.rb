# frozen_string_literal: true

require "sequel"

module Bavard
  module Store
    # Sees to it that a show runs in one process at a time: advisory locks of PostgreSQL, held by a connection of their
    # own. They are let go when this process ends, however it ends.
    class Lease
      # First half of the locks' numbers, so that they are told apart from locks of anything else.
      KIND = 4600

      # @param url [String]
      def initialize(url)
        @db = Sequel.connect(url, max_connections: 1, connect_timeout: 4, test: false)
        @lock = Mutex.new
        @held = {}
      end

      # @return [Boolean] whether its connection stands
      def reach?
        @lock.synchronize { @db.get(1) == 1 }
      rescue Sequel::DatabaseError
        false
      end

      # @param show_id [Integer]
      # @return [Boolean] whether the show is ours now
      def take(show_id)
        @lock.synchronize { @held[show_id] = true if lock(show_id) }
        @held.key?(show_id)
      end

      # To be called now and then: takes the locks again that went with a lost connection.
      #
      # @return [Array<Integer>] shows that another process has taken meanwhile
      def renew
        @lock.synchronize { (@held.keys - ours).reject { |show_id| lock(show_id) }.each { |show_id| @held.delete(show_id) } }
      rescue Sequel::DatabaseError
        [] # while the database is away nobody else can take them either
      end

      # A show that is over.
      def release(show_id)
        @lock.synchronize { @db.get(Sequel.function(:pg_advisory_unlock, KIND, show_id)) if @held.delete(show_id) }
      end

      # Lets go of all shows.
      def close
        @db.disconnect
      end

      private

      # @return [Array<Integer>] shows whose lock this connection has
      def ours
        locks = @db[:pg_locks].where(locktype: "advisory", granted: true, classid: KIND, pid: Sequel.function(:pg_backend_pid))
        locks.select_map(:objid)
      end

      # Taken twice by the same connection, it would have to be let go twice.
      def lock(show_id)
        @db.get(Sequel.function(:pg_try_advisory_lock, KIND, show_id))
      end
    end
  end
end
