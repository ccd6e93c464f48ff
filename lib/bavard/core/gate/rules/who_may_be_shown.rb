# frozen_string_literal: true

require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Only lines by people with certain roles.
      class WhoMayBeShown < RuleKind
        KEY = "who_may_be_shown"
        LABEL = "Who may be shown"
        ICON = "shield-user"
        ABOUT = "Only lines by people with certain roles."
        ACTIONS = %i[drop hold].freeze
        OWN = [Stage::Property.some("shown", "shown are", ROLES - %w[viewer], %w[host moderator guest subscriber supporter])].freeze

        def look(sight, _memory)
          shown = settings["shown"]
          one(sight.person.display_name, "is none of #{shown.join(", ")}") if sight.roles.none? { |role| shown.include?(role) }
        end

        def words = settings["shown"].empty? ? "Nobody" : "Only #{settings["shown"].join(", ")}"
      end
    end
  end
end
