# frozen_string_literal: true

require "json"
require_relative "../samples"

module Bavard
  module Feeds
    module Described
      module Bench
        # Which fields of an item nothing reads: those that could be anything else, and the same would become of it.
        class Unread
          MOST = 120
          # One that nothing reads. path:: as a description writes it; value:: as it came
          Field = Struct.new(:path, :value)
          NAME = /\A[A-Za-z_]\w*\z/
          LATER_MS = 86_400_000

          # @param description [Description]
          def initialize(description)
            @description = description
          end

          # @param item [Object]
          # @return [Array<Field>]
          def of(item)
            return [] unless item.is_a?(Hash)

            @item = item
            @became = became(item)
            leaves(item, []).first(MOST).reject { |steps, value| others(value).any? { |other| became(with(item, steps, other)) != @became } }
              .map { |steps, value| Field.new(path(steps), value) }
          end

          private

          def became(item)
            read = @description.reading.read(item, nil, 0)
            [read.rule&.place, read.rule&.is, read.state, read.intake && Told.fields(read.intake)]
          end

          # @return [Array<Array(Array, Object)>] of each its steps, and what stands there
          def leaves(value, steps)
            case value
            when Hash then value.flat_map { |name, one| leaves(one, [*steps, name]) }
            when Array then value.first(3).each_with_index.flat_map { |one, index| leaves(one, [*steps, index]) }
            else [[steps, value]]
            end
          end

          # What could stand there as well: something of the same kind, of another, and nothing.
          def others(value)
            case value
            when true, false then [!value, "x"]
            when Numeric then [value + 1, value + LATER_MS, nil]
            when String then ["#{value}x", "2001-01-01T00:00:00Z", "https://x.example/x.png", "#010203", "7", nil]
            else ["x", 7, true, "https://x.example/x.png"]
            end
          end

          def with(item, steps, other)
            return other if steps.empty?

            item.dup.tap { |copy| copy[steps.first] = with(copy[steps.first], steps.drop(1), other) }
          end

          def path(steps)
            steps.each_with_index.map do |step, index|
              next "[#{step}]" if step.is_a?(Integer)

              "#{"." unless index.zero?}#{step.match?(NAME) ? step : JSON.generate(step)}"
            end.join
          end
        end
      end
    end
  end
end
