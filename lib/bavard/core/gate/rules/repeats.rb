# frozen_string_literal: true

require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # The same line, or nearly the same, again and again.
      class Repeats < RuleKind
        KEY = "repeats"
        LABEL = "Repeats"
        ICON = "copy"
        ABOUT = "The same line, or nearly the same, again and again."
        ACTIONS = %i[drop hold].freeze
        SECOND_MS = 1000
        OWN = [
          Fields::Property.number("times", "from the time it comes for the", 2..20, 3),
          Fields::Property.number("within_s", "within", 5..600, 30, unit: "s"),
          Fields::Property.choice("by", "counted", ["from anyone", "from one person"], "from anyone"),
          Fields::Property.switch("nearly", "also nearly the same", true)
        ].freeze

        # Of an event without a message nothing was said again.
        def look(sight, memory)
          return if sight.text.empty?

          before = memory.same(sight, @within_ms, by_one: @by_one)
          before = [before, nearly(sight, memory)].max if @nearly && before + 1 < @times
          return if before + 1 < @times

          one(sight.text[0, 60], "#{before + 1} times inside #{settings["within_s"]} s")
        end

        def words = "Same line #{settings["times"]} times inside #{settings["within_s"]} s, #{settings["by"]}"

        private

        def nearly(sight, memory) = memory.alike(sight, @within_ms, by_one: @by_one, enough: @times - 1)

        def prepare
          @times = settings["times"]
          @nearly = settings["nearly"]
          @within_ms = settings["within_s"] * SECOND_MS
          @by_one = settings["by"] == "from one person"
        end
      end
    end
  end
end
