# frozen_string_literal: true

require "json"
require "securerandom"
require_relative "../core/stage/document"
require_relative "../error"

module Bavard
  module Store
    # Stages as they are kept: the draft, and numbered revisions of which one is on air.
    class Stages
      FORMAT = File.expand_path("../../../docs/formats/stage.schema.json", __dir__)
      TOKEN_BYTES = 24 # 192 bits

      # draft, on_air:: documents; on_air is nil before the first Put on air; revision:: the number on air, 0 before
      # last_number:: the highest number given to a revision so far
      # cleared_at_line:: lines up to this id were cleared off the screen
      Stage = Struct.new(:id, :show_id, :name, :token, :backdrop, :draft, :on_air, :revision, :last_number, :cleared_at_line,
        keyword_init: true)

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
        place = wrong["data_pointer"]
        raise Error.new("The stage does not fit its format at #{place}: #{wrong["error"]}.", field: place, value: wrong["data"])
      end

      # @return [String] 192 random bits
      def self.new_token = SecureRandom.urlsafe_base64(TOKEN_BYTES)

      def initialize(db)
        @db = db
      end

      # @return [Stage]
      def create(show_id, name:, document: Core::Stage::Document.empty, backdrop: "dawn")
        id = @db[:stages].insert(show_id:, name:, token: self.class.new_token, backdrop:,
          draft: Sequel.pg_jsonb(self.class.checked(document)))
        find(id)
      end

      # @return [Stage, nil]
      def find(id)
        read(@db[:stages].first(id:))
      end

      # @return [Stage, nil]
      def by_token(token)
        read(@db[:stages].first(token:))
      end

      # @return [Array<Stage>]
      def of_show(show_id)
        @db[:stages].where(show_id:).order(:id).map { |row| read(row) }
      end

      def keep_draft(id, document)
        @db[:stages].where(id:).update(draft: Sequel.pg_jsonb(self.class.checked(document)))
      end

      # Keeps a document as the revision of this number, which is on air from now on.
      def put_on_air(id, number, document, now_ms)
        @db.transaction do
          @db[:revisions].insert(stage_id: id, number:, document: Sequel.pg_jsonb(self.class.checked(document)), made_at_ms: now_ms)
          @db[:stages].where(id:).update(on_air: number)
        end
      end

      # Another token; the old link shows nothing from now on.
      def keep_token(id, token)
        @db[:stages].where(id:).update(token:)
      end

      def keep_backdrop(id, backdrop)
        @db[:stages].where(id:).update(backdrop:)
      end

      def keep_cleared(id, line_id)
        @db[:stages].where(id:).update(cleared_at_line: line_id)
      end

      private

      def read(row)
        return unless row

        revisions = @db[:revisions].where(stage_id: row[:id])
        document = row[:on_air] && revisions.where(number: row[:on_air]).get(:document)
        Stage.new(**row.slice(:id, :show_id, :name, :token, :backdrop, :cleared_at_line), draft: row[:draft].to_hash,
          on_air: document&.to_hash, revision: row[:on_air] || 0, last_number: revisions.max(:number) || 0)
      end
    end
  end
end
