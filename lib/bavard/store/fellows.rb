# frozen_string_literal: true

require_relative "../core/cues/fellow"

module Bavard
  module Store
    # Cards of fellow hosts.
    class Fellows
      MOST = 2000

      def initialize(db)
        @db = db
      end

      # @return [Array<Core::Cues::Fellow>] by name
      def of_show(show_id) = @db[:fellows].where(show_id:).order(:key).limit(MOST).map { |row| read(row) }

      # @param values [Hash] as Core::Cues::Fellow.read gives it
      # @return [Integer] its id
      def add(show_id, **values)
        raise Error, "There is room for #{MOST} fellow hosts." if @db[:fellows].where(show_id:).count >= MOST

        key = Core::Cues::Fellow.key(values.fetch(:name))
        @db[:fellows].insert_conflict(target: %i[show_id key], update: {name: values[:name]}).insert(show_id:, key:, **values)
      end

      # @return [Boolean] whether it is there
      def keep(show_id, id, **values)
        values[:key] = Core::Cues::Fellow.key(values[:name]) if values[:name]
        values[:clips] = Sequel.pg_jsonb(values[:clips]) if values[:clips]
        @db[:fellows].where(show_id:, id:).update(values).positive?
      rescue Sequel::UniqueConstraintViolation
        raise Error.new("There is a card of that name already.", field: "name")
      end

      def remove(show_id, id) = @db[:fellows].where(show_id:, id:).delete.positive?

      private

      def read(row)
        Core::Cues::Fellow.new(**row.slice(:id, :key, :name, :words, :last_shown, :followers, :picture), clips: row[:clips].to_a.grep(String))
      end
    end
  end
end
