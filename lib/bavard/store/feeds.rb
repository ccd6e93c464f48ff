# frozen_string_literal: true

require_relative "permissions"

module Bavard
  module Store
    # Feeds as they are kept. The password is closed in a SecretBox.
    class Feeds
      # address:: plain hash, its keys as the feed's kind names them; gap:: [from_ms, to_ms] or nil
      # wanted:: whether the host wants it connected
      # platform:: key of a Feeds::Platform, or nil; permission:: a Core::Permission, or nil
      # draft_only:: whether its lines go to drafts alone, and never on air; cursor:: where its kind goes on, as it names it
      # heard_at_ms:: until when it was heard, by a clock of which SteadyClock#mark was heard_mark
      Feed = Struct.new(:id, :show_id, :kind, :name, :shape, :colour, :address, :password, :mapping, :wanted, :heard_at_ms,
        :heard_mark, :gap, :platform, :draft_only, :cursor, :permission, keyword_init: true)
      PLAIN = %i[id show_id kind name shape colour wanted heard_at_ms platform draft_only].freeze

      # @param permissions [Permissions]
      def initialize(db, box, permissions = Permissions.new(db, box))
        @db = db
        @box = box
        @permissions = permissions
      end

      # Of two that want to add one to the same show at the same time, the second sees what the first has added.
      def one_by_one(show_id)
        @db.transaction do
          @db[:shows].where(id: show_id).for_update.get(:id)
          yield
        end
      end

      # @return [Feed]
      def create(show_id, kind:, name:, shape:, colour:, address:, password: nil, mapping: {}, platform: nil, draft_only: false, permission_id: nil)
        id = @db[:feeds].insert(show_id:, kind:, name:, shape:, colour:, address: Sequel.pg_jsonb(address), platform:, draft_only:, permission_id:,
          secret: @box.close(password), mapping: Sequel.pg_jsonb(mapping))
        find(id)
      end

      # @return [Feed, nil]
      def find(id)
        read(@db[:feeds].first(id:, removed_at_ms: nil))
      end

      # @return [Array<Feed>]
      def of_show(show_id)
        @db[:feeds].where(show_id:, removed_at_ms: nil).order(:id).map { |row| read(row) }
      end

      # @return [Array<Feed>] also those that were taken away, whose lines are still there
      def all_of_show(show_id)
        @db[:feeds].where(show_id:).order(:id).map { |row| read(row) }
      end

      # @return [Integer, nil] id of the show whose feed takes what is sent to this address
      def show_of_inbox(token)
        @db[:feeds].where(kind: "inbox", removed_at_ms: nil).where(Sequel.pg_jsonb_op(:address).get_text("token") => token).get(:show_id)
      end

      # @param values [Hash] any of wanted, mapping, name, heard_at_ms, heard_mark, address, draft_only, cursor,
      #   permission_id
      def keep(id, **values)
        values = values.transform_values { |value| value.is_a?(Hash) ? Sequel.pg_jsonb(value) : value }
        @db[:feeds].where(id:).update(values)
      end

      # @param from_ms [Integer] since when nothing was heard of it, Unix milliseconds
      # @param to_ms [Integer] until when
      def keep_gap(id, from_ms, to_ms)
        keep(id, gap_from_ms: from_ms, gap_to_ms: to_ms)
      end

      # Takes a feed away; its lines stay until it is put back or swept out.
      def remove(id, now_ms)
        keep(id, removed_at_ms: now_ms, wanted: false)
      end

      # @return [Feed, nil] nil where this show has taken no such feed away
      def put_back(show_id, id)
        back = @db[:feeds].where(id:, show_id:).exclude(removed_at_ms: nil).update(removed_at_ms: nil, wanted: true)
        find(id) if back == 1
      end

      private

      def read(row)
        return unless row

        gap = [row[:gap_from_ms], row[:gap_to_ms]]
        Feed.new(**row.slice(*PLAIN), address: row[:address].to_hash, password: @box.open(row[:secret]), mapping: row[:mapping].to_hash,
          gap: gap.all? ? gap : nil, cursor: row[:cursor]&.to_hash, heard_mark: row[:heard_mark]&.to_hash,
          permission: @permissions.find(row[:permission_id]))
      end
    end
  end
end
