# frozen_string_literal: true

require_relative "../../error"
require_relative "../chat/person"
require_relative "../fields/property"
require_relative "edits"
require_relative "verdict"

module Bavard
  module Core
    module Gate
      # What all kinds of rules share: whom they apply to, what they do, and being read from a document. A kind is a class
      # with KEY, LABEL, ABOUT, ICON, ACTIONS (the first is how it comes) and OWN (its own properties); its instances answer
      # {#look} for one line, from that line and the memory alone.
      class RuleKind
        ROLES = %w[viewer host moderator guest subscriber supporter bot].freeze
        # Nobody is known for longer than that for a rule.
        LONGEST_KNOWN_H = 8760

        def self.common
          @common ||= [
            Fields::Property.switch("on", "in force", true),
            Fields::Property.choice("action", "what it does", self::ACTIONS.map(&:to_s), self::ACTIONS.first.to_s),
            Fields::Property.some("roles", "for (none: everyone)", ROLES, []),
            Fields::Property.some("feeds", "on feeds (none: all)", nil, []),
            Fields::Property.number("known_under_h", "only people known for less than (0: all)", 0..LONGEST_KNOWN_H, 0, unit: "h"),
            Fields::Property.some("except_roles", "but not for", ROLES, self::EXCEPT),
            Fields::Property.text("except_people", "nor for these people, by the name they sign in with, one a line", 4000)
          ].freeze
        end
        EXCEPT = [].freeze
        # Whether it looks at names, whatever is said.
        NAMES = false
        HOUR_MS = 3_600_000

        # @return [Hash{String => Fields::Property}]
        def self.properties
          @properties ||= (common + self::OWN).to_h { |property| [property.name, property] }.freeze
        end

        # @param given [Hash] some properties, as given
        # @return [Hash] a whole rule, as a document keeps it
        # @raise [Bavard::Error]
        def self.build(id, given = {})
          unknown = (given.keys - properties.keys - %w[id kind]).first
          raise Error.new("#{self::LABEL} has no “#{unknown}”.", field: unknown, value: given[unknown]) if unknown

          {"id" => id, "kind" => self::KEY}.merge(properties.to_h do |name, property|
            [name, given.key?(name) ? property.read(given[name]) : property.default]
          end)
        end

        # @return [Hash] of one rule of this kind, as JSON Schema
        def self.schema
          fixed = {"id" => {"type" => "string", "pattern" => "^[a-z_]{1,24}[0-9]{0,4}$"}, "kind" => {"const" => self::KEY}}
          {"type" => "object", "required" => ["id", "kind", *properties.keys], "additionalProperties" => false,
           "properties" => fixed.merge(properties.transform_values { |property| {"description" => property.label}.merge(property.schema) })}
        end

        attr_reader :id, :settings

        # @param settings [Hash] as {.build} gave it
        def initialize(settings)
          @settings = settings
          @id = settings["id"]
          @action = settings["action"].to_sym
          @roles = settings["roles"]
          @feeds = settings["feeds"]
          @known_under_ms = settings["known_under_h"] * HOUR_MS
          @except_roles = settings["except_roles"]
          @spared = spared(settings["except_people"])
          @everybody = @roles.empty? && @feeds.empty? && @known_under_ms.zero? && @except_roles.empty? && @spared.empty?
          prepare
        end

        # @param sight [Sight]
        # @param memory [Memory]
        # @return [Array<Finding>, nil]
        def judge(sight, memory)
          return unless @everybody || applies?(sight, memory)

          look(sight, memory)
        end

        # @return [String] what is set, in a few words
        def words = self.class::ABOUT

        private

        def prepare = nil

        def applies?(sight, memory)
          roles = sight.roles
          return false unless @roles.empty? || roles.any? do |role|
            role != Sight::VIEWER && @roles.include?(role)
          end || (@roles.include?(Sight::VIEWER) && roles.size == 1)
          return false unless @feeds.empty? || sight.line.feed_id.nil? || @feeds.include?(sight.line.feed_id.to_s)
          return false if @except_roles.any? && excepted?(roles)
          return false if @spared.key?(Chat::Person.fold(sight.person.login))

          @known_under_ms.zero? || (memory.known_ms(sight.person, sight.at_ms) || 0) < @known_under_ms
        end

        # By exactly the name somebody signs in with: a shown name, or one that looks the same, is what anybody may take.
        def spared(text) = text.split("\n").map(&:strip).reject(&:empty?).to_h { |name| [Chat::Person.fold(name.delete_prefix("@")), true] }

        def excepted?(roles) = roles.any? { |role| @except_roles.include?(role) && (role != Sight::VIEWER || roles.size == 1) }

        def found(seen, why, from: nil, to: nil, edits: nil, name: nil)
          Finding.new(id, self.class::KEY, @action, seen, from, to, why, edits, name)
        end

        def one(seen, why, from: nil, to: nil) = [Finding.new(id, self.class::KEY, @action, seen, from, to, why, nil, nil)]
      end
    end
  end
end

require_relative "left_out"
require_relative "sight"
