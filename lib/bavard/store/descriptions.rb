# frozen_string_literal: true

require "sequel"
require_relative "../error"

module Bavard
  module Store
    # Platforms that hosts describe.
    class Descriptions
      # text:: as it was written; samples:: frames with what has to become of them
      Kept = Struct.new(:id, :show_id, :text, :samples, :changed_at_ms, keyword_init: true)
      MOST = 40

      def initialize(db) = @db = db

      # @return [Array<Kept>] as they were made
      def of_show(show_id) = @db[:descriptions].where(show_id:).order(:id).map { |row| read(row) }

      # @return [Kept, nil]
      def find(show_id, id) = @db[:descriptions].first(show_id:, id:)&.then { |row| read(row) }

      # @return [Kept]
      # @raise [Bavard::Error] where there is no room for another
      def add(show_id, text, samples, at_ms)
        if @db[:descriptions].where(show_id:).count >= MOST
          raise Error.new("There are #{MOST} descriptions already. Take one away first.",
            field: "text")
        end

        find(show_id, @db[:descriptions].insert(show_id:, text:, samples: Sequel.pg_jsonb(samples), changed_at_ms: at_ms))
      end

      # @return [Boolean] false where there is none of that id
      def keep(show_id, id, text, samples, at_ms)
        @db[:descriptions].where(show_id:, id:).update(text:, samples: Sequel.pg_jsonb(samples), changed_at_ms: at_ms).positive?
      end

      # @return [Boolean]
      def remove(show_id, id) = @db[:descriptions].where(show_id:, id:).delete.positive?

      private

      def read(row) = Kept.new(**row, samples: row[:samples].to_a)
    end
  end
end
