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
        OWN = [Fields::Property.some("shown", "shown are", ROLES - %w[viewer], %w[host moderator guest subscriber supporter])].freeze

        def look(sight, _memory)
          one(sight.person.display_name, @why) if sight.roles.none? { |role| @shown.key?(role) }
        end

        def prepare
          @shown = settings["shown"].to_h { |role| [role, true] }
          @why = "is none of #{settings["shown"].join(", ")}"
        end

        def words = settings["shown"].empty? ? "Nobody" : "Only #{settings["shown"].join(", ")}"
      end
    end
  end
end
