# frozen_string_literal: true

require "securerandom"
require "sequel"
require_relative "database"

module Bavard
  module Store
    # Sees to it that a show runs in one process at a time: advisory locks of PostgreSQL, held by a connection of their
    # own. They are let go when this process ends, however it ends.
    class Lease
      # First half of the locks' numbers, so that they are told apart from locks of anything else.
      KIND = 4600
      # The same of locks by which a process is known to be there.
      STANDING = 4601

      # @return [Sequel::Database] the line over which locks are held, and nothing else
      attr_reader :db

      # So long the database has for ending a line of ours that is not in use any more.
      ENDS_WITHIN_MS = 1000

      # @param url [String]
      def initialize(url)
        @name = "bavard lease #{SecureRandom.uuid}"
        @db = Sequel.connect(url, max_connections: 1, test: false, **Database::LINE,
          connect_sqls: ["SET application_name = '#{@name}'", *Database::LINE[:connect_sqls]])
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

      # That this process is there, until it ends, however it ends.
      #
      # @param number [Integer] of it among others
      # @return [Boolean] false where another with that number is there
      def stand(number)
        @lock.synchronize { lock(number, STANDING).tap { |stands| remember(number) if stands } }
      end

      # @return [Boolean] whether the line to the database is another one than that over which locks were taken: all of them went with it, for others,
      #   too, where it was the database that ended
      def anew? = @number && @lock.synchronize { @over != pid }

      # It takes nothing more, and is not counted.
      def sit
        @lock.synchronize { @db.get(Sequel.function(:pg_advisory_unlock, STANDING, @number)) if @number }
      rescue Sequel::DatabaseError
        nil # what the database had of this process is gone with it
      ensure
        @number = nil
      end

      # @param db [Sequel::Database]
      # @return [Sequel::Dataset] numbers of locks that somebody has in this database
      def self.held(db, kind)
        db[:pg_locks].where(locktype: "advisory", granted: true, classid: kind,
          database: db[:pg_database].where(datname: Sequel.function(:current_database)).select(:oid)).select(Sequel.cast(:objid, :bigint))
      end

      # @return [Array<Integer>, nil] shows that run in whatever process; nil while the database is away
      def taken
        @lock.synchronize { Lease.held(@db, KIND).select_map(Sequel.cast(:objid, :bigint)) }
      rescue Sequel::DatabaseError
        nil
      end

      # To be called now and then: takes the locks again that went with a lost connection.
      #
      # @return [Array<Integer>] shows that another process has taken meanwhile
      def renew
        @lock.synchronize do
          remember(@number) if @number && (ours(STANDING).include?(@number) || lock(@number, STANDING))
          locked = ours
          (locked - @held.keys).each { |show_id| unlock(show_id) }
          (@held.keys - locked).reject { |show_id| lock(show_id) }.each { |show_id| @held.delete(show_id) }
        end
      rescue Sequel::DatabaseError
        [] # while the database is away nobody else can take them either
      end

      # A show that is over.
      def release(show_id)
        @lock.synchronize { unlock(show_id) if @held.delete(show_id) }
      end

      # Shows that were let go where the database could not be told: others may have them.
      def forget(show_ids) = show_ids.each { |show_id| @held.delete(show_id) }

      # Lets go of all shows.
      def close
        @db.disconnect
      end

      private

      def remember(number)
        @number = number
        @over = pid
      end

      # Of the other end of its line.
      def pid = @db.synchronize(&:backend_pid)

      # @return [Array<Integer>] shows whose lock this connection has
      def ours(kind = KIND)
        locks = @db[:pg_locks].where(locktype: "advisory", granted: true, classid: kind, pid: Sequel.function(:pg_backend_pid))
        locks.select_map(:objid)
      end

      def unlock(show_id) = @db.get(Sequel.function(:pg_advisory_unlock, KIND, show_id))

      # Taken twice by the same connection, it would have to be let go twice. What a line of before has is ours: the database may not know
      # yet that we are not at its other end any more.
      def lock(number, kind = KIND) = try(number, kind) || (left_behind(number, kind).any? && try(number, kind))

      def try(number, kind) = @db.get(Sequel.function(:pg_try_advisory_lock, kind, number))

      # @return [Array<Integer>] lines of ours that are ended with this, for they had that lock
      def left_behind(number, kind)
        lines = @db[:pg_stat_activity].where(application_name: @name, pid: Lease.held(@db, kind).where(objid: number).select(:pid))
        lines.exclude(pid: Sequel.function(:pg_backend_pid)).select_map(:pid)
          .each { |pid| @db.get(Sequel.function(:pg_terminate_backend, pid, ENDS_WITHIN_MS)) }
      end
    end
  end
end
