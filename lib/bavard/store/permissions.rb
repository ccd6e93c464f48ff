# frozen_string_literal: true

require "json"
require_relative "../core/permission"

module Bavard
  module Store
    # Permissions of platforms as they are kept: the tokens closed in a SecretBox.
    class Permissions
      def initialize(db, box)
        @db = db
        @box = box
      end

      # @param permission [Core::Permission] another one of the same account takes its place
      # @return [Core::Permission] with its id
      def keep(show_id, permission)
        values = row(permission).merge(show_id:)
        id = @db[:permissions].returning(:id).insert_conflict(target: %i[show_id platform account],
          update: values.except(:show_id, :platform, :account))
          .insert(values).first[:id]
        find(id)
      end

      # Newer tokens of one that is known.
      def renew(permission)
        @db[:permissions].where(id: permission.id).update(row(permission).slice(:secret, :expires_at_ms))
      end

      # @return [Core::Permission, nil]
      def find(id)
        read(@db[:permissions].first(id:)) if id
      end

      def remove(id)
        @db[:permissions].where(id:).delete
      end

      private

      def row(permission)
        {platform: permission.platform, account: permission.account, name: permission.name, may: Sequel.pg_jsonb(permission.may),
         secret: @box.close(JSON.generate([permission.access, permission.refresh])), expires_at_ms: permission.expires_at_ms,
         since_ms: permission.since_ms}
      end

      def read(row)
        return unless row && (tokens = @box.open(row[:secret]))

        access, refresh = JSON.parse(tokens)
        Core::Permission.new(row[:id], row[:platform], row[:account], row[:name], row[:may].to_a, access, refresh, row[:expires_at_ms],
          row[:since_ms])
      end
    end
  end
end
