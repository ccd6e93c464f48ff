# frozen_string_literal: true

require_relative "../amount"

module Bavard
  module Core
    # What a broadcast came to.
    module Report
      # What is counted of its lines.
      #
      # from_ms, to_ms:: Unix milliseconds; feeds:: [Feed]; rules:: {label => how many it kept off}; minutes:: {minutes since the epoch => lines}
      # people:: how many wrote; new_people:: of them, who never had before; events:: [Event]
      Counted = Struct.new(:from_ms, :to_ms, :feeds, :rules, :minutes, :people, :new_people, :events, keyword_init: true)
      # aired, kept_off, pulled:: how many of its lines; people:: who wrote there
      Feed = Struct.new(:name, :lines, :aired, :kept_off, :pulled, :people, keyword_init: true)
      # kind:: as Core::EVENTS has them, and paid; worth:: of all together in the smallest unit, or nil; unit:: a currency or a platform's own
      Event = Struct.new(:kind, :times, :worth, :unit, keyword_init: true)
      # What was noted while it ran, from since_ms on: before that nobody took notes.
      #
      # slowest:: [Slow] the slowest first; troubles:: [Trouble] as they came
      Notes = Struct.new(:since_ms, :slowest, :troubles, keyword_init: true)
      Slow = Struct.new(:line, :at_ms, :took_ms, :who, :feed, :text, keyword_init: true)
      Trouble = Struct.new(:at_ms, :stage, :screen, :words, keyword_init: true)

      # Tells it.
      #
      #   sheet = Sheet.new(counted, notes)
      #   sheet.bars      # => [[at_ms, 41], …]
      #   sheet.to_h      # => a plain document
      class Sheet
        MINUTE_MS = 60_000
        MOST_BARS = 120
        BUSIEST = 5
        FORMAT = "bavard/report@1"

        attr_reader :counted, :notes

        # @param counted [Counted]
        # @param notes [Notes]
        def initialize(counted, notes)
          @counted = counted
          @notes = notes
        end

        # @return [Hash{Symbol => Integer}] lines, aired, kept_off, pulled over all feeds
        def totals = %i[lines aired kept_off pulled].to_h { |what| [what, counted.feeds.sum(&what)] }

        # @return [Integer] how many minutes one bar is of
        def bar_minutes = [(minutes.size / MOST_BARS.to_f).ceil, 1].max

        # @return [Array<Array(Integer, Integer)>] Unix milliseconds a bar begins at, and its lines; without gaps
        def bars
          minutes.each_slice(bar_minutes).map { |some| [some.first * MINUTE_MS, some.sum { |minute| counted.minutes.fetch(minute, 0) }] }
        end

        # @return [Array<Array(Integer, Integer)>] Unix milliseconds of a minute, and its lines; the busiest first, of the same the first
        def busiest
          counted.minutes.select { |_, lines| lines.positive? }.sort_by { |minute, lines| [-lines, minute] }.first(BUSIEST)
            .map { |minute, lines| [minute * MINUTE_MS, lines] }
        end

        # @return [Array<Array(String, Integer)>] rules by how much they kept off
        def rules = counted.rules.sort_by { |label, times| [-times, label] }

        # @return [Boolean] whether some of it went by before notes were taken
        def noted_late? = notes.since_ms > counted.from_ms

        # @return [Hash] a plain document, with times as ISO 8601 has them
        def to_h = {"format" => FORMAT, **counted_document, **noted_document}

        # @param event [Event]
        # @return [String, nil] what all of them were worth, in words
        def self.worth(event)
          return unless event.worth&.positive?

          (Amount.money(event.worth, event.unit) || Amount.new(event.worth, nil, event.unit)).words
        end

        private

        # From its first minute to its last.
        def minutes = ((counted.from_ms / MINUTE_MS)..([counted.to_ms - 1, counted.from_ms].max / MINUTE_MS)).to_a

        def counted_document
          {"from" => time(counted.from_ms), "to" => time(counted.to_ms), **totals.transform_keys(&:to_s), "people" => counted.people,
           "new_people" => counted.new_people, "feeds" => counted.feeds.map { |feed| feed.to_h.transform_keys(&:to_s) }, "rules" => rules.to_h,
           "minutes" => counted.minutes.sort.to_h { |minute, lines| [time(minute * MINUTE_MS), lines] },
           "events" => counted.events.map { |event| event_document(event) }}
        end

        def noted_document
          {"noted_since" => time([notes.since_ms, counted.from_ms].max), "slowest" => notes.slowest.map { |slow| slow_document(slow) },
           "troubles" => notes.troubles.map { |one| trouble_document(one) }}
        end

        def event_document(event)
          {"kind" => event.kind, "times" => event.times, "worth" => event.worth, "unit" => event.unit}.compact
        end

        def slow_document(slow)
          {"line" => slow.line, "at" => time(slow.at_ms), "took_ms" => slow.took_ms, "who" => slow.who, "feed" => slow.feed, "text" => slow.text}
        end

        def trouble_document(one) = {"at" => time(one.at_ms), "stage" => one.stage, "screen" => one.screen, "words" => one.words}
        def time(at_ms) = Time.at(at_ms/1000r).utc.strftime("%FT%T.%LZ")
      end
    end
  end
end
