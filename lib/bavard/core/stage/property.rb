# frozen_string_literal: true

require_relative "../../error"
require_relative "../look/colour"

module Bavard
  module Core
    module Stage
      # One thing about a piece that can be set: what may stand there, and how it is called and written in words.
      #
      #   size = Property.number("size_px", "text size", 8..200, 25, unit: "px")
      #   size.read("30 px")   # => 30
      #   size.read("900")     # raises Bavard::Error: "Text size goes from 8 to 200 px."
      class Property
        attr_reader :name, :label, :default

        def self.number(name, label, range, default, unit: nil)
          new(name, label, default, Reading::Number.new(label, range, unit))
        end

        def self.choice(name, label, choices, default)
          new(name, label, default, Reading::Choice.new(label, choices))
        end

        def self.colour(name, label, default)
          new(name, label, default, Reading::ColourText.new(label))
        end

        def self.stay(name, label, range_ms, default)
          new(name, label, default, Reading::Stay.new(label, range_ms))
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

        # The ways in which values are read and written.
        module Reading
          def self.sentence(label)
            label[0].upcase + label[1..]
          end

          # Whole numbers with a unit; what is typed may carry the unit or a comma.
          Number = Struct.new(:label, :range, :unit) do
            def read(given)
              number = Float(given.to_s.strip.sub(/\s*(?:px|%|s|fps|lines?)\z/i, "").tr(",", ".")).round
              return number if range.cover?(number)

              raise Error, "#{Reading.sentence(label)} goes from #{write(range.begin)} to #{write(range.end)}."
            rescue ArgumentError, FloatDomainError
              raise Error, "#{Reading.sentence(label)} is a number from #{write(range.begin)} to #{write(range.end)}."
            end

            def write(value)
              unit ? "#{value} #{unit}" : value.to_s
            end
          end

          # One of a few words.
          Choice = Struct.new(:label, :choices) do
            def read(given)
              choices.find { |choice| choice.casecmp?(given.to_s.strip) } ||
                raise(Error, "#{Reading.sentence(label)} is one of #{choices.join(", ")}.")
            end

            def write(value)
              value
            end
          end

          # "#rgb" or "#rrggbb".
          ColourText = Struct.new(:label) do
            def read(given)
              text = given.to_s.strip
              text = "##{text}" unless text.start_with?("#")
              Look::Colour.normal(text) || raise(Error, "#{Reading.sentence(label)} is written as in #f3b634.")
            end

            def write(value)
              value
            end
          end

          # Milliseconds, or nil for good.
          Stay = Struct.new(:label, :range_ms) do
            def read(given)
              return nil if given.nil? || given.to_s.strip.match?(/\A(?:for good|)\z/i)

              ms = Float(given.to_s.tr(",", ".")).round
              return ms if range_ms.cover?(ms)

              raise Error, "Lines stay from #{write(range_ms.begin)} to #{write(range_ms.end)}, or for good."
            rescue ArgumentError, FloatDomainError
              raise Error, "Lines stay for a number of seconds, or for good."
            end

            def write(value)
              return "for good" if value.nil?
              return "1 hour" if value == 3_600_000

              "#{(value / 1000.0).to_s.delete_suffix(".0")} s"
            end
          end
        end
      end
    end
  end
end
