# frozen_string_literal: true

require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Whatever certain people write. They are not banned anywhere and need not know. Who they are does not belong to the
      # rule: moderators leave people out while the broadcast goes on, whichever set of rules is in force.
      class PeopleLeftOut < RuleKind
        KEY = "left_out"
        LABEL = "People left out"
        ICON = "user-x"
        ABOUT = "Shown nowhere on the picture, whatever they write, though not banned anywhere."
        ACTIONS = %i[drop].freeze
        OWN = [].freeze
        NAMES = true

        def look(sight, memory)
          entry = memory.left_out.find(sight.person, sight.at_ms) or return
          one(sight.person.display_name, entry.name.casecmp?(sight.person.display_name) ? "left out" : "left out as “#{entry.name}”")
        end
      end
    end
  end
end
