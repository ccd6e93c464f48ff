# frozen_string_literal: true

require_relative "../amount"

module Bavard
  module Core
    module Cues
      # How much happened since some moment: how often, how many, and worth how much. The same whatever the order it is told in.
      class Tally
        # What can be counted, and the kinds of events that add to it; of money, in one currency or unit.
        COUNTED = {
          "followers" => %w[follow], "subscriptions" => %w[subscription renewal gift], "gifts" => %w[gift], "visits" => %w[visit],
          "purchases" => %w[purchase], "worth" => %w[tip paid purchase]
        }.freeze

        attr_reader :changes

        def initialize
          @times = Hash.new(0)
          @worth = Hash.new(0)
          @changes = 0
        end

        # @param kind [String]
        # @param times [Integer] how many: of gifts each one, of others each event
        # @param worth [Integer, nil] in the smallest unit of its currency, or in the platform's own
        # @param unit [String, nil] currency or own unit
        def add(kind, times, worth = nil, unit = nil)
          @times[kind] += times
          @worth[[kind, unit]] += worth if worth && unit
          @changes += 1
        end

        # @param event [Event]
        def take(event)
          amount = event.amount
          add(event.kind, event.kind == "gift" ? [event.number.to_i, 1].max : 1, amount&.number, amount && (amount.currency || amount.unit))
        end

        # @param counted [String] of COUNTED
        # @param unit [String] of what is worth something
        # @return [Integer, Float] in whole units
        def value(counted, unit = "EUR")
          kinds = COUNTED.fetch(counted)
          return kinds.sum { |kind| @times[kind] } unless counted == "worth"

          sum = kinds.sum { |kind| @worth[[kind, unit]] }
          exponent = unit.match?(/\A[A-Z]{3}\z/) ? Amount::EXPONENTS.fetch(unit, 2) : 0
          exponent.zero? ? sum : sum.fdiv(10**exponent)
        end
      end
    end
  end
end
