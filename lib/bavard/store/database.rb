# frozen_string_literal: true

require "sequel"
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
      # A page waits this long for a connection before it says that the database is busy.
      POOL_WAIT_S = 4

      module_function

      # @param url [String] of a PostgreSQL 15 or newer
      # @return [Sequel::Database] with jsonb as plain hashes and arrays
      def open(url)
        db = Sequel.connect(url, max_connections: 8, pool_timeout: POOL_WAIT_S, connect_timeout: 4, test: false,
          connect_sqls: ["SET TIME ZONE 'UTC'"])
        db.extension :pg_json, :connection_validator
        db.pool.connection_validation_timeout = 30
        db
      end

      # @param db [Sequel::Database] brought to the newest version
      def migrate(db)
        Sequel::Migrator.run(db, MIGRATIONS)
      end

      # @return [Boolean] whether it answers and is as this version wants it
      def ready?(db)
        Sequel::Migrator.is_current?(db, MIGRATIONS)
      rescue Sequel::DatabaseError
        false
      end
    end
  end
end
