# frozen_string_literal: true

require_relative "../../error"
require_relative "verdict"

module Bavard
  module Core
    module Gate
      # For emergencies: in one press something else than the rules decides, until an end that is seen.
      #
      # kind:: one of KINDS; roles:: of :roles_only; per_minute:: of :slow; until_ms:: Unix milliseconds, or nil: until taken off
      Brake = Struct.new(:kind, :roles, :per_minute, :until_ms, :by, keyword_init: true) do
        # @return [Boolean] whether chat is off the picture
        def off_picture? = kind == "off_picture"

        # @param verdict [Verdict] of the rules
        # @param roles [Array<String>] of the line's person
        # @return [Verdict]
        def on(verdict, roles)
          return verdict if verdict.drop?

          case kind
          when "hold_all" then braked(verdict, :hold, "everything is held")
          when "roles_only" then roles.intersect?(self.roles) ? verdict : braked(verdict, :drop, "only lines by #{self.roles.join(", ")}")
          else verdict
          end
        end

        def over?(now_ms) = !until_ms.nil? && now_ms >= until_ms
        def to_h = super.transform_keys(&:to_s)

        private

        def braked(verdict, action, why)
          finding = Finding.new(Brake::ID, Brake::ID, action, nil, nil, nil, why, nil)
          Verdict.new(action, Brake::ID, nil, verdict.findings + [finding], verdict.shown)
        end
      end

      # See above.
      class Brake
        ID = "brake"
        KINDS = {"hold_all" => "Hold everything", "off_picture" => "Chat off the picture", "roles_only" => "Only people with a role",
                 "slow" => "Slow down"}.freeze
        LONGEST_MS = 6 * 3_600_000
        PER_MINUTE = (1..120)
        ROLES = %w[host moderator guest subscriber supporter].freeze

        # @param given [Hash] kind, roles, per_minute, minutes
        # @return [Brake]
        # @raise [Bavard::Error]
        def self.read(given, now_ms:, by: nil)
          kind = given["kind"].to_s
          raise Error.new("There is no such brake.", field: "kind", value: kind) unless KINDS.key?(kind)

          roles = Array(given["roles"]) & ROLES
          minutes = given["minutes"].to_s[/\A\d{1,3}\z/]&.to_i
          per_minute = (given["per_minute"].to_s[/\A\d{1,3}\z/] || 20).to_i.clamp(PER_MINUTE)
          until_ms = now_ms + [minutes * 60_000, LONGEST_MS].min if minutes&.positive?
          new(kind:, roles: roles.empty? ? ROLES : roles, per_minute:, until_ms:, by:)
        end

        # @param kept [Hash, nil] as {#to_h} gave it
        def self.from(kept) = kept && new(**kept.transform_keys(&:to_sym))
      end
    end
  end
end
