# frozen_string_literal: true

require_relative "description"

module Bavard
  module Feeds
    module Described
      # The format of descriptions as JSON Schema (2020-12), from what is read of them: written to docs/formats by bin/formats.
      module Schema
        PATH = {"type" => "string", "minLength" => 1, "maxLength" => Path::LONGEST, "description" => "a place, as JMESPath"}.freeze
        CONDITION = {"type" => "string", "maxLength" => Path::LONGEST, "description" => "a condition, as JMESPath"}.freeze
        PLACE = {"type" => "string", "maxLength" => Place::LONGEST, "description" => "an address, as a URI Template (RFC 6570)"}.freeze
        LETTER = {"type" => %w[object array string], "description" => "what is said, with {places} to fill in"}.freeze
        NAME = "^[a-z][A-Za-z0-9_]{0,39}$"
        MEANING = {"enum" => Transport::MEANINGS}.freeze
        WHOLE = {"type" => "integer", "minimum" => 0}.freeze
        UNIT = {"enum" => Duration::UNITS.keys}.freeze

        module_function

        # @return [Hash]
        def schema
          {"$schema" => "https://json-schema.org/draft/2020-12/schema", "title" => "A described platform",
           **object(top, %w[format key name]),
           "oneOf" => Description::TRANSPORTS.keys.map { |name| name == "irc" ? of_irc : of_other(name) }}
        end

        def badge_kinds
          picture = {"type" => "string", "pattern" => "^https?://[^\\s\\x00-\\x1f]{1,400}$"}
          named({"oneOf" => [{"type" => "null"}, picture]}, "^[^\\s,\\x00-\\x1f]{1,60}$").merge("maxProperties" => Description::MOST_BADGES)
        end

        def of_other(name) = {"required" => [name, "base", "reads"], "not" => {"required" => %w[irc]}}

        def of_irc
          others = [*Description::NOT_OF_IRC, *(Description::TRANSPORTS.keys - %w[irc])]
          {"required" => %w[irc], "not" => {"anyOf" => others.map { |name| {"required" => [name]} }}}
        end

        def irc
          words = {"oneOf" => [{"type" => "string"}, {"type" => "array", "maxItems" => IrcServer::MOST, "items" => {"type" => "string"}}]}
          port = {"type" => "integer", "minimum" => 1, "maximum" => 65_535}
          object({"host" => {"type" => "string"}, "port" => port, "tls" => {"type" => "boolean"},
                  "tags" => object(IrcServer::ENTRIES.to_h { |entry| [entry, words] })}, %w[host])
        end

        def top
          {"format" => {"const" => Description::FORMAT}, "key" => {"type" => "string", "pattern" => "^[a-z][a-z0-9-]{0,39}$"},
           "name" => {"type" => "string", "minLength" => 1, "maxLength" => Description::LONGEST_NAME}, "about" => {"type" => "string"},
           "shape" => {"enum" => Description::SHAPES}, "colour" => {"type" => "string"}, "base" => {"type" => "string", "format" => "uri"},
           "hosts" => {"type" => "array", "maxItems" => Hosts::MOST, "items" => {"type" => "string", "format" => "uri"}},
           "asks" => asks, "secrets" => asks, "headers" => named({"type" => "string"}, "^[A-Za-z0-9-]{1,60}$"), "consent" => {"type" => "object"},
           "joins" => named(object({"in" => PATH, "by" => PATH, "key" => PATH}, %w[in by key])),
           "sets" => named(object({"label" => {"type" => "string"}, "ask" => PLACE, "items" => PATH, "code" => PATH,
                                   "picture" => {"type" => %w[string object]}, "overlay" => {"type" => %w[string object]}}, %w[ask code picture])),
           "badges" => badge_kinds, "rooms" => rooms,
           "poll" => poll, "stream" => stream, "socket" => socket, "irc" => irc,
           "reads" => {"type" => "array", "minItems" => 1, "maxItems" => Description::MOST_RULES, "items" => {"oneOf" => alike.map do |kinds|
             rule(kinds)
           end}},
           "samples" => {"type" => "array", "maxItems" => Samples::MOST,
                         "items" => object({"frame" => true, "becomes" => {"type" => "array", "items" => {"type" => "object"}}}, %w[frame becomes])}}
        end

        def asks
          one = object({"label" => {"type" => "string"}, "example" => {"type" => "string"}, "kind" => {"enum" => Ask::KINDS.keys},
                        "optional" => {"type" => "boolean"}, "each_time" => {"type" => "boolean"},
                        "part" => {"type" => "string", "pattern" => "^[A-Za-z0-9_-]{1,40}$"}})
          named({"oneOf" => [{"type" => "string"}, one]}).merge("maxProperties" => Ask::MOST, "propertyNames" => {"not" => {"enum" => Ask::FILLED}})
        end

        def poll
          object({"find" => find, "ask" => question, "also" => named(question).merge("maxProperties" => Poll::MOST_ALSO),
                  "items" => PATH, "keep" => keep,
                  "wait_ms" => duration, "over" => CONDITION, "newest_first" => {"type" => "boolean"}, "first_is_history" => {"type" => "boolean"},
                  "writes" => sent, "ends" => named(MEANING, "^\\d{3}$")}, %w[ask])
        end

        def stream
          object({"find" => find, "at" => question, "as" => {"enum" => Stream::FORMS}, "items" => PATH, "keep" => keep,
                  "silent_ms" => WHOLE, "writes" => sent,
                  "ends" => named(MEANING, "^\\d{3}$")}, %w[at])
        end

        def socket
          answer = object({"when" => CONDITION, "say" => LETTER, "means" => {"enum" => Socket::MEANS},
                           "resuming" => {"type" => "boolean"}, "words" => PATH}, %w[when])
          object({"find" => find, "at" => PLACE, "protocol" => {"type" => "string"},
                  "prefix" => {"type" => "string", "minLength" => 1, "maxLength" => Socket::LONGEST_PREFIX},
                  "opens" => {"type" => "array", "items" => LETTER}, "answers" => {"type" => "array", "items" => answer},
                  "beat" => object({"every_ms" => duration, "say" => LETTER, "silent_ms" => WHOLE}), "text" => PATH, "items" => PATH, "keep" => keep,
                  "writes" => LETTER, "asks_about" => LETTER, "ends" => named(MEANING, "^\\d{4}$")}, %w[at])
        end

        def find = object({"ask" => question, "keep" => keep, "every_ms" => WHOLE}, %w[ask keep])
        def sent = object({"to" => PLACE, "say" => LETTER}, %w[to say])
        def question = {"oneOf" => [PLACE, sent]}
        def keep = named({"oneOf" => [PATH, object({"header" => {"type" => "string"}}, %w[header])]})

        def duration
          {"oneOf" => [WHOLE, PATH, object({"at" => PATH, "in" => UNIT}, %w[at]),
            object({"header" => {"type" => "string"}, "in" => UNIT}, %w[header])]}
        end

        # @return [Array<Array<String>>] kinds that have and need the same fields
        def alike = Rule::KINDS.keys.group_by { |kind| [Rule::KINDS[kind], Rule::NEEDS[kind]] }.values

        # @param kinds [Array<String>] what it may be
        def rule(kinds)
          fields = Rule::KINDS.fetch(kinds.first).to_h { |name| [name, field(kinds.first, name)] }
          table = object({"at" => PATH, "as" => {"type" => "object", "minProperties" => 1, "additionalProperties" => {"enum" => kinds}}}, %w[at as])
          object({"is" => {"oneOf" => [{"enum" => kinds}, table]}, "when" => CONDITION, **fields}, ["is", *Rule::NEEDS.fetch(kinds.first, [])])
        end

        def field(kind, name)
          own = {"reply" => object(Rule::REPLY.keys.to_h do |field|
            [field, value(Rule::REPLY[field])]
          end), "roles" => roles, "badges" => badges, "emotes" => emotes, "people" => people, "levels" => levels,
                 "history" => value(Values::Flag)}
          own[name] || value(Rule::FIELDS.fetch(kind, Rule::ABOUT).fetch(name))
        end

        def people
          object({"at" => PATH, **Voices::People::FIELDS.transform_values { |type| value(type) }}, %w[at key])
        end

        def rooms
          fields = RoomList::FIELDS.transform_values { |type| value(type) }
          object({"ask" => PLACE, "items" => PATH, "people" => people, "texts" => PATH, **fields}, %w[ask key])
        end

        def levels = object({"at" => PATH, "key" => PATH, "dbov" => PATH}, %w[at key dbov])

        # @param type [Class] of Values
        def value(type)
          more = {Values::Text => {"in" => {"enum" => Values::Text::FORMS}}, Values::Time => {"in" => {"enum" => ["any", "iso", *Values::Time::UNITS.keys]}},
                  Values::Address => {"put_into" => {"type" => "string"}}, Values::Paid => paid}.fetch(type, {})
          long = object({"at" => PATH, **more}, ["at"])
          type == Values::Paid ? long : {"oneOf" => [PATH, long]}
        end

        def paid
          {"in" => {"enum" => Values::Paid::FORMS}, "unit" => {"oneOf" => [{"type" => "string"}, object({"at" => PATH}, %w[at])]},
           "currency" => {"oneOf" => [PATH, object({"is" => {"type" => "string", "pattern" => "^[A-Za-z]{3}$"}}, %w[is])]}}
        end

        def roles
          role = {"type" => "string", "pattern" => "^[a-z][a-z0-9_]{0,39}$"}
          {"oneOf" => [object({"at" => PATH, "as" => {"type" => "object", "additionalProperties" => role}}, %w[at as]),
            {"type" => "array", "items" => object({"when" => CONDITION, "is" => role}, %w[when is])}]}
        end

        def badges
          {"oneOf" => [PATH, object({"at" => PATH, "name" => PATH, "detail" => PATH, "picture" => value(Values::Address), "pictures" => PATH}, %w[at])]}
        end

        def emotes
          picture = value(Values::Address)
          {"oneOf" => [
            object({"ranges" => PATH, "from" => PATH, "length" => PATH, "to" => PATH, "last" => PATH, "picture" => picture, "count" => {"enum" => Emotes::Ranges::UNITS.keys}},
              %w[ranges from picture]),
            object(
              {"marks" => {"type" => "array", "minItems" => 2, "maxItems" => 2, "items" => {"type" => "string", "minLength" => 1}},
               "picture" => picture}, %w[marks picture]
            ),
            object({"codes" => PATH, "code" => PATH,
                    "around" => {"type" => "array", "minItems" => 2, "maxItems" => 2, "items" => {"type" => "string"}},
                    "picture" => picture}, %w[codes]),
            object({"parts" => PATH, "text" => PATH, "picture" => picture}, %w[parts text picture])
          ]}
        end

        def object(properties, required = [])
          {"type" => "object", "additionalProperties" => false, "properties" => properties, "required" => required}
        end

        def named(value, pattern = NAME) = {"type" => "object", "additionalProperties" => false, "patternProperties" => {pattern => value}}

        private_class_method :top, :irc, :of_irc, :of_other, :badge_kinds
        private_class_method :asks, :poll, :stream, :socket, :find, :sent, :question, :keep, :duration, :alike, :rule, :field, :people, :levels,
          :rooms, :value
        private_class_method :paid, :roles, :badges, :emotes, :object, :named
      end
    end
  end
end
