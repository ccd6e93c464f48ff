# frozen_string_literal: true

require_relative "../amount"

module Bavard
  module Core
    module Cues
      # How much happened since some moment: how often, how many, and worth how much, by the feed it came in on. The same whatever the
      # order it is told in.
      class Tally
        # What can be counted, and the kinds of events that add to it; of money, in one currency or unit.
        COUNTED = {
          "followers" => %w[follow], "subscriptions" => %w[subscription renewal gift], "gifts" => %w[gift], "visits" => %w[visit],
          "purchases" => %w[purchase], "worth" => %w[tip paid purchase],
          "cause" => %w[cause]
        }.freeze
        # Those of which the amounts are counted, not the events.
        MONEY = %w[worth cause].freeze

        # @return [Integer] of gifts each one, of all else the event
        def self.times(kind, number) = kind == "gift" ? [number.to_i, 1].max : 1

        # @param number [Integer] in the smallest unit of a currency; nil currency: the platform's own
        # @return [Integer, Float] in whole units
        def self.whole_units(number, currency)
          exponent = currency ? Amount::EXPONENTS.fetch(currency, 2) : 0
          exponent.zero? ? number : number.fdiv(10**exponent)
        end

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
        def add(kind, times, worth = nil, unit = nil, feed_id: nil)
          @times[[kind, feed_id]] += times
          @worth[[kind, unit, feed_id]] += worth if worth && unit
          @changes += 1
        end

        # @param event [Event]
        def count(event)
          amount = event.amount
          add(event.kind, Tally.times(event.kind, event.number), amount&.number, amount && (amount.currency || amount.unit), feed_id: event.feed_id)
        end

        # @param counted [String] of COUNTED
        # @param unit [String] of what is worth something
        # @param feeds [Array<Integer>, nil] ids; nil: of all
        # @return [Integer, Float] in whole units
        def value(counted, unit = "EUR", feeds: nil)
          kinds = COUNTED.fetch(counted)
          unless MONEY.include?(counted)
            return @times.sum { |(kind, feed_id), times| kinds.include?(kind) && (feeds.nil? || feeds.include?(feed_id)) ? times : 0 }
          end

          worth = @worth.sum do |(kind, of, feed_id), number|
            kinds.include?(kind) && of == unit && (feeds.nil? || feeds.include?(feed_id)) ? number : 0
          end
          Tally.whole_units(worth, unit.match?(/\A[A-Z]{3}\z/) ? unit : nil)
        end
      end
    end
  end
end
