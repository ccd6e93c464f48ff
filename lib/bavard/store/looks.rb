# frozen_string_literal: true

require_relative "../core/pieces/look_document"
require_relative "../error"

module Bavard
  module Store
    # Looks of a host's own, as documents: of one kind of piece, or of a whole stage.
    class Looks
      MOST = Core::Pieces::LookDocument::MOST
      # id:: ours; document:: as Core::Pieces::LookDocument or Core::Pieces::OwnOutfit gives it
      Kept = Struct.new(:id, :name, :document)

      # @param db [Sequel::Database]
      def initialize(db)
        @db = db
      end

      # @return [Array<Kept>] the newest first
      def of_show(show_id)
        @db[:looks].where(show_id:).reverse(:id).limit(MOST).map { |row| Kept.new(row[:id], row[:name], row[:document].to_hash) }
      end

      # @param document [Hash] as it was read
      # @return [Integer] its id
      # @raise [Bavard::Error] where there is no room for it
      def add(show_id, name, document)
        room_for(show_id, 1)
        @db[:looks].insert(show_id:, name:, document: Sequel.pg_jsonb(document))
      end

      # @param more [Integer] how many are to come
      # @raise [Bavard::Error] where there is no room for them
      def room_for(show_id, more)
        return if @db[:looks].where(show_id:).count + more <= MOST

        raise Error.new("There is room for #{MOST} looks of your own. Take #{more == 1 ? "one" : "some"} away first.", field: "name")
      end

      # @return [Kept, nil] what was taken away
      def remove(show_id, id)
        row = @db[:looks].where(show_id:, id:).first or return
        @db[:looks].where(show_id:, id:).delete
        Kept.new(row[:id], row[:name], row[:document].to_hash)
      end
    end
  end
end
