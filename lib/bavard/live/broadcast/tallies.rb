# frozen_string_literal: true

require_relative "../../core/cues/event"
require_relative "../../core/cues/standings"
require_relative "../../core/cues/tally"
require_relative "../../core/cues/totals"

module Bavard
  module Live
    # What happened in a running show, and who did it, since the broadcast, the day and the month began, and for ever. Belongs to its show's thread.
    class Tallies
      # Goals whose time is over.
      MOST_CLOSED = 50
      # Events of which it is remembered that they were their person's first.
      MOST_FIRSTS = 2000
      SPANS = %w[broadcast day month ever].freeze
      # Of which spans what was there already counts.
      EVER = "ever"
      NOTHING = {"totals" => {}, "told" => {}}.freeze

      attr_reader :began_ms, :places

      # What is asked for. counted:: of Core::Cues::Tally::COUNTED; unit:: of what is worth something; feeds:: ids, nil: of all chats
      Asked = Struct.new(:counted, :unit, :feeds) do
        # @param piece [Hash] a goal, or one that counts alike
        def self.by(piece)
          feeds = piece["feeds"].to_a.map(&:to_i)
          new(piece["counted"], piece["unit"], feeds.empty? ? nil : feeds)
        end

        # @param tally [Core::Cues::Tally]
        def of(tally) = tally.value(counted, unit, feeds:)
      end

      # @param store [Store::Tallies, nil]
      # @param began_ms [Integer] when the broadcast began
      # @param totals [Hash] the cue sheet's document, which has what was there already
      def initialize(show_id, store, now_ms, began_ms: nil, totals: NOTHING)
        @show_id = show_id
        @totals = totals
        @places = {}
        @store = store
        @began_ms = began_ms || beginning("day", now_ms)
        @tallies = SPANS.to_h { |span| [span, counted(span, now_ms)] }
        @standings = SPANS.to_h { |span| [span, stood(span, now_ms)] }
        @day = beginning("day", now_ms)
        @firsts = {}
      end

      # The broadcast begins, or began.
      #
      # @param began_ms [Integer]
      def begin(began_ms, now_ms)
        @began_ms = began_ms
        earlier = began_ms < now_ms
        @tallies["broadcast"] = earlier ? counted("broadcast", now_ms) : Core::Cues::Tally.new
        @standings["broadcast"] = earlier ? stood("broadcast", now_ms) : Core::Cues::Standings.new
      end

      # @param line [Core::Chat::Line] new, whatever the gate says of it
      # @return [Core::Cues::Event, nil] what happened
      def count(line)
        event = Core::Cues::Event.of(line, roles: []) or return
        note_first(line.id) unless standings("ever").known?(event.kind, event.login)
        [*@tallies.each_value, *@standings.each_value].each { |counted| counted.count(event) }
        event
      end

      # @param feed_ids [Array<Integer>]
      # @return [Integer] how often it was counted there since ever
      def on_feeds(feed_ids, counted) = @tallies.fetch(EVER).value(counted, feeds: feed_ids)

      # @return [Boolean] whether that was the first of its kind its person ever did, as far as Bavard knows
      def first?(line_id) = @firsts.key?(line_id)

      # @return [Core::Cues::Standings] of a span
      def standings(span) = @standings.fetch(span)

      # @return [Integer] from when on Bavard counted in a span: since ever from the first that it counted
      def counted_from(span, now_ms) = span == "ever" ? @standings["ever"].first_ms || now_ms : began(span, now_ms)

      # @return [Integer] when a span began
      def began(span, now_ms) = span == "broadcast" ? @began_ms : beginning(span, now_ms)

      # @param totals [Hash] the cue sheet's document
      def totals=(totals)
        @totals = totals
        @retold = retold + 1
      end

      # @return [Integer] another one whenever it was told anew what was there already
      def retold = @retold || 0

      # @param asked [Asked]
      # @return [Integer, Float] in whole units; since ever with what was there already
      def value(span, asked) = asked.of(@tallies.fetch(span)) + (span == EVER ? there(asked) : 0)

      # What was counted up to a moment that is over.
      #
      # @return [Integer, Float] as {#value}
      def value_until(span, asked, until_ms)
        tally = closed(began(span, until_ms), until_ms) || self[span]
        asked.of(tally) + (span == EVER ? there(asked) : 0)
      end

      # What was counted from a moment that is over until now, or until another that is over as well.
      #
      # @return [Integer, Float] in whole units, without what was there already
      def value_since(since_ms, asked, until_ms = nil)
        return asked.of(closed(since_ms, until_ms) || self[EVER]) if until_ms

        before = closed(0, since_ms)
        asked.of(self[EVER]) - (before ? asked.of(before) : 0)
      end

      # @return [Core::Cues::Tally] of a span
      def [](span) = @tallies.fetch(span)

      # @return [Object] another one whenever something was counted
      def revision = [@tallies["ever"].changes, @began_ms, @day, retold]

      # Somebody is forgotten, and in the log already.
      def erase(login, now_ms)
        @standings.each { |span, standings| standings.erase(login, @store ? @store.standing_of(@show_id, began(span, now_ms), login) : []) }
        @retold = retold + 1
      end

      # At midnight the day is another one.
      def advance(now_ms)
        day = beginning("day", now_ms)
        return if day == @day

        @day = day
        %w[day month].each do |span|
          @tallies[span] = counted(span, now_ms)
          @standings[span] = stood(span, now_ms)
        end
      end

      private

      # What came before a moment that is over never is another number: it is asked for once.
      #
      # @return [Core::Cues::Tally, nil]
      def closed(since_ms, until_ms)
        @closed ||= {}
        @closed.clear if @closed.size > MOST_CLOSED
        @closed[[since_ms, until_ms]] ||= @store&.since(@show_id, since_ms, until_ms:)
      end

      def there(asked) = Core::Cues::Totals.there(@totals, asked.counted, asked.feeds&.filter_map { |feed_id| places[feed_id] })

      def note_first(line_id)
        @firsts[line_id] = true
        @firsts.shift if @firsts.size > MOST_FIRSTS
      end

      def counted(span, now_ms)
        @store&.since(@show_id, began(span, now_ms)) || Core::Cues::Tally.new
      end

      def stood(span, now_ms)
        @store&.standings_since(@show_id, began(span, now_ms)) || Core::Cues::Standings.new
      end

      def beginning(span, now_ms)
        time = Time.at(now_ms / 1000)
        case span
        when "day" then Time.new(time.year, time.month, time.day).to_i * 1000
        when "month" then Time.new(time.year, time.month).to_i * 1000
        else 0
        end
      end
    end
  end
end
