# frozen_string_literal: true

module Bavard
  module Core
    module Fields
      # Readings of more than one value.
      module Reading
        # Some of a few words; all: every one of them, in an order.
        Some = Struct.new(:label, :choices, :all) do
          def kind = all ? :order : :some
          def bounds = {choices:}

          def read(given)
            words = given.is_a?(String) ? given.split(",").map(&:strip) : given
            unless words.is_a?(Array) && words.uniq == words && fits?(words)
              raise Error, "#{Reading.sentence(label)} is #{all ? "each" : "some"} of #{Array(choices).join(", ")}."
            end

            words
          end

          def write(value) = value.empty? ? "none" : value.join(", ")

          def schema
            items = choices ? {"enum" => choices} : {"type" => "string", "maxLength" => 40}
            {"type" => "array", "uniqueItems" => true, "items" => items, **(all ? {"minItems" => choices.size} : {"maxItems" => 100})}
          end

          private

          # choices nil: any short words.
          def fits?(words)
            return words.size <= 100 && words.all? { |word| word.is_a?(String) && word.length <= 40 } unless choices

            (words - choices).empty? && (!all || words.size == choices.size)
          end
        end

        # Rows of the same fields.
        Rows = Struct.new(:label, :fields, :most) do
          def kind = :rows
          def bounds = {most:, fields: fields.map(&:field)}

          def read(given)
            raise Error, "#{Reading.sentence(label)} come as a list." unless given.is_a?(Array)
            raise Error, "#{Reading.sentence(label)}: at most #{most}." if given.size > most

            given.map { |row| read_row(row) }
          end

          def write(value) = value.size == 1 ? "1 row" : "#{value.size} rows"

          def schema
            row = {"type" => "object", "required" => fields.map(&:name), "additionalProperties" => false,
                   "properties" => fields.to_h { |field| [field.name, field.schema] }}
            {"type" => "array", "maxItems" => most, "items" => row}
          end

          private

          def read_row(row)
            raise Error, "#{Reading.sentence(label)} are rows of #{fields.map(&:label).join(", ")}." unless row.is_a?(Hash)

            fields.to_h { |field| [field.name, row.key?(field.name) ? field.read(row[field.name]) : field.default] }
          end
        end

        FILE = /\A[0-9a-f]{32}\z/

        # The id of a file of the show's: the hash of what is in it.
        FileId = Struct.new(:label, :of) do
          include Plain

          def kind = :file
          def bounds = {of:}

          def read(given)
            return if given.nil? || given == ""
            return given if given.is_a?(String) && given.match?(FILE)

            raise Error, "#{Reading.sentence(label)} is one of the show’s own."
          end

          def write(value) = value ? "set" : "none"
          def schema = {"type" => %w[string null], "pattern" => "^[0-9a-f]{32}$"}
        end
      end
    end
  end
end
