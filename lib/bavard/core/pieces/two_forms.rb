# frozen_string_literal: true

require_relative "../fields/property"

module Bavard
  module Core
    module Pieces
      # For kinds of pieces that look one way on dark pictures and another on bright ones: what is different on bright
      # ones stands by itself, and edits go to the form that is chosen.
      module TwoForms
        FORMS = %w[dark bright].freeze

        # Some properties with other values.
        Overrides = Struct.new(:label, :by_name) do
          include Fields::Reading::Plain

          def kind = :overrides

          def read(given)
            raise Error, "#{Fields::Reading.sentence(label)} are named." unless given.is_a?(Hash)

            given.to_h do |name, value|
              property = by_name[name] || raise(Error, "#{Fields::Reading.sentence(label)} cannot have “#{name}”.")
              [name, property.read(value)]
            end
          end

          def write(value) = "#{value.size} settings"

          def schema
            {"type" => "object", "additionalProperties" => false, "properties" => by_name.transform_values(&:schema)}
          end
        end

        # What may differ from one form to the other: colours, and all that sets letters apart from what is behind them.
        FORMED = /_opacity\z|_outline_px\z|_shadow_.*px\z|_gradient\z/

        # @param look [Array<Property>] of a kind
        # @return [Array<Property>] those that may differ
        def self.formed(look) = look.select { |property| property.colour? || property.name.match?(FORMED) }.freeze

        # @param formed [Array<Property>] that may differ
        def self.properties(formed)
          [Fields::Property.choice("form", "form for pictures that are", FORMS, "dark"),
            Fields::Property.new("bright", "what differs on bright pictures", {}.freeze,
              Overrides.new("what differs on bright pictures", formed.to_h { |property| [property.name, property] }))]
        end

        # @param piece [Hash]
        # @param values [Hash] as read, of an edit
        # @return [Hash] the same as the piece keeps them: on bright pictures' form, beside those for dark ones
        def placed(piece, values)
          return values unless piece["form"] == "bright" && !values.key?("form")

          formed, others = values.partition { |name, _| formed_names.include?(name) }
          formed.empty? ? values : others.to_h.merge("bright" => piece["bright"].merge(formed.to_h))
        end

        # @param form [String, nil] in place of its own
        # @return [Hash] with the values of its form in their places
        def in_form(piece, form = nil)
          form ||= piece["form"]
          form == "bright" ? piece.merge(piece["bright"], "form" => form) : piece.merge("form" => form)
        end

        private

        def formed_names = @formed_names ||= self::FORMED.map(&:name)
      end
    end
  end
end
