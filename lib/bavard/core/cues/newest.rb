# frozen_string_literal: true

require_relative "../amount"
require_relative "standings"
require_relative "tally"

module Bavard
  module Core
    module Cues
      # Whom a piece of the newest and best shows: rows of a name and what stands beside it.
      module Newest
        module_function

        # @param piece [Hash] a newest piece
        # Those who may be seen, in their order.
        #
        # @param standings [Standings] since what the piece counts from
        # @yieldparam login [String] of somebody who did it
        # @yieldparam name [String]
        # @yieldreturn [String, nil] what may be seen of the name; nil: nothing
        # @return [Array<Array(String, String)>]
        def rows(piece, standings)
          entries, figure = ranked(piece, standings)
          rows = entries.lazy.filter_map do |one|
            name = block_given? ? yield(one.login, one.name) : one.name
            [name, figure.call(one)] if name
          end
          rows.first(piece["what"] == "newest" ? 1 : piece["rows"])
        end

        # @return [Array(Array<Standings::Entry>, Proc)] and what stands beside a name
        def ranked(piece, standings)
          kinds = Tally::COUNTED.fetch(piece["counted"])
          unit = piece["unit"]
          case piece["what"]
          when "newest", "list" then [standings.newest(kinds), ->(one) { one.last_worth ? words(one.last_worth, one.unit) : "" }]
          when "largest" then [standings.largest(kinds, unit), ->(one) { words(one.largest, unit) }]
          else
            return [standings.most(kinds), ->(one) { one.times.to_s }] unless Tally::MONEY.include?(piece["counted"])

            [standings.given(kinds, unit), ->(one) { words(one.worth, unit) }]
          end
        end

        # @param number [Integer] in the smallest unit
        def words(number, unit) = (Amount.money(number, unit) || Amount.own(number, unit))&.words || number.to_s
        private_class_method :ranked, :words
      end
    end
  end
end
