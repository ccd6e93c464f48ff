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
        # @param standings [Standings] since what the piece counts from
        # @return [Array<Array(String, String)>]
        def rows(piece, standings)
          kinds = Tally::COUNTED.fetch(piece["counted"])
          unit = piece["unit"]
          most = piece["what"] == "list" ? piece["rows"] : 1
          case piece["what"]
          when "newest", "list" then standings.newest(kinds, most).map { |one| [one.name, one.largest ? words(one.largest, one.unit) : ""] }
          when "largest" then standings.largest(kinds, unit, piece["rows"]).map { |one| [one.name, words(one.largest, unit)] }
          else most(kinds, unit, piece, standings)
          end
        end

        def most(kinds, unit, piece, standings)
          return standings.most(kinds, piece["rows"]).map { |name, times| [name, times.to_s] } unless Tally::MONEY.include?(piece["counted"])

          standings.given(kinds, unit, piece["rows"]).map { |name, worth| [name, words(worth, unit)] }
        end

        # @param number [Integer] in the smallest unit
        def words(number, unit) = (Amount.money(number, unit) || Amount.own(number, unit))&.words || number.to_s
        private_class_method :most, :words
      end
    end
  end
end
