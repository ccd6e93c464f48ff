# frozen_string_literal: true

module Bavard
  module Core
    # What a paid line or a tip is worth: money in minor units of an ISO 4217 currency, or a number of a platform's own
    # unit.
    #
    #   Amount.money(500, "EUR").words     # => "5.00 EUR"
    #   Amount.own(300, "sparks").words    # => "300 sparks"
    Amount = Struct.new(:number, :currency, :unit) do
      def words
        return "#{number} #{unit}" unless currency

        exponent = Amount::EXPONENTS.fetch(currency, 2)
        return "#{number} #{currency}" if exponent.zero?

        whole, part = number.divmod(10**exponent)
        "#{whole}.#{part.to_s.rjust(exponent, "0")} #{currency}"
      end
    end

    # See above.
    class Amount
      # Digits after the point, where that is not 2 (ISO 4217, list one).
      EXPONENTS = {
        "BIF" => 0, "CLP" => 0, "DJF" => 0, "GNF" => 0, "ISK" => 0, "JPY" => 0, "KMF" => 0, "KRW" => 0, "PYG" => 0, "RWF" => 0, "UGX" => 0,
        "VND" => 0, "VUV" => 0, "XAF" => 0, "XOF" => 0, "XPF" => 0,
        "BHD" => 3, "IQD" => 3, "JOD" => 3, "KWD" => 3, "LYD" => 3, "OMR" => 3, "TND" => 3
      }.freeze
      LARGEST = 10**15
      LONGEST_UNIT = 40

      # @return [Amount, nil] nil where that is no amount of money
      def self.money(minor, currency)
        return unless minor.is_a?(Integer) && minor.between?(0, LARGEST) && currency.is_a?(String) && currency.match?(/\A[A-Z]{3}\z/)

        new(minor, currency, nil)
      end

      # @return [Amount, nil]
      def self.own(number, unit)
        return unless number.is_a?(Integer) && number.between?(0, LARGEST) && unit.is_a?(String) && !unit.strip.empty?

        new(number, nil, unit.strip[0, LONGEST_UNIT])
      end

      # @param given [Object] as documents and the log have it: {"minor": 500, "currency": "EUR"} or {"number": 300, "unit": "sparks"}
      # @return [Amount, nil]
      def self.read(given)
        return unless given.is_a?(Hash)

        money(given["minor"], given["currency"]) || own(given["number"], given["unit"])
      end

      # @return [Hash] as {read} takes it
      def document
        currency ? {"minor" => number, "currency" => currency} : {"number" => number, "unit" => unit}
      end
    end
  end
end
