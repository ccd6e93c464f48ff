# frozen_string_literal: true

require_relative "rules"

module Bavard
  module Core
    module Gate
      # A named ladder of rules, as a document.
      module RuleSet
        MOST_RULES = 40
        LONGEST_NAME = 40
        # How a show begins: nothing that eats good lines.
        DEFAULT = {
          "name" => "Calm day",
          "rules" => [KnownBots.build("known_bots"), CommandLines.build("command_lines"), PeopleLeftOut.build("left_out"),
            StoppedWords.build("stopped_words"), Links.build("links", "on" => false, "action" => "hold"),
            Repeats.build("repeats"), Shouting.build("shouting"), Floods.build("floods", "on" => false),
            WhoMayBeShown.build("who_may_be_shown", "on" => false), Scripts.build("scripts", "on" => false),
            AskedFor.build("asked_for", "on" => false)]
        }.freeze
        SCHEMA_ID = "rules.schema.json"

        module_function

        # @param given [Object] from outside
        # @return [Hash] a whole rule set, with what it did not say as it comes
        # @raise [Bavard::Error] naming what does not fit
        def read(given)
          raise Error.new("That is not a set of rules.", field: "rules") unless given.is_a?(Hash) && given["rules"].is_a?(Array)

          rules = given["rules"]
          if rules.size > MOST_RULES
            raise Error.new("There is room for #{MOST_RULES} rules; these are #{rules.size}.", field: "rules",
              value: rules.size)
          end

          {"name" => name(given["name"]), "rules" => rules.inject([]) { |all, rule| all << rule(rule, all) }}
        end

        # @return [Hash] of a rule, checked also for what only the whole of it shows
        def rule(given, others = [])
          raise Error.new("A rule says its kind and what is set.", field: "rules") unless given.is_a?(Hash)

          kind = Rules.kind(given["kind"])
          kind.build(id(kind, given["id"], others), given.slice(*kind.properties.keys).merge(unknown(kind, given))).tap { |rule| kind.new(rule) }
        end

        def name(given)
          name = given.to_s.scrub("").gsub(/[[:cntrl:]]/, "").strip
          raise Error.new("A set of rules has a name of up to #{LONGEST_NAME} characters.", field: "name", value: given) unless name.length.between?(
            1, LONGEST_NAME
          )

          name
        end

        # @return [Hash] JSON Schema (2020-12)
        def schema
          {"$schema" => "https://json-schema.org/draft/2020-12/schema", "$id" => SCHEMA_ID, "title" => "A set of rules", "type" => "object",
           "required" => %w[name rules], "additionalProperties" => false,
           "properties" => {"name" => {"type" => "string", "minLength" => 1, "maxLength" => LONGEST_NAME},
                            "rules" => {"type" => "array", "maxItems" => MOST_RULES, "items" => {"anyOf" => Rules::KINDS.values.map(&:schema)}}}}
        end

        def unknown(kind, given) = given.except(*kind.properties.keys, "id", "kind")

        def id(kind, given, others)
          taken = others.map { |rule| rule["id"] }
          return given if given.is_a?(String) && given.delete_suffix(given[/\d{0,4}\z/]) == kind::KEY && !taken.include?(given)

          [kind::KEY, *(2..(MOST_RULES + 1)).map { |number| "#{kind::KEY}#{number}" }].find { |id| !taken.include?(id) }
        end
        private_class_method :unknown, :id
      end
    end
  end
end
