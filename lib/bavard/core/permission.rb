# frozen_string_literal: true

module Bavard
  module Core
    # What a platform lets us do in an account's name.
    #
    # account:: its login there; name:: as it is shown; may:: what it allows: "read", "write"
    # access, refresh:: the tokens, secret; expires_at_ms:: when access runs out, or nil; since_ms:: when it was given
    Permission = Struct.new(:id, :platform, :account, :name, :may, :access, :refresh, :expires_at_ms, :since_ms) do
      def may?(what) = may.include?(what)

      # Never printed by accident.
      def inspect = "#<Permission #{platform} #{account}>"
      alias_method :to_s, :inspect
    end
  end
end
