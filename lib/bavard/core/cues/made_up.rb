# frozen_string_literal: true

require_relative "../../error"
require_relative "../amount"
require_relative "../chat/line"
require_relative "../intake"
require_relative "event"

module Bavard
  module Core
    module Cues
      # An event that somebody types to see what it does. It is cued like any other, and never counted.
      module MadeUp
        LOGIN = "made_up"
        LONGEST_NAME = 60
        LONGEST_MESSAGE = 300
        # What is given without a currency is in a platform's own unit.
        OWN_UNIT = "sparks"

        module_function

        # @param given [Hash{String => String}] kind of KINDS, name, message, number, amount in whole units, currency: as they were typed
        # @param id [Integer] of the line
        # @return [Chat::Line]
        # @raise [Bavard::Error]
        def line(given, id:, now_ms:)
          kind = given.fetch("kind", "")
          raise Error.new("What happens?", field: "kind") unless KINDS.key?(kind)

          said = said(given)
          body = kind == "paid" ? said : Happened.new(kind.to_sym, said, given["number"].to_s[/\A\d{1,9}\z/]&.to_i)
          Chat::Line.from(Intake.new(kind == "paid" ? :line : :event, nil, nil, nil, now_ms, body), id:, origin: :test)
        end

        # @param given [Hash{String => String}] amount, currency
        # @return [Amount, nil]
        # @raise [Bavard::Error] where it is no number, or none that an amount can have
        def amount(given)
          typed = given.fetch("amount", "").tr(",", ".").strip
          return if typed.empty?

          number = Float(typed, exception: false)
          raise Error.new("An amount is a number.", field: "amount") unless number&.finite?
          raise Error.new("An amount goes from 0 to #{Amount::LARGEST}.", field: "amount") unless number.between?(0, Amount::LARGEST)

          currency = given.fetch("currency", "").strip
          exponent = Amount::EXPONENTS.fetch(currency, 2)
          # Money that has more than that in minor units is an amount of its own.
          Amount.money((number * (10**exponent)).round, currency) || Amount.own(number.round, currency.empty? ? OWN_UNIT : currency)
        end

        def said(given)
          message = given.fetch("message", "")[0, LONGEST_MESSAGE]
          Said.new(LOGIN, given.fetch("name", "").strip[0, LONGEST_NAME], nil, [], message, false, false).tap { |made| made.paid = amount(given) }
        end
        private_class_method :said
      end
    end
  end
end
