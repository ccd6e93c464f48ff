# frozen_string_literal: true

require_relative "../../core/chat/platform_clock"
require_relative "../../core/intake"
require_relative "../../feeds/outbox"
require_relative "../../feeds/resume"
require_relative "../../feeds/runner"
require_relative "feed_kinds"
require_relative "lane_report"
require_relative "pace_trace"
require_relative "taken_before"

module Bavard
  module Live
    # One feed of a running show: what keeps it connected, its state, its newest lines. Belongs to its show's thread.
    class FeedLane
      SEEN_IDS = 4000
      SHOWN_LINES = 6
      KEEP_HEARD_EVERY_MS = 2000
      # Before it is connected, as when it came with a show that was brought.
      NOT_YET = Core::FeedState.new(:off, "Not connected yet.", nil, nil).freeze
      BY_YOU = "Disconnected by you."
      # States in which a line can be sent.
      SPEAKS = %i[live nobody_broadcasting].freeze
      NOT_CONNECTED = "This feed is not connected just now."

      SAID = %i[line event edit_line delete_line clear_person clear_all gap].freeze
      # Connections whose last words may still be on their way.
      MOST_EARLIER = 8
      # What one connection had heard by then, and from where it goes on.
      Heard = Struct.new(:lane, :runner, :at_ms, :cursor)

      attr_reader :feed, :state, :gap, :pace, :runner
      # @return [Object, nil] by which it listens now; read by those who come to us, from threads of theirs
      attr_reader :connection

      # @param feed [Store::Feeds::Feed]
      # @param keeping [FeedKeeping]
      # @param ways [FeedWays]
      # @param mishaps [Mishaps]
      # @param send [#call] takes [lane, runner, intake] into the show's mailbox
      # @param entries [Array<LineBook::Kept>] this feed's newest
      # @param seen [Array<String>] platform ids that count as known
      # @param wardrobe [#call] gives what lines wear
      def initialize(feed, keeping:, ways:, mishaps:, send:, entries: [], seen: [], wardrobe: nil)
        @feed = feed
        @keeping = keeping
        @ways = ways
        @mishaps = mishaps
        @send = send
        @state = feed.heard_at_ms ? Core::FeedState.new(:off, BY_YOU, nil, nil) : NOT_YET
        @gap = feed.gap
        @pace = PaceTrace.new
        @thinned = PaceTrace.new
        @seen = seen.to_h { |id| [id, true] }
        @last_id = seen.last
        @noted = []
        @earlier = []
        @platform_clock = Core::Chat::PlatformClock.new
        @cursor = feed.cursor
        @outbox = Feeds::Outbox.new
        @wardrobe = wardrobe
        @report = LaneReport.new(self, wardrobe)
        go_on(entries)
      end

      def id = feed.id
      def mark = [feed.shape, feed.colour]

      # Begins to listen, anew where it listens already. What was read by then counts: nobody tells it again.
      def connect
        hush
        runner = nil
        runner = Feeds::Runner.new(feed_id: id, connect: -> { open_connection(runner) }, clock:,
          take: ->(intake) { @send.call(self, runner, intake) }, fault: method(:fault))
        @runner = runner
        runner.start
      end

      # Asks its connection to end: what was said there by then counts, and how it ended does not.
      def hush
        @runner&.halt
        @earlier = [*@earlier, @runner].compact.last(MOST_EARLIER)
        @runner = nil
      end

      # Its thread ended for something that nobody foresaw.
      def fault(error)
        @mishaps.fault(:feed, "feed #{id}: begun anew", error)
      end

      # Connected again where it is wanted, so that what has changed counts.
      def reconnect
        connect if feed.wanted
      end

      # Listens no more.
      def disconnect
        leave
        @state = Core::FeedState.new(:off, BY_YOU, clock.call, nil)
      end

      # @return [Boolean] whether it is by this one that it listens
      def current?(runner)
        @runner.equal?(runner)
      end

      # @param kind [Symbol] of an intake
      # @return [Boolean] of an earlier connection, what was said there counts, and not how it fared
      def counts?(runner, kind)
        current?(runner) || (SAID.include?(kind) && @earlier.any? { |one| one.equal?(runner) })
      end

      # @param state [Core::FeedState] what has become of its connection
      def enter(state)
        since_ms = @state.state == state.state ? @state.since_ms : state.since_ms
        @state = Core::FeedState.new(state.state, state.reason, since_ms, state.retry_at_ms, state.want)
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

      # One of its lines did not go on the picture: it brings more than anybody can read.
      def thin(at_ms) = @thinned.count(at_ms)

      # @return [Integer] so many in the last minute
      def thinned(now_ms) = @thinned.rate(now_ms)

      # @return [Boolean] whether a line with this platform id was there
      def seen?(platform_id) = @seen.key?(platform_id)

      # @return [TakenBefore] what was taken away before it came
      def taken_before = @taken_before ||= TakenBefore.new

      # @param kept [LineBook::Kept] that came
      def note(kept)
        @platform_clock.heard(kept.line) if kept.line.platform_time_ms
        @pace.count(kept.line.arrived_at_ms)
        @noted << kept
        @noted.shift if @noted.size > SHOWN_LINES
      end

      # @return [Integer, nil] when anything was heard last
      def heard_at_ms = @connection&.heard_at_ms || @heard_at_ms

      # @return [Integer, nil] milliseconds that its platform's clock is behind ours; nil where nobody knows
      def clock_behind_ms = @platform_clock.behind_ms

      # @return [#cut, nil] emotes there are now
      def emotes = @wardrobe&.call&.emotes

      # @param kept [LineBook::Kept]
      # @return [Hash]
      def card(kept) = @report.card(kept)

      # @return [Array<Hash>] cards of the newest
      # @return [Boolean] whether anything came lately
      def heard? = @noted.any?

      def lines = @noted.map { |kept| card(kept) }

      # The newest lines, with the emotes there are now.
      def dress(emotes)
        @noted.each { |kept| kept.line.dress(emotes) }
      end

      # @param gap [Core::Gap] a time of which nothing can be heard any more
      def miss(gap)
        @gap = [gap.from_ms, gap.to_ms]
        @keeping.missed(feed, *@gap)
      end

      # Now and then, until when this feed was heard, for what is missed is counted from there. It counts once everything that it covers
      # has been taken in, so it goes the same way, behind that.
      #
      # @return [Heard, nil]
      def heard_so_far(now_ms)
        heard = @connection&.heard_at_ms
        return unless heard && @connection.joined? && (@kept_heard_at_ms.nil? || now_ms - @kept_heard_at_ms >= KEEP_HEARD_EVERY_MS)

        @kept_heard_at_ms = now_ms
        Heard.new(self, @runner, heard, @connection.cursor.dup)
      end

      # @param heard [Heard]
      def keep_heard(heard)
        return unless current?(heard.runner)

        @heard_at_ms = heard.at_ms
        @cursor = heard.cursor
        @keeping.heard(feed, heard.at_ms, @cursor || {})
      end

      # Another place is read from now on: there is nothing in it where one could go on.
      def readdress(address)
        feed.address = address
        leave
        @last_id = @heard_at_ms = @cursor = nil
        @keeping.readdressed(feed)
      end

      # @param permission [Core::Permission, nil]
      def permission=(permission)
        feed.permission = permission
        @keeping.permitted(feed)
      end

      def draft_only=(alone)
        feed.draft_only = alone
        @keeping.draft_only(feed)
      end

      # @return [Boolean] whether lines can be sent there
      def answers? = kind.answers?(feed) && !permission_over?

      # @return [String, nil] what has to be given before lines can be sent there: "permission", or that "again" once it was taken back
      def lacks
        return if answers? || platform&.consent.nil?

        permission_over? ? "again" : "permission"
      end

      # Sends a line of the host's, now or never: one that waits for a connection would come when nobody expects it.
      #
      # @return [Core::Answered, nil] where it cannot go
      def say(answer_id, text)
        return not_sent(answer_id) unless SPEAKS.include?(state.state)

        @outbox.put(answer_id, text)
        nil
      end

      # Asks its platform about somebody; what it says comes as an intake.
      #
      # @return [Boolean] whether it can be asked
      def ask_about(login)
        return false unless platform&.description&.tells_of_people? && SPEAKS.include?(state.state)

        @outbox.ask(login)
        true
      end

      def kind = FEED_KINDS.fetch(feed.kind)

      # @return [Hash] for the Feeds page
      def report(now_ms) = @report.at(now_ms)

      def platform = @ways.platform(feed)

      private

      def clock = @ways.clock

      # From where it was left off. The machine's clock may have been set meanwhile: what was told by the one of before counts by ours.
      def go_on(entries)
        entries.each { |kept| note(kept) }
        ahead_ms = clock.ahead_of(feed.heard_mark)
        @heard_at_ms = [feed.heard_at_ms, entries.last&.line&.arrived_at_ms].compact.max&.+(ahead_ms)
        @platform_clock.set(ahead_ms)
      end

      # What is still on its way from there does not count.
      def leave
        @runner&.halt
        @runner = @connection = nil
        @earlier = []
      end

      # Called in the runner's thread.
      def open_connection(runner)
        @outbox.take.each { |letter| @send.call(self, runner, Core::Intake.new(:answered, id, nil, nil, clock.call, not_sent(letter.answer_id))) }
        resume = Feeds::Resume.new(@last_id, heard_at_ms, resume_cursor, clock_behind_ms)
        options = {clock:, take: ->(intake) { @send.call(self, runner, intake) }, reject: ->(what) { @mishaps.rejected(feed.kind.to_sym, what) },
                   outbox: @outbox}
        way = @ways.to(feed) { |newer| keep_permission(newer) }
        @connection = kind.connection(feed, resume, **options, **way)
      end

      def resume_cursor
        cursor = @connection ? @connection.cursor : @cursor
        cursor if cursor && !cursor.empty?
      end

      def permission_over? = !feed.permission.nil? && state.want == :permission

      def not_sent(answer_id) = Core::Answered.new(answer_id, false, NOT_CONNECTED)

      def keep_permission(newer)
        feed.permission = newer
        @keeping.renewed(newer)
      end
    end
  end
end
