# frozen_string_literal: true

require_relative "../../error"
require_relative "../fields/property"

module Bavard
  module Core
    module Look
      # A show's own colours and faces by name: every piece may use them, and follows when one is changed.
      #
      #   HouseStyle.resolve({"text_colour" => "house:ink", …}, properties, house)   # => {"text_colour" => "#ffffff", …}
      module HouseStyle
        MOST = 24
        KEY = /\A[a-z][a-z0-9]{0,19}\z/
        COLOUR = Fields::Property.colour("value", "colour", "#ffffff")
        FACE = Fields::Property.face("value", "face", "Atkinson Hyperlegible Next")
        NAME = Fields::Property.text("name", "name", 40)
        DEFAULT = {
          "colours" => {
            "ink" => {"name" => "Ink", "value" => "#ffffff"}, "ground" => {"name" => "Ground", "value" => "#10151a"},
            "accent" => {"name" => "Accent", "value" => "#f3b634"}, "second" => {"name" => "Second", "value" => "#5fb8d6"},
            "soft" => {"name" => "Soft", "value" => "#cfd8de"}
          },
          "faces" => {
            "text" => {"name" => "Text", "value" => "Atkinson Hyperlegible Next"},
            "heading" => {"name" => "Headings", "value" => "Bricolage Grotesque"}
          }
        }.freeze
        SORTS = {"colours" => COLOUR, "faces" => FACE}.freeze

        module_function

        # @param house [Hash, nil] as it was kept or given
        # @return [Hash] with at least what is always there
        # @raise [Bavard::Error]
        def read(house)
          return DEFAULT unless house
          raise Error.new("A show's colours and faces are named.", field: "house", value: house) unless house.is_a?(Hash)

          SORTS.to_h { |sort, property| [sort, read_sort(house[sort], sort, property)] }
        end

        # @return [Hash] with one colour or face set, or taken away (value nil)
        # @raise [Bavard::Error]
        def set(house, sort, key, value)
          property = SORTS[sort] || raise(Error.new("A show has named colours and faces.", field: "sort", value: sort))
          raise Error.new("A name's key is a word of small letters.", field: "key", value: key) unless key.is_a?(String) && key.match?(KEY)

          return house.merge(sort => taken_away(house[sort], sort, key)) if value.nil?
          raise Error.new("There are #{MOST} already.", field: "key", value: key) if house[sort].size >= MOST && !house[sort].key?(key)

          house.merge(sort => house[sort].merge(key => entry(value, property)))
        end

        # @param piece [Hash]
        # @param properties [Hash{String => Property}] of its kind
        # @return [Hash] with the colours and faces themselves in the place of their names
        def resolve(piece, properties, house)
          piece.to_h do |name, value|
            property = properties[name]
            next [name, rows(value, house)] if value.is_a?(Array) && name.end_with?("_colours")
            next [name, value] unless property && value.is_a?(String) && value.start_with?("house:")

            [name, look_up(value, property.face? ? "faces" : "colours", house)]
          end
        end

        # A name that is no longer there is drawn as the first of its sort.
        def look_up(value, sort, house)
          entry = house[sort][value.delete_prefix("house:")] || house[sort].values.first
          entry["value"]
        end

        # @return [Hash] as JSON Schema
        def schema
          {"type" => "object", "required" => SORTS.keys, "additionalProperties" => false,
           "properties" => SORTS.transform_values { |property| sort_schema(property) }}
        end

        def sort_schema(property)
          {"type" => "object", "maxProperties" => MOST, "propertyNames" => {"pattern" => "^[a-z][a-z0-9]{0,19}$"},
           "additionalProperties" => {"type" => "object", "required" => %w[name value], "additionalProperties" => false,
                                      "properties" => {"name" => NAME.schema, "value" => property.schema}}}
        end

        def rows(value, house)
          value.map { |row| row["colour"].to_s.start_with?("house:") ? row.merge("colour" => look_up(row["colour"], "colours", house)) : row }
        end

        def read_sort(given, sort, property)
          raise Error.new("A show's #{sort} are named.", field: sort, value: given) unless given.is_a?(Hash)

          DEFAULT[sort].merge(given.first(MOST).to_h { |key, value| [key, entry(value, property)] })
        end

        def entry(value, property)
          raise Error.new("It has a name and a value.", field: "value", value:) unless value.is_a?(Hash)

          itself = property.read(value["value"])
          raise Error.new("A name does not stand for another name.", field: "value", value: itself) if itself.start_with?("house:")

          {"name" => NAME.read(value["name"]), "value" => itself}
        end

        def taken_away(entries, sort, key)
          raise Error.new("“#{entries.dig(key, "name")}” is always there.", field: "key", value: key) if DEFAULT[sort].key?(key)

          entries.except(key)
        end

        private_class_method :sort_schema, :rows, :read_sort, :entry, :taken_away
      end
    end
  end
end
