# frozen_string_literal: true

require_relative "../core/gate/ladder"
require_relative "../core/intake"
require_relative "../core/look/name_colour"
require_relative "../feeds/irc"
require_relative "../feeds/runner"
require_relative "line_card"
require_relative "pace_trace"

module Bavard
  module Live
    # One feed of a running show: what keeps it connected, its state, its newest lines. Belongs to its show's thread.
    class FeedLane
      KINDS = {Feeds::Irc::KIND => Feeds::Irc}.freeze
      SEEN_IDS = 4000
      SHOWN_LINES = 6
      KEEP_HEARD_EVERY_MS = 2000
      # A gap is news for an hour.
      GAP_SHOWN_MS = 3_600_000
      # What names stand on in the house's own screens.
      PANELS = {night: "#171e25", day: "#faf7f0"}.freeze
      OFF = Core::FeedState.new(:off, "Disconnected by you.", nil, nil).freeze

      attr_reader :feed, :state, :gap, :pace, :lines

      # @param feed [Store::Feeds::Feed]
      # @param house [House]
      # @param send [#call] takes [lane, runner, intake] into the show's mailbox
      # @param entries [Array<Store::Lines::Entry>] this feed's newest
      # @param seen [Array<String>] platform ids that count as known
      def initialize(feed, house, send:, entries: [], seen: [])
        @feed = feed
        @house = house
        @send = send
        @state = OFF
        @gap = feed.gap
        @pace = PaceTrace.new
        @seen = seen.to_h { |id| [id, true] }
        @last_id = seen.last
        @heard_at_ms = [feed.heard_at_ms, entries.last&.line&.arrived_at_ms].compact.max
        @lines = []
        @names = PANELS.transform_values { |ground| Core::Look::NameColour.new(ground) }
        entries.each { |entry| note(entry.line, entry.verdict, pulled: entry.pulled) }
      end

      def id = feed.id
      def mark = [feed.shape, feed.colour]

      def connect
        @runner&.halt
        runner = nil
        runner = Feeds::Runner.new(feed_id: id, connect: -> { open_connection(runner) }, clock: @house.clock,
          take: ->(intake) { @send.call(self, runner, intake) })
        @runner = runner
        runner.start
      end

      def disconnect
        @runner&.halt
        @runner = nil
        @connection = nil
        @state = Core::FeedState.new(:off, "Disconnected by you.", @house.clock.call, nil)
      end

      # What an earlier connection still had to say does not count.
      def current?(runner)
        @runner.equal?(runner)
      end

      def enter(state)
        since_ms = @state.state == state.state ? @state.since_ms : state.since_ms
        @state = Core::FeedState.new(state.state, state.reason, since_ms, state.retry_at_ms)
      end

      # @return [Boolean] false where this platform id was there before
      def new?(platform_id)
        return true unless platform_id
        return false if @seen.key?(platform_id)

        @last_id = platform_id
        @seen[platform_id] = true
        @seen.shift if @seen.size > SEEN_IDS
        true
      end

      def note(line, verdict, pulled: false)
        @pace.count(line.arrived_at_ms)
        night, day = @names.values_at(:night, :day).map { |names| names.for(line.person.key, line.person.colour) }
        card = LineCard.of(line, night, mark)
        card[:day] = day
        card[:off] = Core::Gate::Ladder::LABELS.fetch(verdict.rule, verdict.rule) unless verdict.pass?
        card[:pulled] = true if pulled
        card[:p] = line.platform_id
        card[:l] = line.person.login
        @lines << card
        @lines.shift if @lines.size > SHOWN_LINES
        card
      end

      # @return [Boolean] whether one of the newest lines was it
      def pull_where
        @lines.map { |card| card[:pulled] = true if yield(card) }.any?
      end

      def miss(gap)
        @gap = [gap.from_ms, gap.to_ms]
        @house.journal.later { @house.feeds.keep_gap(id, *@gap) }
      end

      # Remembers, now and then, until when this feed was heard, for what is missed is counted from there.
      def keep_heard(now_ms)
        heard = @connection&.heard_at_ms
        return unless heard && @connection.joined? && (@kept_heard_at_ms.nil? || now_ms - @kept_heard_at_ms >= KEEP_HEARD_EVERY_MS)

        @kept_heard_at_ms = now_ms
        @heard_at_ms = heard
        @house.journal.later { @house.feeds.keep(id, heard_at_ms: heard) }
      end

      # @return [Hash] for the Feeds page
      def report(now_ms)
        {id:, name: feed.name, mark:, words: KINDS.fetch(feed.kind).words(feed), wanted: feed.wanted, state: state.state,
         reason: state.reason, since: state.since_ms, retry_in: state.retry_at_ms && [state.retry_at_ms - now_ms, 0].max,
         pace: pace.at(now_ms), rate: pace.rate(now_ms), gap: fresh_gap(now_ms), lines:}
      end

      private

      def fresh_gap(now_ms)
        gap if gap && now_ms - gap.last < GAP_SHOWN_MS
      end

      # Called in the runner's thread.
      def open_connection(runner)
        resume = Feeds::Irc::Session::Resume.new(@last_id, @connection&.heard_at_ms || @heard_at_ms)
        @connection = KINDS.fetch(feed.kind).connection(feed, resume, clock: @house.clock,
          take: ->(intake) { @send.call(self, runner, intake) }, reject: ->(what) { @house.reject(:irc, what) })
      end
    end
  end
end
