# frozen_string_literal: true

require_relative "tally"

module Bavard
  module Core
    module Cues
      # Who did what since some moment: the newest of a kind, the largest, and who did most. The same whatever the order it is
      # told in.
      class Standings
        # What one person did of one kind in one currency or unit. times:: gifts each one; worth:: in all, and largest:: of one, in
        # its smallest unit; last_ms:: when last
        Entry = Struct.new(:kind, :login, :name, :unit, :times, :worth, :largest, :last_ms)

        # @return [Integer, nil] when the first of all was, of each person's last ones
        attr_reader :first_ms, :changes

        def initialize
          @entries = {}
          @changes = 0
        end

        # @param entry [Entry] what is known already, or came
        def add(entry)
          known = @entries[[entry.kind, entry.login, entry.unit]]
          @changes += 1
          @first_ms = [@first_ms, entry.last_ms].compact.min
          return @entries[[entry.kind, entry.login, entry.unit]] = entry unless known

          known.times += entry.times
          known.worth = sum(known.worth, entry.worth)
          known.largest = [known.largest, entry.largest].compact.max
          known.last_ms, known.name = [[known.last_ms, known.name], [entry.last_ms, entry.name]].max
        end

        # @param event [Event]
        def take(event)
          amount = event.amount
          add(Entry.new(event.kind, event.login, event.name, amount && (amount.currency || amount.unit), Tally.times(event.kind, event.number),
            amount&.number, amount&.number, event.at_ms))
        end

        # @param kinds [Array<String>]
        # @return [Array<Entry>] the newest first, of each person once
        def newest(kinds, most) = of(kinds).sort_by { |one| [-one.last_ms, one.login] }.uniq(&:login).first(most)

        # @param unit [String] currency or the platform's own
        # @return [Array<Entry>] the largest single one first
        def largest(kinds, unit, most)
          of(kinds).select { |one| one.unit == unit && one.largest }.sort_by { |one| [-one.largest, one.login] }.uniq(&:login).first(most)
        end

        # @return [Array<Array(String, Integer)>] names and how many, who did most first
        def most(kinds, most) = ranked(of(kinds), most, &:times)

        # @return [Array<Array(String, Integer)>] names and how much in all, in the smallest unit
        def given(kinds, unit, most) = ranked(of(kinds).select { |one| one.unit == unit && one.worth }, most, &:worth)

        private

        def of(kinds) = @entries.each_value.select { |one| kinds.include?(one.kind) }
        def sum(one, other) = one || other ? one.to_i + other.to_i : nil

        def ranked(entries, most, &figure)
          all = entries.group_by(&:login).map { |login, theirs| [login, theirs.max_by(&:last_ms).name, theirs.sum(&figure)] }
          all.sort_by { |login, _, value| [-value, login] }.first(most).map { |_, name, value| [name, value] }
        end
      end
    end
  end
end
