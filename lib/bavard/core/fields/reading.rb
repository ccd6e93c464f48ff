# frozen_string_literal: true

require_relative "../../error"
require_relative "../palette/colour"
require_relative "../palette/faces"

module Bavard
  module Core
    module Fields
      # The ways in which values of properties are read and written.
      module Reading
        # A colour or face of the show's own, by its key.
        HOUSE = /\Ahouse:[a-z][a-z0-9]{0,19}\z/

        def self.sentence(label)
          label[0].upcase + label[1..]
        end

        # Nothing but what is common: bounds of none.
        module Plain
          def bounds = {}
        end

        # Numbers with a unit; what is typed may carry the unit or a comma.
        Number = Struct.new(:label, :range, :unit, :digits) do
          def kind = :number
          def bounds = {min: range.begin, max: range.end, unit:, digits:}

          def read(given)
            number = Float(bare(given)).round(digits)
            return number if range.cover?(number)

            raise Error, "#{Reading.sentence(label)} goes from #{write(range.begin)} to #{write(range.end)}."
          rescue ArgumentError, FloatDomainError
            raise Error, "#{Reading.sentence(label)} is a number from #{write(range.begin)} to #{write(range.end)}."
          end

          def bare(given) = given.to_s.strip.delete_suffix(unit.to_s).rstrip.sub(/\s*(?:px|%|°|s|fps|lines?)\z/i, "").tr(",", ".")

          def write(value)
            value = value.to_i if value.to_i == value
            unit ? "#{value} #{unit}" : value.to_s
          end

          def schema = {"type" => digits.zero? ? "integer" : "number", "minimum" => range.begin, "maximum" => range.end}
        end

        # One of a few words.
        Choice = Struct.new(:label, :choices) do
          def kind = :choice
          def bounds = {choices:}

          def read(given)
            choices.find { |choice| choice.casecmp?(given.to_s.strip) } ||
              raise(Error, "#{Reading.sentence(label)} is one of #{choices.join(", ")}.")
          end

          def write(value) = value
          def schema = {"enum" => choices}
        end

        # Yes or no.
        Switch = Struct.new(:label) do
          include Plain

          def kind = :switch

          def read(given)
            return true if given == true || given.to_s.match?(/\A(?:on|yes|true|1)\z/i)
            return false if given == false || given.to_s.match?(/\A(?:off|no|false|0|)\z/i)

            raise Error, "#{Reading.sentence(label)} is on or off."
          end

          def write(value) = value ? "on" : "off"
          def schema = {"type" => "boolean"}
        end

        # "#rgb" or "#rrggbb", or "house:accent".
        ColourText = Struct.new(:label) do
          include Plain

          def kind = :colour

          def read(given)
            text = given.to_s.strip
            return text if text.match?(HOUSE)

            text = "##{text}" unless text.start_with?("#")
            Palette::Colour.normal(text) || raise(Error, "#{Reading.sentence(label)} is written as in #f3b634.")
          end

          def write(value) = value.sub("house:", "the show’s ")
          def schema = {"type" => "string", "pattern" => "^(#[0-9a-f]{6}|house:[a-z][a-z0-9]{0,19})$"}
        end

        # The name of a face. inherit: whether "" stands for the face of the text.
        FaceName = Struct.new(:label, :inherit) do
          include Plain

          def kind = inherit ? :part_face : :face

          def read(given)
            name = given.to_s.strip
            return name if (inherit && name.empty?) || name.match?(HOUSE) || Palette::Faces.known?(name)

            raise Error, "#{Reading.sentence(label)} is one of #{Palette::Faces::SHIPPED.keys.join(", ")}, or “installed:” and its exact name."
          end

          def write(value)
            return "as the text" if value.empty?

            value.sub("house:", "the show’s ").sub("installed:", "").sub(/\Afile:.*/, "an own file")
          end

          def schema = {"type" => "string", "maxLength" => 80}
        end

        # Milliseconds, or nil for good.
        Stay = Struct.new(:label, :range_ms) do
          def kind = :stay
          def bounds = {min: range_ms.begin, max: range_ms.end}

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

          def schema = {"type" => %w[integer null], "minimum" => range_ms.begin, "maximum" => range_ms.end}
        end

        # Free text, without control characters except line breaks.
        Words = Struct.new(:label, :most) do
          def kind = :text
          def bounds = {max: most}

          def read(given)
            text = given.to_s.scrub("").gsub(/[^\P{Cntrl}\n\t]/, "")
            return text if text.length <= most

            raise Error, "#{Reading.sentence(label)} is at most #{most} characters long."
          end

          def write(value) = value.empty? ? "nothing" : "“#{value.sub(/\A(.{23}).{2,}\z/m, "\\1…")}”"
          def schema = {"type" => "string", "maxLength" => most}
        end

        # Free text that is a list, one a line.
        class Lines < Words
          def kind = :lines
        end
      end
    end
  end
end

require_relative "reading_lists"
