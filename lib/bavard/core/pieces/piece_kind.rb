# frozen_string_literal: true

require_relative "../fields/property"

module Bavard
  module Core
    module Pieces
      # What all kinds of pieces share: a place on the stage, and being built, read and completed from their properties.
      # Extends a module that has KEY, LABEL and OWN (properties of its own).
      module PieceKind
        SMALLEST_PX = 16
        LARGEST_PX = 7680
        LONGEST_NAME = 60

        PLACE = [
          Fields::Property.number("x", "distance from the left", -LARGEST_PX..LARGEST_PX, 0, unit: "px"),
          Fields::Property.number("y", "distance from the top", -LARGEST_PX..LARGEST_PX, 0, unit: "px"),
          Fields::Property.number("width", "width", SMALLEST_PX..LARGEST_PX, 600, unit: "px"),
          Fields::Property.number("height", "height", SMALLEST_PX..LARGEST_PX, 400, unit: "px")
        ].freeze
        # What every piece has besides.
        COMMON = [
          Fields::Property.text("called", "name", LONGEST_NAME),
          Fields::Property.choice("side", "side of the camera", %w[front behind], "front"),
          Fields::Property.number("opacity", "opacity", 0..100, 100, unit: "%"),
          Fields::Property.switch("keep_proportion", "proportion kept", false),
          Fields::Property.switch("locked", "locked", false),
          Fields::Property.switch("hidden", "hidden", false),
          Fields::Property.text("group", "group", 24)
        ].freeze
        PLACE_NAMES = PLACE.map(&:name).freeze
        COMMON_NAMES = COMMON.map(&:name).freeze

        # @return [Hash{String => Property}]
        def properties
          @properties ||= (PLACE + COMMON + self::OWN).to_h { |property| [property.name, property] }.freeze
        end

        # @param id [String]
        # @param values [Hash] some properties, as given
        # @return [Hash] a whole piece
        # @raise [Bavard::Error]
        def build(id, values = {})
          {"id" => id, "kind" => self::KEY}.merge(defaults, read(values))
        end

        # @param piece [Hash] as it was kept, perhaps before some property was thought of
        # @return [Hash] with all there are now, and no others
        def complete(piece)
          {"id" => piece["id"], "kind" => self::KEY}.merge(defaults, piece.slice(*properties.keys))
        end

        # @param values [Hash] some properties, as given
        # @return [Hash] the same as a document keeps them
        # @raise [Bavard::Error] naming the first that does not fit
        def read(values)
          values.to_h do |name, given|
            property = properties[name] || raise(Error.new("#{self::LABEL} has no “#{name}”.", field: name, value: given))
            [name, property.read(given)]
          end
        end

        # @param values [Hash] as read, of an edit
        # @return [Hash] as the piece keeps them
        def placed(_piece, values) = values

        # @return [Hash] the piece as it looks in one of its forms; most kinds have but one
        def in_form(piece, _form = nil) = piece

        # @return [Hash] of one piece of this kind, as JSON Schema
        def schema
          fixed = {"id" => {"type" => "string", "pattern" => "^[a-z_]{1,20}[0-9]{1,6}$"}, "kind" => {"const" => self::KEY}}
          {"type" => "object", "required" => ["id", "kind", *properties.keys], "additionalProperties" => false,
           "properties" => fixed.merge(properties.transform_values { |property| described(property) })}
        end

        # Properties that make up its look: all that is neither place, nor content, nor common.
        def look_names
          @look_names ||= self::LOOK.map(&:name).freeze
        end

        private

        def defaults = @defaults ||= properties.transform_values(&:default).freeze
        def described(property) = {"description" => property.label}.merge(property.schema)
      end
    end
  end
end
