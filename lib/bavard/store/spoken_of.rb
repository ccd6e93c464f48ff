# frozen_string_literal: true

require "set"

module Bavard
  module Store
    # Which files the database speaks of, wherever that is: names of 32 hexadecimal digits in any text or document of any table. Asked so
    # widely, what is added later cannot be forgotten here.
    class SpokenOf
      # What names every picture there is, what is long and names none, and what only tells of files that are gone.
      NOT = %i[pictures lines people deeds operator_deeds schema_info].freeze
      TYPES = ["text", "jsonb", "json", "character varying", "citext"].freeze

      def initialize(db)
        @db = db
      end

      # @return [Set<String>] names
      def all
        (@db.tables - NOT).each_with_object(Set.new) do |table, found|
          columns(table).each { |column| found.merge(names(table, column)) }
        end
      end

      # Takes rows of pictures away that nothing speaks of any more.
      #
      # @param names [Array<String>]
      def forget(names) = names.each_slice(1000) { |some| @db[:pictures].where(id: some).delete }

      private

      def columns(table) = @db.schema(table, reload: true).select { |_, about| TYPES.include?(about[:db_type][/\A[a-z ]+/]) }.map(&:first)

      def names(table, column)
        found = Sequel.function(:regexp_matches, Sequel.cast(column, String), "[0-9a-f]{32}", "g")
        @db[table].select(found.as(:found)).from_self.distinct.select_map(Sequel.lit("found[1]"))
      end
    end
  end
end
