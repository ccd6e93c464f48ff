# frozen_string_literal: true

require_relative "../../error"
require_relative "feed_keeping"
require_relative "feed_lane"
require_relative "feed_ways"
require_relative "known_platforms"
require_relative "../part"

module Bavard
  module Live
    # What pages ask of a show about its feeds. For use inside {Show#ask} only, but for {#hand_in}.
    class FeedDoor < Part
      # Other threads read it too: it is never changed, but another one.
      #
      # @return [Hash{Integer => FeedLane}]
      attr_reader :lanes
      # @return [KnownPlatforms] may be asked from other threads
      attr_reader :platforms

      # @param means [Means] what lanes are made with
      # @param take_in [#call] told of what a lane's connection brings, from a thread of its own
      def initialize(show, means, take_in)
        super(show)
        @known = means.stores.lines
        @keeping = FeedKeeping.new(means.journal, means.stores, means.clock)
        @platforms = KnownPlatforms.new(means.platforms, means.door)
        @ways = FeedWays.new(@platforms, means.door, means.clock)
        @take_in = take_in
        @lanes = {}.freeze
      end

      # @param described [Array<Store::Descriptions::Kept>] platforms that the host described
      # @param feeds [Array<Store::Feeds::Feed>]
      # @param said [Array<LineBook::Kept>] lines of all of them, oldest first
      def load(feeds, said, described = [])
        @platforms.own = described
        @lanes = feeds.to_h do |feed|
          seen = @known.recent_platform_ids(feed.id, FeedLane::SEEN_IDS)
          [feed.id, lane_with(feed, entries: said.select { |kept| kept.lane_id == feed.id }, seen:)]
        end.freeze
      end

      # What the host describes is another. Feeds that are read by it begin anew; those whose description cannot be used say so.
      #
      # @param descriptions [Array<Store::Descriptions::Kept>]
      def describe(descriptions)
        before = @platforms.all
        @platforms.own = descriptions
        changed = lanes.each_value.select { |lane| lane.feed.platform&.start_with?(Feeds::Platform::OWN) }
        changed.reject! { |lane| before[lane.feed.platform].equal?(@platforms[lane.feed.platform]) }
        changed.each do |lane|
          expect_badges(lane)
          lane.reconnect
        end
      end

      # A show that was only just started has found the feed in the database already.
      def add_feed(feed)
        lanes[feed.id]&.disconnect
        lane = lane_with(feed)
        @lanes = lanes.merge(feed.id => lane).freeze
        lane.connect if feed.wanted
      end

      # It is heard no more, and its lines stay.
      def remove_feed(feed_id)
        lanes[feed_id]&.disconnect
        @lanes = lanes.except(feed_id).freeze
        voices.forget(feed_id)
        at_ms = now_ms
        journal.deed(:feeds, :remove, feed_id, at_ms)
      end

      # @param wanted [Boolean] whether it is to be connected
      # @raise [Bavard::Gone]
      def want_feed(feed_id, wanted)
        lane = lane(feed_id)
        lane.feed.wanted = wanted
        journal.deed(:feeds, :keep, feed_id, wanted:)
        wanted ? lane.connect : lane.disconnect
        voices.lost(lane, now_ms) unless wanted
      end

      # @param mapping [Hash] which tags of its lines mean what
      # @raise [Bavard::Gone]
      def map_feed(feed_id, mapping)
        lane = lane(feed_id)
        lane.feed.mapping = mapping
        journal.deed(:feeds, :keep, feed_id, mapping:)
        lane.connect if lane.feed.wanted
      end

      # Reads another place, or with another permission, from now on.
      #
      # @yieldparam lane [FeedLane]
      def change_feed(feed_id)
        lane(feed_id).tap { |lane| yield lane }.reconnect
      end

      # Sends a line of the host's on some feeds; how it went is told in the desk report.
      #
      # @return [Integer] the answer's id
      def send_answer(text, feed_ids)
        raise Error.new("Choose at least one chat to answer in.", field: "feeds") if feed_ids.empty?

        chosen = feed_ids.uniq.map { |feed_id| lane(feed_id) }
        @show.answers.begin(text, chosen.map(&:id), now_ms).tap do |answer_id|
          chosen.each { |lane| lane.say(answer_id, text)&.then { |answered| @show.answers.came(lane.id, answered) } }
        end
      end

      # @return [FeedLane]
      # @raise [Bavard::Gone]
      def lane(feed_id)
        lanes[feed_id] || raise(Gone.new("That feed is no longer there.", field: "feed", value: feed_id))
      end

      private

      def lane_with(feed, **more)
        FeedLane.new(feed, keeping: @keeping, ways: @ways, mishaps: @show.mishaps, send: @take_in, wardrobe: -> { wardrobe }, **more)
          .tap { |lane| expect_badges(lane) }
      end

      def expect_badges(lane) = lane.platform&.description&.then { |description| wardrobe.expect_badges(lane.id, description.badges) }
    end
  end
end
