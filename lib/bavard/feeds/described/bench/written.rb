# frozen_string_literal: true

require "json"

module Bavard
  module Feeds
    module Described
      module Bench
        # A description as text that people read: what is short stands on one line.
        module Written
          WIDTH = 60

          module_function

          # @param value [Object] as JSON has it
          # @return [String]
          def text(value, indent = 0)
            short = one_line(value)
            return short if short.length + indent <= WIDTH && indent.positive?

            inside = " " * (indent + 2)
            case value
            when Hash then wrapped("{", value.map { |name, one| "#{inside}#{JSON.generate(name)}: #{text(one, indent + 2)}" }, "}", indent)
            when Array then wrapped("[", value.map { |one| "#{inside}#{text(one, indent + 2)}" }, "]", indent)
            else short
            end
          end

          def one_line(value)
            case value
            when Hash then value.empty? ? "{}" : "{ #{value.map { |name, one| "#{JSON.generate(name)}: #{one_line(one)}" }.join(", ")} }"
            when Array then "[#{value.map { |one| one_line(one) }.join(", ")}]"
            else JSON.generate(value)
            end
          end

          def wrapped(opens, all, closes, indent) = all.empty? ? opens + closes : "#{opens}\n#{all.join(",\n")}\n#{" " * indent}#{closes}"
          private_class_method :one_line, :wrapped
        end
      end
    end
  end
end
