# frozen_string_literal: true

require "sequel"
require_relative "../error"
require "sequel/extensions/pg_json_ops"

Sequel.extension :migration
# Times without a zone of their own are UTC, wherever the machine is and however it was set up.
Sequel.default_timezone = :utc

module Bavard
  module Store
    # The way to PostgreSQL.
    #
    #   db = Database.open("postgres://…")
    #   Database.migrate(db)
    module Database
      MIGRATIONS = File.join(__dir__, "migrations")
      # First half of the number of the lock that whoever changes the database has.
      MIGRATING = 4602
      # A machine that was switched off, or that no way leads to any more, says nothing: either end gives up the line to it after so long, and with it
      # goes whatever was locked over that line.
      SILENT_S = 6
      KEEPALIVE = {idle: 3, interval: 1, count: SILENT_S - 3}.freeze
      # A line has begun after so long, or not at all; whoever types a command has more time.
      LINE_WITHIN_S = 4
      COMMANDS_LINE_WITHIN_S = 60
      LINE = {
        driver_options: {**KEEPALIVE.transform_keys { |key| :"keepalives_#{key}" }, tcp_user_timeout: SILENT_S * 1000},
        connect_timeout: LINE_WITHIN_S,
        connect_sqls: [*KEEPALIVE.map { |key, value| "SET tcp_keepalives_#{key} = #{value}" }, "SET tcp_user_timeout = #{SILENT_S * 1000}"]
      }.freeze
      # A page waits this long for a connection before it says that the database is busy.
      POOL_WAIT_S = 4

      module_function

      # @param url [String] of a PostgreSQL 15 or newer
      # @param within_s [Integer] for the beginning of a line
      # @return [Sequel::Database] with jsonb as plain hashes and arrays
      def open(url, within_s: LINE_WITHIN_S)
        db = Sequel.connect(url, max_connections: 8, pool_timeout: POOL_WAIT_S, test: false, **LINE, connect_timeout: within_s,
          connect_sqls: ["SET TIME ZONE 'UTC'", *LINE[:connect_sqls]])
        db.extension :pg_json, :connection_validator
        db.pool.connection_validation_timeout = 30
        db
      end

      # @param error [Sequel::DatabaseError]
      # @return [String] what whoever sits at a terminal is told
      def unreachable(error) = "The database cannot be reached: #{error.message.lines.first.strip.sub(/\APG::\w+: /, "")}."

      # For a process that does one thing and ends.
      def open_patiently(url) = Database.open(url, within_s: COMMANDS_LINE_WITHIN_S)

      # @param db [Sequel::Database] brought to the newest version
      # @raise [Bavard::Error] where it is newer than this program
      def migrate(db)
        if newer?(db)
          raise Error, "The database is of a newer Bavard (#{db[:schema_info].get(:version)}, this one knows #{newest}). Use that one, or restore " \
                       "a backup of before."
        end

        one_at_a_time(db) { Sequel::Migrator.run(db, MIGRATIONS) }
      end

      # Of several that begin at once, on whatever machine, one does it, and the others find it done.
      def one_at_a_time(db)
        db.synchronize do
          db.get(Sequel.function(:pg_advisory_lock, MIGRATING, 0))
          yield
        ensure
          db.get(Sequel.function(:pg_advisory_unlock, MIGRATING, 0))
        end
      end
      private_class_method :one_at_a_time

      # @return [Integer] the newest version that this program knows
      def newest = Dir.children(MIGRATIONS).map(&:to_i).max

      # @return [Boolean] whether it was brought to a version that this program does not know
      def newer?(db) = db.table_exists?(:schema_info) && db[:schema_info].get(:version).to_i > newest

      # @return [Boolean] whether it answers and is as this version wants it
      def ready?(db)
        Sequel::Migrator.is_current?(db, MIGRATIONS)
      rescue Sequel::DatabaseError
        false
      end
    end
  end
end
