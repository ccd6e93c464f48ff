# frozen_string_literal: true

require_relative "../rules"

module Bavard
  module Feeds
    module Described
      module Bench
        # What a field that nothing reads yet could be, by what stands in it and how it is called; and what a frame could be that nothing reads.
        module Offers
          COLOUR = /\A#?\h{6}\z/
          ADDRESS = %r{\Ahttps?://}
          ISO = /\A\d{4}-\d\d-\d\dT/
          # Seconds or milliseconds of a time in our days.
          TIMES = [1_000_000_000..4_000_000_000, 1_000_000_000_000..4_000_000_000_000].freeze
          # Fields by words that platforms use for them.
          CALLED = {
            "login" => /login|handle|user_?name|nick|uid|author|sender|from/i, "name" => /display|label|title|name/i,
            "text" => /text|body|words|message|content|msg/i,
            "id" => /\bid\z|_id\z|\Aid|key|uuid/i, "colour" => /colou?r/i, "avatar" => /avatar|picture|face|image|photo/i,
            "number" => /count|number|months|total|viewers/i,
            "first" => /first/i, "action" => /action|\bme\b/i
          }.freeze
          ROLES = /mod|warden|staff|owner|host|vip|member|sub/i
          # By which field of it a platform says what something is.
          WORDS = %w[type kind t op event e cmd action what].freeze
          # What a frame could be, the likeliest first.
          KINDS = %w[line edit delete silence clear tip subscription gift follow visit totals nothing].freeze

          module_function

          # @param path [String]
          # @param value [Object]
          # @param has [Array<String>] fields that its rule reads already
          # @param kind [String] what its rule says that it is
          # @return [Array<String>] names of fields, the likeliest first
          def of(path, value, has, kind)
            fits = (kinds(value) & Rule::KINDS.fetch(kind, [])) - has
            likely = CALLED.select { |_, pattern| path[/[^.\[]+(?:\[\d+\])*\z/].to_s.match?(pattern) }.keys
            (fits & likely) | fits
          end

          # @param leaves [Array<Array(String, Object)>] paths, and what stands there
          # @return [String, nil] where that field stands, as it seems: where it is called so, else where something like it stands
          def likeliest(field, leaves, kind)
            fit = leaves.select { |path, value| of(path, value, [], kind).include?(field) }
            (fit.find { |path, _| path[/[^.]+\z/].match?(CALLED.fetch(field, /\A\z/)) } || fit.first)&.first
          end

          # Which fields could hold something like that.
          def kinds(value)
            case value
            when true, false then %w[roles first action]
            when Numeric then number(value)
            when String then text(value)
            else []
            end
          end

          def number(value) = TIMES.any? { |range| range.cover?(value) } ? %w[time id number] : %w[number id paid login time]

          def text(value)
            return %w[colour text] if value.match?(COLOUR)
            return %w[avatar text] if value.match?(ADDRESS)
            return %w[time text] if value.match?(ISO)

            %w[text name login id roles]
          end

          # @param field [String]
          # @param path [String]
          # @param value [Object]
          # @return [Object] what the description says then
          def written(field, path, value)
            return path unless field == "roles" || field == "paid"
            return {"at" => path, "in" => value.is_a?(Integer) ? "minor" : "decimal", "unit" => "points"} if field == "paid"
            return [{"when" => path, "is" => "moderator"}] if value == true || value == false

            {"at" => path, "as" => {value.to_s => "moderator"}}
          end

          # @param item [Object] that nothing reads
          # @return [String, nil] the condition by which others like it are known
          def condition(item)
            return unless item.is_a?(Hash)

            name = WORDS.find { |word| item[word].is_a?(String) && item[word].match?(/\A[^'\\]{1,60}\z/) }
            return "#{name} == '#{item[name]}'" if name

            item.keys.find { |key| key.match?(/\A[A-Za-z_]\w*\z/) }
          end
          private_class_method :kinds, :number, :text
        end
      end
    end
  end
end
