# frozen_string_literal: true

require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # One person writes more than others can read.
      class Floods < RuleKind
        KEY = "floods"
        LABEL = "Floods"
        ICON = "waves"
        ABOUT = "One person writes more than others can read."
        ACTIONS = %i[drop hold].freeze
        SECOND_MS = 1000
        OWN = [
          Fields::Property.number("lines", "lines of one person", 1..50, 6),
          Fields::Property.number("within_s", "within", 1..600, 15, unit: "s")
        ].freeze

        def look(sight, memory)
          before = memory.lines_of(sight, @within_ms)
          one(sight.person.display_name, "line #{before + 1} inside #{settings["within_s"]} s") if before >= @lines
        end

        def words = "Over #{settings["lines"]} lines of one person inside #{settings["within_s"]} s"

        private

        def prepare
          @lines = settings["lines"]
          @within_ms = settings["within_s"] * SECOND_MS
        end
      end
    end
  end
end
