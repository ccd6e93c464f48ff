# frozen_string_literal: true

require_relative "condition"
require_relative "event"

module Bavard
  module Core
    module Cues
      # Which cue plays for which event: of those that fit, the most specific; of equals, the one that stands first.
      class Sheet
        MINUTE_MS = 60_000
        SECOND_MS = 1000
        # A cue as the sheet asks it: document is as it is kept.
        Entry = Struct.new(:document, :place, :condition) do
          def id = document["id"]
          # The lower, the sooner it is asked.
          def rank = @rank ||= (place - (condition.specific * 1000))
        end
        # The cues for one kind of event, in the order they are asked in. Those for certain people are found by name.
        class Kind
          attr_reader :all

          def initialize(all)
            @all = all
            @anybody = all.select { |entry| entry.condition.people.empty? }
            @by_name = {}
            all.each { |entry| entry.condition.people.each { |name| (@by_name[name] ||= []) << entry } }
          end

          # @param facts [Condition::Facts]
          # @return [Array<Entry>] those that may fit
          def asked(facts)
            theirs = @by_name[facts.login] || @by_name[facts.name] or return @anybody
            (theirs | (@by_name[facts.name] || [])).each_with_object(@anybody.dup) do |entry, all|
              all.insert(all.bsearch_index { |other| other.rank > entry.rank } || all.size, entry)
            end
          end
        end

        # cue:: its document, or nil; ties:: names of others that were as specific; passed:: why more specific ones did not play
        Choice = Struct.new(:cue, :ties, :passed)
        NONE = Choice.new(nil, [].freeze, [].freeze).freeze

        # @param documents [Array<Hash>] id, name, kind, on, when (a Condition's), share_percent, cool_down_s, from_min, to_min …
        def initialize(documents)
          entries = documents.each_with_index.select { |document, _| document["on"] }
            .map { |document, place| Entry.new(document, place, Condition.new(document["when"] || {})) }
          @by_kind = entries.group_by { |entry| entry.document["kind"] }.transform_values { |all| Kind.new(all.sort_by(&:rank)) }
        end

        # A pure function of the event, of what was played before, and of chance.
        #
        # @param event [Event]
        # @param now_ms [Integer]
        # @param played [Hash{String => Integer}] when each cue was played last, by its id
        # @param began_ms [Integer, nil] when the broadcast began
        # @param chance [Float] 0 to 1
        # @return [Choice]
        def choose(event, now_ms:, played: {}, began_ms: nil, chance: 0.0)
          passed = nil
          facts = Condition::Facts.of(event)
          all = @by_kind[event.kind]&.asked(facts) or return NONE
          all.each_with_index do |entry, at|
            next unless entry.condition.fits?(event, facts)

            why = held_back(entry.document, now_ms, played, began_ms, chance)
            return Choice.new(entry.document, ties(all, at, event, facts), passed || []) unless why

            (passed ||= []) << [entry.id, why]
          end
          passed ? Choice.new(nil, [], passed) : NONE
        end

        # @return [Array<Array(String, String)>] ids of cues that can never be played or meet others, and why
        def findings
          @by_kind.each_value.flat_map do |kind|
            all = kind.all
            all.each_with_index.flat_map { |entry, index| found(entry, all.first(index)) }
          end
        end

        private

        def held_back(document, now_ms, played, began_ms, chance)
          cool_down_ms = document["cool_down_s"].to_i * SECOND_MS
          last_ms = played[document["id"]]
          return "was played less than #{document["cool_down_s"]} s ago" if last_ms && cool_down_ms.positive? && now_ms - last_ms < cool_down_ms
          return "chance was against it" if document["share_percent"] && chance * 100 >= document["share_percent"]

          minutes = began_ms && (now_ms - began_ms).fdiv(MINUTE_MS)
          from, to = document.values_at("from_min", "to_min")
          "is for another time of the broadcast" if (from || to) && (minutes.nil? || minutes < from.to_i || (to && minutes > to))
        end

        # They stand right behind it.
        def ties(all, chosen, event, facts)
          all[(chosen + 1)..].take_while { |entry| entry.condition.specific == all[chosen].condition.specific }
            .select { |entry| entry.condition.fits?(event, facts) }.map { |entry| entry.document["name"] }
        end

        # @param before [Array<Entry>] those that are asked first
        def found(entry, before)
          never = entry.condition.never
          return [[entry.id, "can never play: #{never}"]] if never

          always = before.find { |other| always?(other.document) && other.condition.covers?(entry.condition) }
          return [[entry.id, "can never play: “#{always.document["name"]}” always comes first"]] if always

          before.select { |other| other.condition.specific == entry.condition.specific && other.condition.meets?(entry.condition) }
            .map { |other| [entry.id, "can fit the same as “#{other.document["name"]}”, which stands before it"] }
        end

        def always?(document) = %w[share_percent from_min to_min].none? { |name| document[name] } && document["cool_down_s"].to_i.zero?
      end
    end
  end
end
