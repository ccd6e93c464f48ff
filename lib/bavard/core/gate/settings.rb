# frozen_string_literal: true

require_relative "../chat/hold"
require_relative "brake"
require_relative "rule_set"

module Bavard
  module Core
    module Gate
      # All that decides about a show's lines, as one document: named sets of rules of which one is in force, the hold, and the
      # brake while it is on.
      module Settings
        MOST_SETS = 20
        HOLD = {"ms" => 0, "by_role" => {}, "leaves_after_ms" => nil}.freeze
        DEFAULT = {"sets" => [RuleSet::DEFAULT], "in_force" => 0, "hold" => HOLD, "brake" => nil}.freeze
        HELD_LEAVE_MS = (5000..3_600_000)

        module_function

        # @param kept [Hash] from the database, perhaps of a time when there were but two rules
        # @return [Hash]
        # @raise [Bavard::Error]
        def read(kept)
          return first(kept) unless kept["sets"]

          sets = kept["sets"].first(MOST_SETS).map { |set| RuleSet.read(set) }
          sets = [RuleSet::DEFAULT] if sets.empty?
          {"sets" => sets, "in_force" => kept["in_force"].to_i.clamp(0, sets.size - 1), "hold" => hold(kept["hold"] || {}), "brake" => kept["brake"]}
        end

        # @param given [Hash] ms, by_role, leaves_after_ms
        # @return [Hash]
        # @raise [Bavard::Error]
        def hold(given)
          by_role = (given["by_role"] || {}).slice(*RuleKind::ROLES).compact.transform_values { |ms| milliseconds(ms, "by_role") }
          leaves = given["leaves_after_ms"]
          {"ms" => milliseconds(given["ms"] || 0, "ms"), "by_role" => by_role, "leaves_after_ms" => leaves&.to_i&.clamp(HELD_LEAVE_MS)}
        end

        # @return [Hash] the set in force
        def in_force(document) = document["sets"][document["in_force"]]

        # @param brake [Brake, nil]
        # @return [Chat::Hold::Settings]
        def hold_settings(document, brake = nil)
          hold = document["hold"]
          Chat::Hold::Settings.new(hold["ms"], hold["by_role"], hold["leaves_after_ms"], brake&.kind == "slow" ? brake.per_minute : nil)
        end

        # As gates were kept when there were two rules only; the people in it are kept elsewhere now.
        def first(kept)
          commands = kept["command_lines"] or return DEFAULT
          rules = RuleSet::DEFAULT["rules"].map do |rule|
            case rule["kind"]
            when "command_lines" then rule.merge("on" => commands["on"] == true, "prefixes" => Array(commands["prefixes"]).join(" "))
            when "left_out" then rule.merge("on" => kept.dig("left_out", "on") == true)
            else rule
            end
          end
          DEFAULT.merge("sets" => [RuleSet::DEFAULT.merge("rules" => rules)])
        end

        def milliseconds(given, field)
          ms = Float(given).round
          raise Error.new("Lines are held for 0 to 60 s.", field:, value: given) unless ms.between?(0, Chat::Hold::Settings::LONGEST_MS)

          ms
        rescue ArgumentError, TypeError, FloatDomainError
          raise Error.new("Lines are held for 0 to 60 s.", field:, value: given)
        end
        private_class_method :first, :milliseconds
      end
    end
  end
end
