# frozen_string_literal: true

require_relative "../../error"
require_relative "../flurry/ways"
require_relative "../look/motion"
require_relative "../fields/property"
require_relative "event"
require_relative "own_type"
require_relative "spoken"
require_relative "words"

module Bavard
  module Core
    module Cues
      # One cue as a sheet keeps it: for which events it is meant, and what it plays.
      module Cue
        LARGEST = 1_000_000_000
        # Where a picture stands to the words.
        PLACES = %w[above below left right behind].freeze
        ROLES = %w[viewer host moderator guest subscriber supporter bot].freeze
        Property = Fields::Property

        MEANT = [
          Property.text("name", "name", 60, "A cue"),
          Property.choice("kind", "for", KINDS.keys, "follow"),
          Property.switch("on", "in force", true),
          *%w[amount months number].flat_map do |what|
            [Property.number("#{what}_from", "#{what} from (0: any)", 0..LARGEST, 0),
              Property.number("#{what}_to", "#{what} up to (0: any)", 0..LARGEST, 0)]
          end,
          Property.text("currency", "currency or unit", 40),
          Property.some("feeds", "on feeds (none: all)", nil, []),
          Property.some("roles", "by (none: everyone)", ROLES, []),
          Property.text("people", "only these people, one a line", 2000),
          Property.switch("first", "only their first", false),
          Property.number("share_percent", "how often", 1..100, 100, unit: "%"),
          Property.number("cool_down_s", "not again within", 0..86_400, 0, unit: "s"),
          Property.number("from_min", "from minute of the broadcast (0: any)", 0..10_000, 0),
          Property.number("to_min", "up to minute (0: any)", 0..10_000, 0)
        ].freeze
        AS_PIECE = "piece"
        MOTIONS = [AS_PIECE, *Look::Motion::WAYS.keys].freeze
        # What words and picture do while they stand.
        HELD = %w[still beat sway float].freeze
        # As a whole, one word or letter after the other, or with figures that count up.
        WORDS_IN = %w[whole words letters counted].freeze
        # Where what is let go comes from: shares of width and height.
        FROM = {
          "piece" => nil, "middle" => [0.5, 0.5], "top" => [0.5, 0.0], "bottom" => [0.5, 1.0], "left" => [0.0, 0.7], "right" => [1.0, 0.7]
        }.freeze
        MOST_FLOWN = 300
        # When a part begins after the cue does, and ends before it.
        BEGINS_S = (0..120)
        TIMED = %w[picture words message].flat_map do |part|
          [Property.number("#{part}_begins_s", "#{part} after", BEGINS_S, 0, unit: "s", digits: 1),
            Property.number("#{part}_ends_s", "#{part} until (0: the end)", BEGINS_S, 0, unit: "s", digits: 1)]
        end.push(Property.number("sound_begins_s", "sound after", BEGINS_S, 0, unit: "s", digits: 1),
          Property.number("flurry_begins_s", "emotes after", BEGINS_S, 0, unit: "s", digits: 1)).freeze
        FLOWN = [
          Property.number("flurry_count", "emotes that fly", 0..MOST_FLOWN, 0),
          Property.text("flurry_emotes", "which (none: those of their message, or any)", 300),
          Property.choice("flurry_way", "which way", [AS_PIECE, *Flurry::Ways::ALL], AS_PIECE),
          Property.choice("flurry_from", "from where", FROM.keys, "piece")
        ].freeze
        HEARD = [
          Property.file("sound", "sound", "sound"),
          Property.number("volume", "volume", 0..100, 80, unit: "%")
        ].freeze
        # The machine's voice, or that of the screen that is heard.
        SPEAKERS = %w[machine screen].freeze
        SPOKEN = [
          Property.switch("spoken_name", "who it was", false),
          Property.switch("spoken_words", "the words, with their name", false),
          Property.switch("aloud", "their message, in its language", false),
          Property.choice("spoken_by", "by the voices of", SPEAKERS, "machine"),
          Property.text("spoken_voice", "voice", 40, "en-gb"),
          Property.number("spoken_speed", "speed", 50..250, 100, unit: "%"),
          Property.number("spoken_pitch", "pitch", 10..190, 100, unit: "%"),
          Property.number("spoken_volume", "volume of the voice", 0..100, 80, unit: "%"),
          Property.number("spoken_most_s", "says at most", 1..60, 15, unit: "s")
        ].freeze
        ADDED = [
          Property.number("adds", "adds", -LARGEST..LARGEST, 0),
          Property.text("adds_to", "to the goal, challenge or counter called", 120)
        ].freeze
        PLAYED = [
          Property.text("words", "words", 300, "{name}"),
          Property.switch("message", "their message", true),
          Property.number("length_s", "length", 1..120, 6, unit: "s", digits: 1),
          Property.number("importance", "importance", 0..9, 3),
          Property.switch("joins", "many alike become one", true),
          Property.file("picture", "picture"),
          Property.file("film", "film in its place", "film"),
          Property.choice("picture_place", "picture stands", PLACES, "above"),
          Property.number("apart", "apart from the words", -300..400, 40, unit: "%"),
          Property.choice("motion_in", "comes in", MOTIONS, AS_PIECE),
          Property.choice("words_in", "words come", WORDS_IN, "whole"),
          Property.choice("held", "while it stands", HELD, "still"),
          Property.switch("words_wave", "words wave while they stand", false),
          Property.choice("motion_out", "goes out", MOTIONS - %w[typed], AS_PIECE)
        ].freeze
        PROPERTIES = (MEANT + PLAYED + OwnType::PROPERTIES + TIMED + HEARD + SPOKEN + FLOWN + ADDED).to_h do |property|
          [property.name, property]
        end.freeze
        DEFAULT_WORDS = {
          "follow" => "{name} follows", "subscription" => "{name} subscribed", "renewal" => "{name} renewed[, {months} months now]",
          "gift" => "{name} gave[ {number}] subscriptions", "tip" => "{name} gave {amount}", "paid" => "{name} says it with {amount}",
          "purchase" => "{name} bought something[ for {amount}]", "visit" => "{name} comes to visit[ with {number} viewers]", "own" => "{name}",
          "cause" => "{name} gave {amount} to the cause", "milestone" => "{name}: {number} % of the way",
          "reached" => "{name}: reached!", "missed" => "{name}: not this time"
        }.freeze

        module_function

        # @param given [Hash] some properties
        # @return [Hash] a whole cue
        # @raise [Bavard::Error] naming the first that does not fit
        def build(id, given = {})
          unknown = (given.keys - PROPERTIES.keys - ["id"]).first
          raise Error.new("A cue has no “#{unknown}”.", field: unknown, value: given[unknown]) if unknown

          cue = {"id" => id}.merge(PROPERTIES.to_h { |name, property| [name, given.key?(name) ? property.read(given[name]) : property.default] })
          wrong = Words.unknown(cue["words"]).first
          raise Error.new("There is no {#{wrong}}. There are #{Words::PLACES.map { |place| "{#{place}}" }.join(", ")}.", field: "words") if wrong

          cue
        end

        # @return [Array<Hash>] one for each kind of event
        def defaults
          KINDS.map do |kind, called|
            build("cue_#{kind}", "kind" => kind, "name" => called[0].upcase + called[1..], "words" => DEFAULT_WORDS[kind])
          end
        end

        # @return [Array<String>]
        def people(cue) = cue["people"].split("\n").map(&:strip).reject(&:empty?)

        # @param cue [Hash]
        # @return [Array<String>] ids of the files it plays
        def files(cue) = cue.values_at("sound", "film").compact

        # @return [Array(Numeric, String), nil] how much each event of it adds to what
        def adds(cue)
          number, to = cue.values_at("adds", "adds_to")
          [number, to] unless number.zero? || to.strip.empty?
        end

        # @return [String, nil] what it does besides its words, in few words
        def also(cue)
          said = [cue["picture"] && "a picture", cue["film"] && "a film", cue["sound"] && "a sound", Spoken.any?(cue) && "read aloud",
            cue["flurry_count"].positive? && "#{cue["flurry_count"]} emotes fly"].select { |words| words }
          said.join(", ") if said.any?
        end

        # @return [String] what narrows it, in few words
        def narrowed(cue)
          unit = cue["currency"].empty? ? "amount" : cue["currency"]
          ranges = {"amount" => unit, "months" => "months", "number" => "number"}.map { |what, words| between(cue, what, words) }
          said = [*ranges, *whose(cue), *not_always(cue)].select { |words| words }
          said.empty? ? "whatever it is" : said.join(", ")
        end

        def whose(cue)
          names = people(cue)
          [names.any? && "only #{names.join(", ")}", cue["roles"].any? && cue["roles"].join(" or "), cue["feeds"].any? && "on some chats",
            cue["first"] && "their first"]
        end

        def not_always(cue)
          share, cool_down = cue.values_at("share_percent", "cool_down_s")
          [share < 100 && "#{share} % of the time", cool_down.positive? && "not again within #{cool_down} s",
            (cue["from_min"] + cue["to_min"]).positive? && "at some time of the broadcast"]
        end

        def between(cue, what, words)
          from, to = cue.values_at("#{what}_from", "#{what}_to")
          return if from.zero? && to.zero?
          return "#{words} from #{from}" if to.zero?
          return "#{words} up to #{to}" if from.zero?

          from == to ? "#{words} #{from}" : "#{words} #{from} to #{to}"
        end
        private_class_method :whose, :not_always, :between

        # @return [Hash] as {Sheet} asks it
        def asked(cue)
          ranges = %w[amount months number].to_h { |name| [name, [cue["#{name}_from"], cue["#{name}_to"]].map { |value| value unless value.zero? }] }
          cue.slice("id", "name", "kind", "on", "cool_down_s").merge(
            "share_percent" => cue["share_percent"] < 100 ? cue["share_percent"] : nil,
            "from_min" => cue["from_min"].zero? ? nil : cue["from_min"], "to_min" => cue["to_min"].zero? ? nil : cue["to_min"],
            "when" => {**ranges, **cue.slice("currency", "feeds", "roles", "first"), "people" => Cue.people(cue)}
          )
        end
      end
    end
  end
end
