# frozen_string_literal: true

module Bavard
  module Core
    # What people may do in a show, by their role.
    module Rights
      # From the most to the least.
      ROLES = %w[owner director moderator reader].freeze
      WORDS = {
        "owner" => "everything, and who helps", "director" => "stages, rules, dress and feeds, and what moderators may",
        "moderator" => "pull lines, let them go, leave people out, answer", "reader" => "read along"
      }.freeze
      # What is done, and the least role that may.
      NEEDS = {read: "reader", act: "moderator", direct: "director", own: "owner"}.freeze

      module_function

      # @param role [String, nil] one of ROLES
      # @param what [Symbol] one of NEEDS
      # @return [Boolean]
      def may?(role, what) = !role.nil? && ROLES.index(role) <= ROLES.index(NEEDS.fetch(what))
    end
  end
end
