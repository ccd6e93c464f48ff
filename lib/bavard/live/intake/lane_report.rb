# frozen_string_literal: true

require_relative "../../core/gate/rules"
require_relative "../../core/contrast/name_colour"
require_relative "../lines/line_card"

module Bavard
  module Live
    # A lane as the Feeds page shows it: which feed, how it is, what came lately.
    class LaneReport
      # The worst that names stand on in the house's own screens: what is chosen or held.
      PANELS = {night: "#202a33", day: "#efe7d6"}.freeze
      # A gap is news for an hour.
      GAP_SHOWN_MS = 3_600_000

      # @param lane [FeedLane]
      # @param wardrobe [#call, nil] gives what lines wear
      def initialize(lane, wardrobe)
        @lane = lane
        @wardrobe = wardrobe
        @names = PANELS.transform_values { |ground| Core::Contrast::NameColour.new(ground) }
      end

      # @return [Hash]
      def at(now_ms)
        feed(@lane.feed).merge(state(@lane.state, now_ms), pace: @lane.pace.at(now_ms), rate: @lane.pace.rate(now_ms),
          thinned: @lane.thinned(now_ms), gap: fresh_gap(now_ms), lines: @lane.lines)
      end

      # @param kept [LineBook::Kept]
      # @return [Hash] a line's card, with what a lane says besides
      def card(kept)
        line = kept.line
        night, day = @names.values_at(:night, :day).map { |names| names.for(line.person.key, line.person.colour) }
        card = LineCard.of(line, night, @lane.mark, @wardrobe&.call)
        card[:day] = day
        card[:off] = Core::Gate::Rules.label(kept.verdict.rule) if kept.verdict.drop?
        card[:pulled] = true if kept.state.taken?
        card[:ed] = true if line.edited
        card
      end

      private

      def feed(feed)
        {id: feed.id, name: feed.name, kind: feed.kind, mark: @lane.mark, words: @lane.kind.words(feed), wanted: feed.wanted,
         draft_only: feed.draft_only, answers: @lane.answers?, lacks: @lane.lacks,
         account: account(feed.permission), consent: !@lane.platform&.consent.nil?,
         sets: sets?,
         platform: feed.platform, rooms: !description&.rooms.nil?, address: feed.address.slice("room", "follow", "written"), asks: asks(feed)}
      end

      def description = @lane.platform&.description

      def sets? = !description.nil? && description.sets.any?

      # What can be said otherwise of where it reads; rooms are chosen from a list.
      def asks(feed)
        return if description.nil? || description.irc? || description.rooms

        description.asks.map do |ask|
          {field: Feeds::Described.field(@lane.platform, ask), label: ask.label, example: ask.example, each: ask.each_time, value: feed.address[ask.name]}
        end
      end

      def state(state, now_ms)
        {state: state.state, want: state.want, reason: state.reason, since: state.since_ms,
         retry_in: state.retry_at_ms && [state.retry_at_ms - now_ms, 0].max}
      end

      # Which account it is connected with, what that may do, and since when.
      def account(permission)
        {name: permission.name, login: permission.account, may: permission.may, since: permission.since_ms} if permission
      end

      def fresh_gap(now_ms)
        gap = @lane.gap
        gap if gap && now_ms - gap.last < GAP_SHOWN_MS
      end
    end
  end
end
