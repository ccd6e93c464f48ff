# frozen_string_literal: true

require_relative "../../core/cues/sheet_edits"
require_relative "../../core/cues/tally"
require_relative "../../core/cues/totals"
require_relative "../part"
require_relative "goal_count"

module Bavard
  module Live
    # When a show's broadcast begins and ends, and how many of what there are in all.
    class Broadcast < Part
      # What is counted by the broadcast is counted from now on.
      #
      # @param noticed [String, nil] on which feed it was noticed; nil: the host says so
      # @param at_ms [Integer] where it began earlier, as when a mistake is taken back
      def begin_broadcast(noticed = nil, at_ms: now_ms)
        tallies.begin(at_ms, now_ms)
        @show.notes.begin_anew(at_ms) if at_ms >= now_ms
        cues.began_ms = at_ms
        desks.each_value { |desk| desk.begin_counting(again: at_ms < now_ms) }
        @show.use_cues(cues.document.merge("began_ms" => at_ms, "ended_ms" => nil, "noticed" => noticed))
      end

      # A small edit of the cue sheet, worked out on what there is now.
      #
      # @param edit [Symbol] of Core::Cues::SheetEdits
      # @raise [Bavard::Error] where it does not fit
      def edit_cues(edit, *given)
        @show.use_cues(Core::Cues::Settings.read(Core::Cues::SheetEdits.public_send(edit, cues.document, *given)))
      end

      # @param counted [String] of Core::Cues::Tally::COUNTED, but money
      # @param number [Integer] how many there are now, since ever
      # @return [Hash] as {#totals}
      def set_total(counted, number)
        use_totals(Core::Cues::Totals.typed(cues.document, counted, number, present: totals.fetch(counted)))
        totals
      end

      # A platform says how many there are of a chat in all. What was typed before stood for them as well.
      #
      # @param feed [Store::Feeds::Feed]
      # @param told [Hash{String => Integer}] by Core::TOTALS
      def told_totals(feed, told)
        return if feed.draft_only

        place = place_of(feed)
        come = told.to_h { |counted, _| [counted, tallies.on_feeds(feeds_at(place), counted)] }
        Core::Cues::Totals.from_platform(cues.document, place, told, come)&.then { |changed| use_totals(changed) }
      end

      # @return [Hash{String => Array<Array(String, Integer)>}] by what is counted, what each chat of this show told: its name, and how
      #   many there are now
      def told_now
        Core::TOTALS.to_h do |counted|
          [counted, lanes.each_value.filter_map { |lane| (number = told_of(lane.feed, counted)) && [lane.feed.name, number] }]
        end
      end

      # @param piece [Hash] a goal
      # @param added [Numeric] to it by cues
      # @return [Array(Numeric, Integer, Numeric)] how much came since it began to count, how long that is in milliseconds, and how much
      #   there is by now
      def pace_of(piece, added)
        count = GoalCount.new(piece, tallies, now_ms, now_ms)
        [count.come, now_ms - count.from_ms, count.value + added]
      end

      # @return [Hash{String => Integer}] how many there are in all, of what is no money
      def totals
        (Core::Cues::Tally::COUNTED.keys - Core::Cues::Tally::MONEY).to_h { |counted| [counted, tallies.value("ever", Tallies::Asked.new(counted)).to_i] }
      end

      # @param at_ms [Integer] as above
      def end_broadcast(at_ms: now_ms)
        @show.use_cues(cues.document.merge("ended_ms" => at_ms))
        desks.each_value { |desk| desk.begin_anew { |goal| over_with_it(goal) } }
      end

      # A feed that can tell says whether somebody broadcasts: the first to begin begins the broadcast, the last to end ends it.
      # What it was when Bavard connected tells nothing.
      #
      # @param before [Symbol] a FeedState's state
      # @param after [Symbol]
      def notice_broadcast(lane, before, after)
        case [before, after]
        when %i[nobody_broadcasting live]
          begin_broadcast(lane.feed.name) if cues.ended?
        when %i[live nobody_broadcasting]
          end_broadcast unless cues.ended? || on_air_elsewhere?(lane)
        end
      end

      # @param feeds [Array<Store::Feeds::Feed>] all there ever were
      def remember(feeds) = feeds.each { |feed| places[feed.id] = place_of(feed) }

      private

      # Of a goal that counts by the broadcast all of it is over at its end, though the next has not begun.
      def over_with_it(goal) = goal["since"] == "broadcast" ? GoalCount.new(goal, tallies, now_ms, now_ms).come : 0

      # @return [Hash{Integer => String}] by feed
      def places = tallies.places

      def place_of(feed)
        asks = @show.platforms[feed.platform]&.description&.asks || []
        Core::Cues::Totals.place(feed.platform || feed.kind, feed.address, asks.select(&:each_time).map(&:name))
      end

      # @return [Array<Integer>] ids of the feeds that were ever there
      def feeds_at(place)
        lanes.each_value { |lane| places[lane.id] = place_of(lane.feed) }
        places.select { |_, one| one == place }.keys
      end

      def told_of(feed, counted)
        place = place_of(feed)
        cues.document.dig("told", place, counted)&.then { |base| base + tallies.on_feeds(feeds_at(place), counted) }
      end

      def use_totals(changed)
        @show.use_cues(cues.document.merge(changed))
        tallies.totals = cues.document
      end

      # IRC tells only where its topic does, so that it counts for nothing here.
      def on_air_elsewhere?(lane)
        lanes.each_value.any? { |other| other != lane && other.state.state == :live && other.feed.kind != "irc" }
      end
    end
  end
end
