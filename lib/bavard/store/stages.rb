# frozen_string_literal: true

require "json"
require "securerandom"
require_relative "../core/stage/document"
require_relative "../error"
require_relative "link_keys"

module Bavard
  module Store
    # Stages as they are kept: the draft, and numbered revisions of which one is on air.
    class Stages
      FORMAT = File.expand_path("../../../docs/formats/stage.schema.json", __dir__)
      TOKEN_BYTES = 24 # 192 bits

      # draft, on_air:: documents; on_air is nil before the first Put on air; revision:: the number on air, 0 before
      # last_number:: the highest number given to a revision so far
      # cleared_at_line:: lines up to this id were cleared off the screen
      # doubt_s:: after so many seconds without a word chat leaves a screen; nil: never
      # air_at_once:: whether every edit goes on air; live:: as Live::LiveValues keeps it
      Stage = Struct.new(:id, :show_id, :name, :token, :backdrop, :draft, :on_air, :revision, :last_number, :cleared_at_line,
        :place, :air_at_once, :live, :doubt_s, keyword_init: true)
      # by:: who put it on air, or nil
      Revision = Struct.new(:number, :made_at_ms, :by)

      # Loaded when it is first wanted, or before ({Serve} does so once it answers): it takes a quarter of a second that
      # a start after a crash can do without.
      def self.schema
        @schema ||= begin
          require "json_schemer"
          JSONSchemer.schema(JSON.parse(File.read(FORMAT)))
        end
      end

      # @return [Hash] the document given
      # @raise [Bavard::Error] where it does not fit docs/formats/stage.schema.json
      def self.checked(document)
        wrong = schema.validate(document).first or return document
        place = wrong["data_pointer"].to_s
        raise Error.new("The stage does not fit its format at #{place.empty? ? "its top" : place}: #{wrong["error"]}.", field: place,
          value: wrong["data"])
      end

      # @return [String] 192 random bits
      def self.new_token = SecureRandom.urlsafe_base64(TOKEN_BYTES)

      # @param box [SecretBox, nil] with which links are closed
      def initialize(db, box = nil)
        @db = db
        @keys = LinkKeys.new(db[:stages], box)
      end

      # Closes links that stand in the open.
      def seal = @keys.seal

      # @param document [Hash] that fits the format
      # @return [Stage] after all others
      def create(show_id, name:, document: Core::Stage::Document.empty, backdrop: "dawn")
        place = (@db[:stages].where(show_id:).max(:place) || -1) + 1
        id = @db[:stages].insert(show_id:, name:, backdrop:, place:, **@keys.columns(self.class.new_token),
          draft: Sequel.pg_jsonb(self.class.checked(document)))
        find(id)
      end

      # @return [Stage, nil] also one that was taken away
      def find(id)
        read(@db[:stages].first(id:))
      end

      # @return [Stage, nil]
      def by_token(token)
        read(@keys.row(token, removed_at_ms: nil))
      end

      # @return [Integer, nil] id of the show whose link this is
      def show_of(token) = @keys.row(token, removed_at_ms: nil)&.fetch(:show_id)

      # @return [Array<Stage>] in their order
      def of_show(show_id)
        @db[:stages].where(show_id:, removed_at_ms: nil).order(:place, :id).map { |row| read(row) }
      end

      def rename(id, name)
        @db[:stages].where(id:).update(name:)
      end

      # @param ids [Array<Integer>] in their new order
      def keep_order(ids)
        @db.transaction { ids.each_with_index { |id, place| @db[:stages].where(id:).update(place:) } }
      end

      # Its link shows nothing from now on, until it is put back.
      def remove(id, now_ms)
        @db[:stages].where(id:).update(removed_at_ms: now_ms)
      end

      # What was taken away is there again.
      def put_back(id)
        @db[:stages].where(id:).update(removed_at_ms: nil)
        find(id)
      end

      # The document was checked piece by piece, as it was edited.
      def keep_draft(id, document)
        @db[:stages].where(id:).update(draft: Sequel.pg_jsonb(document))
      end

      # Keeps a document as the revision of this number, which is on air from now on.
      def put_on_air(id, number, document, now_ms, by: nil)
        @db.transaction do
          @db[:revisions].insert_conflict.insert(stage_id: id, number:, document: Sequel.pg_jsonb(document), made_at_ms: now_ms, by:)
          @db[:stages].where(id:).update(on_air: number)
        end
      end

      # @return [Array<Revision>] the newest first
      def revisions(id, most: 200)
        @db[:revisions].where(stage_id: id).reverse(:number).limit(most).select_map(%i[number made_at_ms by]).map { |row| Revision.new(*row) }
      end

      # @return [Hash, nil] the document of a revision
      def document_of(id, number)
        document = @db[:revisions].where(stage_id: id, number:).get(:document)
        document && complete(document)
      end

      # Another token; the old link shows nothing from now on.
      def keep_token(id, token)
        @db[:stages].where(id:).update(@keys.columns(token))
      end

      # @param backdrop [String] id of the picture it is judged by
      def keep_backdrop(id, backdrop)
        @db[:stages].where(id:).update(backdrop:)
      end

      # @param line_id [Integer] lines up to that one stay off its picture
      def keep_cleared(id, line_id)
        @db[:stages].where(id:).update(cleared_at_line: line_id)
      end

      def keep_air_at_once(id, air_at_once)
        @db[:stages].where(id:).update(air_at_once:)
      end

      # @param doubt_s [Integer, nil]
      def keep_doubt(id, doubt_s)
        @db[:stages].where(id:).update(doubt_s:)
      end

      # @param live [Hash] what is set while the broadcast goes on
      def keep_live(id, live)
        @db[:stages].where(id:).update(live: Sequel.pg_jsonb(live))
      end

      private

      def complete(document) = Core::Stage::Document.complete(document.to_hash)

      def read(row)
        return unless row

        document = row[:on_air] && document_of(row[:id], row[:on_air])
        plain = row.slice(:id, :show_id, :name, :backdrop, :cleared_at_line, :place, :air_at_once, :doubt_s)
        Stage.new(**plain, token: @keys.token(row), live: row[:live].to_hash, draft: complete(row[:draft]), on_air: document,
          revision: row[:on_air] || 0, last_number: @db[:revisions].where(stage_id: row[:id]).max(:number) || 0)
      end
    end
  end
end
