# frozen_string_literal: true

require_relative "ranking"
require_relative "tally"

module Bavard
  module Core
    module Cues
      # Who did what since some moment: the newest of a kind, the largest, and who did most. The same whatever the order it is
      # told in.
      class Standings
        # What one person did of one kind in one currency or unit. times:: gifts each one; worth:: in all, and largest:: of one, in
        # its smallest unit; last_ms:: when last, and last_worth:: of that one
        Entry = Struct.new(:kind, :login, :name, :unit, :times, :worth, :largest, :last_ms, :last_worth) do
          # @param other [Entry] of the same person
          def absorb(other)
            self.times += other.times
            self.worth = worth || other.worth ? worth.to_i + other.worth.to_i : nil
            self.largest = [largest, other.largest].compact.max
            return if ([last_ms, name, last_worth.to_i] <=> [other.last_ms, other.name, other.last_worth.to_i]).positive?

            %i[last_ms name last_worth unit].each { |what| self[what] = other[what] }
          end
        end
        # Orders that are asked for again and again.
        MOST_RANKINGS = 60

        # @return [Integer] when the first of all was, of each person's last ones
        attr_reader :first_ms, :changes

        def initialize
          @entries = {}
          @known = {}
          @rankings = {}
          @changes = 0
        end

        # @return [Boolean] whether that person did anything of that kind
        def known?(kind, login) = @known.key?([kind, login])

        # @param entry [Entry] what is known already, or came
        def add(entry)
          @changes += 1
          @known[[entry.kind, entry.login]] = true
          @first_ms = [@first_ms, entry.last_ms].compact.min
          @rankings.each_value { |ranking| ranking.count(entry) }
          known = @entries[[entry.kind, entry.login, entry.unit]]
          known ? known.absorb(entry) : @entries[[entry.kind, entry.login, entry.unit]] = entry
        end

        # @param event [Event]
        def count(event)
          amount = event.amount
          add(Entry.new(event.kind, event.login, event.name, amount && (amount.currency || amount.unit), Tally.times(event.kind, event.number),
            amount&.number, amount&.number, event.at_ms, amount&.number))
        end

        # @param kinds [Array<String>]
        # Somebody is to be forgotten. That they did something stays known, as long as this runs.
        #
        # @param left [Array<Entry>] of others by the same login, as on another platform
        def erase(login, left)
          @entries.delete_if { |(_, one), _| one == login }
          @rankings.clear
          left.each { |entry| add(entry) }
          @changes += 1
        end

        # @return [Array<Entry>] the newest first, of each person once
        def newest(kinds) = ranking(kinds, :last_ms)

        # @param unit [String] currency or the platform's own
        # @return [Array<Entry>] the largest single one first
        def largest(kinds, unit) = ranking(kinds, :largest, unit)

        # @return [Array<Entry>] by times, who did most first
        def most(kinds) = ranking(kinds, :times)

        # @return [Array<Entry>] by worth: how much in all, in the smallest unit
        def given(kinds, unit) = ranking(kinds, :worth, unit)

        private

        def ranking(*asked)
          known = @rankings.delete(asked) || Ranking.new(*asked).fill(@entries.each_value)
          @rankings.shift if @rankings.size >= MOST_RANKINGS
          (@rankings[asked] = known).to_a
        end
      end
    end
  end
end
