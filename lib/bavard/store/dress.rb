# frozen_string_literal: true

require_relative "../core/dress/emote"
require_relative "../core/dress/badge"

module Bavard
  module Store
    # What lines wear, as it is kept: pictures, shelves with their emotes, phrases, badges, and where pictures came from.
    class Dress
      # A shelf with what only its own page wants to know. said:: what came of its last import; used:: by emote id
      Shelf = Struct.new(:shelf, :position, :address, :said, :used, :read_at_ms)

      def initialize(db)
        @db = db
      end

      # @param made [#id, #width, #height, #frames] a picture whose files are kept already
      def picture(made, now_ms)
        @db[:pictures].insert_conflict.insert(id: made.id, width: made.width, height: made.height, frames: made.frames, made_at_ms: now_ms)
      end

      # @return [Array<Shelf>] in their order
      def shelves(show_id)
        rows = @db[:shelves].where(show_id:, removed_at_ms: nil).order(:position, :id).all
        emotes = emotes_of(rows.map { |row| row[:id] })
        rows.map do |row|
          own = emotes.fetch(row[:id], [])
          shelf = Core::Dress::Shelf.new(row[:id], row[:name], row[:on], row[:off_feeds].to_a, own.map(&:first), row[:feed_id])
          Shelf.new(shelf, row[:position], row[:address], row[:said], own.to_h { |emote, used| [emote.id, used] }, row[:read_at_ms])
        end
      end

      # @return [Integer] its id; it stands below the others
      def add_shelf(show_id, name, address: nil, feed_id: nil)
        position = (@db[:shelves].where(show_id:).max(:position) || 0) + 1
        @db[:shelves].insert(show_id:, name: name[0, 80], position:, address:, feed_id:)
      end

      # @return [Boolean] whether this show has such a shelf
      def keep_shelf(show_id, id, **values)
        values = values.transform_values { |value| value.is_a?(Array) ? Sequel.pg_jsonb(value) : value }
        @db[:shelves].where(show_id:, id:).update(values).positive?
      end

      # @return [Boolean] whether this show has such a shelf, and has not taken it away
      def shelf?(show_id, id) = @db[:shelves].where(show_id:, id:, removed_at_ms: nil).any?

      # @param ids [Array<Integer>] in the order they are to stand; what is no shelf of the show does not count
      def order_shelves(show_id, ids)
        own = ids & @db[:shelves].where(show_id:).select_map(:id)
        @db.transaction { own.each_with_index { |id, index| @db[:shelves].where(id:).update(position: index + 1) } }
      end

      # @param taken [Array<Hash>] code, picture, overlay, any_case; a code that is there gets the newer picture
      # @param instead [Boolean] whether what the shelf had goes
      def put_on_shelf(shelf_id, taken, now_ms, instead: false)
        @db.transaction do
          taken.each do |emote|
            @db[:pictures].insert_conflict.insert(id: emote["picture"], **emote.slice("width", "height", "frames").transform_keys(&:to_sym),
              made_at_ms: now_ms)
          end
          @db[:emotes].where(shelf_id:).exclude(code: taken.map { |emote| emote["code"] }).delete if instead
          rows = taken.map do |emote|
            {shelf_id:, code: emote["code"], picture_id: emote["picture"], overlay: emote["overlay"] == true, any_case: emote["any_case"] == true}
          end
          @db[:emotes].insert_conflict(target: %i[shelf_id code],
            update: {picture_id: Sequel[:excluded][:picture_id], overlay: Sequel[:excluded][:overlay]}).multi_insert(rows)
        end
      end

      # What stands on a shelf besides those goes.
      def only_codes(shelf_id, codes) = @db[:emotes].where(shelf_id:).exclude(code: codes).delete

      # One emote with a picture that is known; a code that is there gets this picture.
      def put_emote(shelf_id, code, picture_id)
        @db[:emotes].insert_conflict(target: %i[shelf_id code], update: {picture_id:}).insert(shelf_id:, code:, picture_id:)
      end

      # @return [Boolean]
      # @raise [Sequel::UniqueConstraintViolation] where the shelf has that code already
      def keep_emote(show_id, id, **values)
        own_emote?(show_id, id) && @db[:emotes].where(id:).update(values).positive?
      end

      # @return [Hash, nil] the row that went, for putting it back
      def remove_emote(show_id, id)
        return unless own_emote?(show_id, id)

        @db[:emotes].returning.where(id:).delete.first
      end

      # @param row [Hash] as it was taken away
      def put_back_emote(show_id, row)
        @db[:emotes].insert_conflict.insert(row) if @db[:shelves].where(show_id:, id: row[:shelf_id]).any?
      end

      # @param counts [Hash{Integer => Integer}] by emote id
      def count_uses(counts, now_ms)
        counts.each { |id, count| @db[:emotes].where(id:).update(used: Sequel[:used] + count, used_at_ms: now_ms) }
      end

      # @return [Array<Core::Dress::Phrase>]
      def phrases(show_id)
        @db[:phrases].where(show_id:).join(:pictures, id: :picture_id).select_all(:phrases).select_append(:width, :height,
          :frames).order(Sequel[:phrases][:id])
          .map do |row|
          Core::Dress::Phrase.new(row[:id], row[:words], emote(row.merge(id: nil, code: row[:words])))
        end
      end

      def add_phrase(show_id, words, picture_id)
        @db[:phrases].insert_conflict(target: %i[show_id words], update: {picture_id:}).insert(show_id:, words:, picture_id:)
      end

      # @return [Hash, nil] the row that went
      def remove_phrase(show_id, id)
        @db[:phrases].returning.where(show_id:, id:).delete.first
      end

      # @param row [Hash] as it was taken away
      def put_back_phrase(show_id, row)
        @db[:phrases].insert_conflict.insert(row.merge(show_id:))
      end

      # @return [Array<Core::Dress::BadgeSetting>]
      def badges(show_id)
        @db[:badges].join(:feeds, id: :feed_id).where(Sequel[:feeds][:show_id] => show_id, Sequel[:feeds][:removed_at_ms] => nil)
          .order(Sequel[:badges][:kind]).select_all(:badges).map { |row| Core::Dress::BadgeSetting.new(row[:feed_id], row[:kind], row[:shown], row[:theirs], row[:picture_id]) }
      end

      # A kind that nobody has seen before, or that has another picture of the platform's now.
      def badge_seen(feed_id, kind, theirs)
        @db[:badges].insert_conflict(target: %i[feed_id kind], update: {theirs:}).insert(feed_id:, kind:, theirs:)
      end

      def keep_badge(feed_id, kind, **values)
        @db[:badges].where(feed_id:, kind:).update(values).positive?
      end

      # @return [Array(String, String), nil] the picture's id, or why there is none
      def at_address(address, since_ms)
        row = @db[:addresses].where(address:).first
        row && (row[:picture_id] || row[:fetched_at_ms] >= since_ms) ? row.values_at(:picture_id, :refused) : nil
      end

      # @param picture_id [String, nil] what came of it
      # @param refused [String, nil] why nothing did
      def keep_address(address, picture_id, refused, now_ms)
        values = {picture_id:, refused:, fetched_at_ms: now_ms}
        @db[:addresses].insert_conflict(target: :address, update: values).insert(address:, **values)
      end

      # One of those that a platform sends along with its lines: they have a shelf of their own for each feed.
      def put_platform_emote(show_id, feed_id, emote)
        name = @db[:feeds].where(id: feed_id).get(:name) or return
        shelf_id = @db[:shelves].where(show_id:, feed_id:).get(:id) || add_shelf(show_id, "From #{name}", feed_id:)
        @db[:emotes].insert_conflict.insert(shelf_id:, code: emote["code"], picture_id: emote["picture"])
      end

      def picture?(id) = @db[:pictures].where(id:).any?

      private

      def own_emote?(show_id, id)
        @db[:emotes].join(:shelves, id: :shelf_id).where(Sequel[:shelves][:show_id] => show_id, Sequel[:emotes][:id] => id).any?
      end

      # @return [Hash{Integer => Array}] emotes with how often they were used, by shelf
      def emotes_of(shelf_ids)
        @db[:emotes].where(shelf_id: shelf_ids).join(:pictures, id: :picture_id).select_all(:emotes).select_append(:width, :height, :frames)
          .order(Sequel[:emotes][:id]).all.group_by { |row| row[:shelf_id] }.transform_values { |rows| rows.map { |row| [emote(row), row[:used]] } }
      end

      def emote(row)
        Core::Dress::Emote.new(row[:id], row[:code], row[:picture_id], row[:overlay] || false, row[:any_case] || false, row[:frames] > 1,
          (row[:width].to_f / row[:height]).round(3))
      end
    end
  end
end
