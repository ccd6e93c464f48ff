# frozen_string_literal: true

module Bavard
  module Live
    # What the host's own pages are told about a running show: the signal line's figures, the feeds' lanes with the
    # lines as they come, the stages. At most four times a second.
    class DeskReport
      EVERY_MS = 250
      # Times and rates change by themselves.
      ANYWAY_MS = 2000
      MOST_LINES = 30
      TROUBLE = %i[waiting needs_you].freeze
      AWAY = "The database does not answer. What comes in is kept until it does; what is on screen goes on."
      LOST = "More comes in than can be written down: part of this show’s log is lost. What is on screen goes on."

      # @param show [Show]
      # @param means [Means]
      def initialize(show, means)
        @show = show
        @hub = means.hub
        @journal = means.journal
        @disk = means.disk
        @sent_at_ms = 0
        @lines = []
        @touched = true
      end

      # Something changed.
      def touch
        @touched = true
      end

      # @param card [Hash] of a line that came in
      def line(card, feed_id)
        @lines << [feed_id, card]
        @lines.shift if @lines.size > MOST_LINES
      end

      # @return [Integer] when {#flush} has something to say
      def due_ms
        @sent_at_ms + (@touched ? EVERY_MS : ANYWAY_MS)
      end

      # Tells the host’s pages how everything stands.
      def flush(now_ms)
        return if now_ms < due_ms

        report = whole(now_ms)
        drafts = @show.desks.values.map { |desk| desk.editor.news(whole: true) }
        edited = @show.desks.values.filter_map { |desk| desk.editor.news }
        @hub.deliver(@show.topic, @show.topic.frame({**report, lines: @lines, edited:}, -> { {**report, edited: drafts} }))
        @sent_at_ms = now_ms
        @lines = []
        @touched = false
      end

      private

      def whole(now_ms)
        feeds = @show.lanes.values.map { |lane| lane.report(now_ms) }
        stages = @show.desks.values.map { |desk| desk.report(now_ms) }
        {now: now_ms, figures: figures(feeds, stages, now_ms), feeds: feeds.map { |feed| report_of(feed) }, stages:,
         answers: @show.answers.report, gate: {**@show.lines.figures, **@show.gatehouse.report(now_ms)},
         trouble:, lead: @show.record.lead && @show.lead.report(now_ms), small_leads: @show.small_leads.report(now_ms)}
      end

      # @return [String, nil] what the host should know of what is kept
      def trouble
        return @disk.words if @disk.full?
        return AWAY if @journal.trouble

        return LOST if @journal.shedding.include?(@show.id)

        @disk.words
      end

      def report_of(feed) = feed.merge(lines: feed[:lines].dup, room: @show.voices.report(feed[:id])).compact

      def figures(feeds, stages, now_ms)
        {**@show.figures.at(now_ms), **in_all(feeds, stages), emotes: @show.wardrobe.size, held: @show.lines.held, brake: !@show.gatehouse.brake.nil?,
                                                              took: @show.screen_times.half(now_ms)}
      end

      def in_all(feeds, stages)
        {
          feeds: feeds.size, live: feeds.count { |feed| feed[:state] == :live }, rate: feeds.sum { |feed| feed[:rate] },
          trouble: feeds.count { |feed| TROUBLE.include?(feed[:state]) },
          waiting: stages.sum { |stage| stage[:changes].size }, screens: stages.sum { |stage| stage[:screens].size },
          on_air: stages.any? { |stage| stage[:revision].positive? && stage[:screens].any? }
        }
      end
    end
  end
end
