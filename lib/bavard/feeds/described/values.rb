# frozen_string_literal: true

require "bigdecimal"
require_relative "../../core/amount"
require_relative "../../core/chat/placed"
require_relative "../given"
require_relative "path"
require_relative "plain_words"

module Bavard
  module Feeds
    module Described
      # Reads one kind of value out of a frame, as a description says: where it stands and how it is written. What cannot be read as
      # that is nil; nothing that comes raises.
      #
      #   Values::Time.new("at" => "sent", "in" => "s").of({"sent" => 1_795_499_520})   # => 1795499520000
      module Values
        # What all have in common: "a.path", or {"at": "a.path", …}.
        class Value
          # Names it takes besides "at".
          MORE = [].freeze

          attr_reader :path

          # @param given [String, Hash]
          # @raise [ArgumentError] that says what is wrong
          def initialize(given)
            given = {"at" => given} unless given.is_a?(Hash)
            unknown = given.keys - ["at", *self.class::MORE]
            raise ArgumentError, "there is no “#{unknown.first}” here" if unknown.any?

            @path = Path.read(given["at"])
            prepare(given)
          end

          def of(data) = read(path.of(data))

          # @return [Array<Path>] from where it reads
          def paths = [path]

          private

          def prepare(_given) = nil

          def one_of(given, name, choices, default = choices.first)
            value = given.fetch(name, default)
            choices.include?(value) ? value : raise(ArgumentError, "“#{name}” is one of #{choices.join(", ")}")
          end
        end

        # What platforms call one of: a number, or text.
        class Id < Value
          private

          def read(value) = Given.id(value)
        end

        # A name: also a number, as some platforms know people by.
        class Name < Value
          private

          def read(value) = Given.name(value.is_a?(Integer) ? value.to_s : value)
        end

        # Words: as they are, or to be taken out of HTML or Markdown.
        class Text < Value
          MORE = %w[in].freeze
          FORMS = %w[plain html markdown].freeze

          private

          def prepare(given) = @form = one_of(given, "in", FORMS)

          def read(value)
            text = Given.text(value) or return
            @form == "plain" ? text : PlainWords.public_send(@form, text)
          end
        end

        # "#rrggbb"; also without the "#", or as a number.
        class Colour < Value
          LARGEST = 0xFFFFFF

          private

          def read(value)
            value = format("#%06x", value) if value.is_a?(Integer) && value.between?(0, LARGEST)
            value = "##{value}" if value.is_a?(String) && value.match?(/\A\h{6}\z/)
            Given.colour(value)
          end
        end

        # An address of the web: whole, or put together from an id.
        class Address < Value
          MORE = %w[put_into].freeze
          HERE = "{id}"

          private

          def prepare(given)
            @into = given["put_into"]
            return if @into.nil?

            raise ArgumentError, "“put_into” is an address with {id} in it" unless @into.is_a?(String) && @into.include?(HERE) && Given.address(@into)
          end

          def read(value)
            return Given.address(value) unless @into

            id = Given.id(value)
            id&.match?(/\A[\w.~-]+\z/) ? @into.gsub(HERE, id) : nil
          end
        end

        # When: ISO 8601, or seconds, milliseconds or microseconds since 1970, as a number or written out.
        class Time < Value
          MORE = %w[in].freeze
          UNITS = {"s" => 1000r, "ms" => 1r, "us" => 1r / 1000}.freeze
          # A number that large cannot be seconds.
          MS_FROM = 10**11
          LATEST_MS = 10**14
          # As many databases write it; where no zone stands it is UTC.
          WITHOUT_ZONE = /\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d{1,9})?\z/
          BLANK = /(?<=\A.{10}) /
          # Behind a year, and between day and hour.
          DASH = "-".ord
          SPACE = " ".ord

          private

          def prepare(given) = @unit = one_of(given, "in", ["any", "iso", *UNITS.keys])

          def read(value)
            return iso(value) if @unit == "iso" || (value.is_a?(String) && (value.getbyte(4) == DASH || !value.match?(/\A\d{1,17}(?:\.\d{1,9})?\z/)))

            number = value.is_a?(String) ? value.to_r : value
            return unless number.is_a?(Numeric) && number.real? && number.finite? && number.positive?

            ms = (number.to_r * UNITS.fetch(@unit) { number >= MS_FROM ? 1r : 1000r }).to_i
            ms if ms < LATEST_MS
          end

          def iso(value)
            return unless value.is_a?(String) && %w[any iso].include?(@unit)

            value = value.sub(BLANK, "T") if value.getbyte(10) == SPACE
            Given.time_ms(value.match?(WITHOUT_ZONE) ? "#{value}Z" : value)
          end
        end

        # How many: a whole number, also written out.
        class Whole < Value
          private

          def read(value) = Given.whole(value.is_a?(String) && value.match?(/\A\d{1,12}\z/) ? value.to_i : value)
        end

        # Whether: as JMESPath has it, and not where it is written out as a no.
        class Flag < Value
          NO = %w[0 false no].freeze

          def of(data)
            value = path.of(data)
            !Path::NOTHING.include?(value) && value != 0 && !NO.include?(value)
          end
        end

        # What something was worth: money in minor units, millionths or with a point, or a unit of the platform's own.
        class Paid < Value
          MORE = %w[currency in unit].freeze
          FORMS = %w[minor micros decimal].freeze
          MICROS = 1_000_000
          DECIMAL = /\A\d{1,12}(?:\.\d{1,6})?\z/

          def of(data)
            number = path.of(data)
            currency = @currency&.of(data)
            currency ? Core::Amount.money(minor(number, currency), currency) : own(number, @unit&.of(data))
          end

          def paths = [path, *@currency&.paths, *@unit&.paths]

          private

          def prepare(given)
            @form = one_of(given, "in", FORMS)
            raise ArgumentError, "say the “currency” it is in, or a “unit” of the platform’s own" unless given.key?("unit") || given.key?("currency")

            @unit = Unit.new(given["unit"]) if given["unit"]
            @currency = Currency.new(given["currency"]) if given["currency"]
          end

          def own(number, unit) = Core::Amount.own(number.is_a?(String) && number.match?(/\A\d{1,12}\z/) ? number.to_i : number, unit)

          def minor(number, currency)
            return unless number.is_a?(Numeric) || (number.is_a?(String) && number.match?(DECIMAL))
            return if number.is_a?(Float) && !number.finite?

            exact = number.is_a?(Float) ? number.to_s.to_r : number.to_r
            return if exact.negative?

            case @form
            when "minor" then exact.denominator == 1 ? exact.to_i : nil
            else (exact / (@form == "micros" ? MICROS : 1) * (10**Core::Amount::EXPONENTS.fetch(currency, 2))).round
            end
          end
        end

        # A unit of the platform's own: a word that is always the same, or {"at": …} where it is told.
        class Unit
          def initialize(given)
            raise ArgumentError, "a unit is a word, or where it stands “at”" unless given.is_a?(String) || (given.is_a?(Hash) && given.keys == %w[at])

            given.is_a?(Hash) ? @path = Path.read(given["at"]) : @always = given
          end

          def of(data) = @always || Given.text(@path.of(data), Core::Amount::LONGEST_UNIT)
          def paths = [@path].compact
        end

        # ISO 4217: a path to it, or {"is": "EUR"} where it is always the same.
        class Currency
          CODE = /\A[A-Za-z]{3}\z/

          def initialize(given)
            @always = given["is"] if given.is_a?(Hash)
            raise ArgumentError, "a currency has three letters" if given.is_a?(Hash) && !@always.to_s.match?(CODE)

            @path = Path.read(given) unless @always
          end

          def of(data)
            value = @always || @path.of(data)
            value.upcase if value.is_a?(String) && value.match?(CODE)
          end

          def paths = [@path].compact
        end

        # A field whose value is of a kind of its own, with fields: {"id": …, "name": …}.
        #
        # @param kinds [Hash{String => Class}] by field
        # @param given [Object]
        # @return [Hash{String => Value}]
        # @raise [ArgumentError]
        def self.several(kinds, given, needed: [])
          raise ArgumentError, "this has #{kinds.keys.join(", ")}" unless given.is_a?(Hash)

          unknown = given.keys - kinds.keys
          raise ArgumentError, "there is no “#{unknown.first}” here; there are #{kinds.keys.join(", ")}" if unknown.any?

          missing = needed - given.keys
          raise ArgumentError, "“#{missing.first}” is missing" if missing.any?

          given.to_h { |name, value| [name, kinds.fetch(name).new(value)] }
        end
      end
    end
  end
end
