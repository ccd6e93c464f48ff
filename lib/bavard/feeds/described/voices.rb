# frozen_string_literal: true

require_relative "../../core/voice/room"
require_relative "values"

module Bavard
  module Feeds
    module Described
      # What rules say of voice rooms: who is there, and how loud they are.
      module Voices
        # By what a rule calls what happens in one.
        KINDS = {"room" => :room, "card" => :card, "enter" => :join, "change" => :change, "leave" => :leave, "levels" => :levels}.freeze
        CARD = {"key" => Values::Id, "name" => Values::Name, "picture" => Values::Address, "link" => Values::Address,
                "online" => Values::Whole}.freeze

        # What somebody is called: also nothing, which is another thing than not to say.
        class Called < Values::Value
          LONGEST = 1000

          private

          def read(value) = value.is_a?(String) ? Given.text(value, LONGEST).to_s : nil
        end

        # The people that something names: {"at": "who", "key": "id", "name": "name", "muted": "mute"}.
        class People
          FIELDS = {"key" => Values::Id, "name" => Called, "picture" => Values::Address,
                    **Core::Voice::MARKS.to_h { |mark| [mark.to_s, Values::Flag] }}.freeze

          # @raise [ArgumentError]
          def initialize(given)
            raise ArgumentError, "people say where they stand “at”, and where their “key” is" unless given.is_a?(Hash) && given.key?("at")

            @path = Path.read(given["at"])
            @fields = Values.several(FIELDS, given.except("at"), needed: %w[key])
          end

          # @return [Array<Core::Voice::Person>] those that can be read
          def of(item)
            found = @path.of(item)
            (found.is_a?(Array) ? found : [found]).first(Core::Voice::Room::MOST_PEOPLE).filter_map { |one| person(one) }
          end

          def paths = [@path]

          private

          def person(one)
            key = value("key", one) or return
            marks = Core::Voice::MARKS.select { |mark| value(mark.to_s, one) }
            Core::Voice::Person.new(key, value("name", one), value("picture", one), marks)
          end

          def value(name, one) = @fields[name]&.of(one)
        end

        # How loud each of them is: {"at": "l", "key": "[0]", "dbov": "[1]"}, in dBov, with or without its minus (RFC 6464).
        class Levels
          MOST = 500
          # Far below the silence that there is.
          LOWEST = 1000

          # @raise [ArgumentError]
          def initialize(given)
            fine = given.is_a?(Hash) && given.keys.sort == %w[at dbov key]
            raise ArgumentError, "levels say where they stand “at”, and where in each of them the “key” and the “dbov” are" unless fine

            @path, @key, @dbov = given.values_at("at", "key", "dbov").map { |path| Path.read(path) }
          end

          # @return [Array<Array(String, Float)>]
          def of(item)
            Given.list(@path.of(item)).first(MOST).filter_map do |one|
              key = @key.of(one)
              dbov = @dbov.of(one)
              [key, -[dbov.abs, LOWEST].min.to_f] if key.is_a?(String) && dbov.is_a?(Numeric) && dbov.finite?
            end
          end

          def paths = [@path]
        end
      end
    end
  end
end
