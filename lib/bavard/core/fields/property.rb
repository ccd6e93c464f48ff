# frozen_string_literal: true

require_relative "../../error"
require_relative "reading"

module Bavard
  module Core
    module Fields
      # One thing about a piece that can be set: what may stand there, and how it is called and written in words.
      #
      #   size = Property.number("text_size_px", "text size", 8..200, 25, unit: "px")
      #   size.read("30 px")   # => 30
      #   size.read("900")     # raises Bavard::Error: "Text size goes from 8 to 200 px."
      #   size.schema          # => {"type" => "integer", "minimum" => 8, "maximum" => 200}
      class Property
        attr_reader :name, :label, :default

        # @param digits [Integer] after the point
        def self.number(name, label, range, default, unit: nil, digits: 0)
          new(name, label, default, Reading::Number.new(label, range, unit, digits))
        end

        def self.choice(name, label, choices, default)
          new(name, label, default, Reading::Choice.new(label, choices))
        end

        def self.switch(name, label, default)
          new(name, label, default, Reading::Switch.new(label))
        end

        # A colour, or one of the show's by name.
        def self.colour(name, label, default)
          new(name, label, default, Reading::ColourText.new(label))
        end

        # A shipped face, one of the show's by name, the host's own file, or one of the broadcast computer.
        def self.face(name, label, default, inherit: false)
          new(name, label, default, Reading::FaceName.new(label, inherit))
        end

        def self.stay(name, label, range_ms, default)
          new(name, label, default, Reading::Stay.new(label, range_ms))
        end

        # @param most [Integer] characters
        def self.text(name, label, most, default = "")
          new(name, label, default, Reading::Words.new(label, most))
        end

        # A text that is a list, one a line: it can come from a file and be taken along as one.
        # @param most [Integer] characters
        def self.lines(name, label, most)
          new(name, label, "", Reading::Lines.new(label, most))
        end

        # Some of a few words, in any order or each once in an order of the host's.
        def self.some(name, label, choices, default, all: false)
          new(name, label, default.freeze, Reading::Some.new(label, choices, all))
        end

        # Rows of the same few fields.
        # @param fields [Array<Property>]
        def self.rows(name, label, fields, most)
          new(name, label, [].freeze, Reading::Rows.new(label, fields, most))
        end

        # A file of the show's by its id, or none.
        # @param sort [String] picture, film or sound
        def self.file(name, label, sort = "picture")
          new(name, label, nil, Reading::FileId.new(label, sort))
        end

        def initialize(name, label, default, reading)
          @name = name
          @label = label
          @default = default
          @reading = reading
        end

        # @param given [Object] from a form or a document
        # @return [Object] the value as the document keeps it
        # @raise [Bavard::Error] naming this property and the way out
        def read(given)
          @reading.read(given)
        rescue Error => error
          raise Error.new(error.message, field: name, value: given)
        end

        # @return [String] the value as the interface writes it
        def write(value)
          @reading.write(value)
        end

        # @return [Hash] the values it can have, as JSON Schema
        def schema
          @reading.schema
        end

        # @return [Boolean] whether its values are colours
        def colour? = @reading.is_a?(Reading::ColourText)

        # @return [Boolean] whether its values are faces
        def face? = @reading.is_a?(Reading::FaceName)

        # @return [Hash] what a field of the interface needs to know: kind, label and bounds
        def field
          {name:, label: Reading.sentence(label), kind: @reading.kind, default:}.merge(@reading.bounds)
        end
      end
    end
  end
end
