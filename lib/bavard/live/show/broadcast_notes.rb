# frozen_string_literal: true

require_relative "../../core/report/report"
require_relative "../part"

module Bavard
  module Live
    # What is noted while a broadcast runs and stands in no log: its slowest lines, and what its screens had trouble with. Belongs to its
    # show's thread.
    class BroadcastNotes < Part
      SLOWEST = 10
      # A stranger with a link may open and close it all day.
      MOST_TROUBLES = 200
      LONGEST_TEXT = 120
      Core = Bavard::Core

      def initialize(show)
        super
        begin_anew(now_ms)
      end

      # From now on.
      def begin_anew(at_ms)
        @since_ms = at_ms
        @slowest = []
        @troubles = []
        @told = {}
      end

      # @param time [ScreenTimes::Time]
      def painted(time)
        return if @slowest.size >= SLOWEST && time.took_ms <= @slowest.last.took_ms

        @slowest = (@slowest << time).sort_by { |one| -one.took_ms }.first(SLOWEST)
      end

      # A screen has said something of itself.
      #
      # @param screen [Screen]
      def heard(desk, screen)
        troubles(desk, screen).each { |words| note(desk, screen, words) }
      end

      # @param screen [Screen] that is gone
      def closed(desk, screen)
        note(desk, screen, "closed", always: true)
        @told.delete(screen.id)
      end

      # @return [Core::Report::Notes]
      def report
        Core::Report::Notes.new(since_ms: @since_ms, slowest: @slowest.map { |time| slow(time) }, troubles: @troubles.dup)
      end

      private

      def troubles(desk, screen)
        card = screen.card(desk.stage.on_air || desk.stage.draft, desk.stage.revision, now_ms)
        said = {card[:words] => card[:drawn] && !card[:right], "has no #{card[:missing].join(", ")}" => card[:missing].any?,
                "does not understand #{card[:not_understood].join(", ")}" => card[:not_understood].any?, "could not play a sound" => screen.silent}
        said.select { |_, so| so }.keys
      end

      # Once of each screen, however often it says so.
      def note(desk, screen, words, always: false)
        told = @told[screen.id] ||= {}
        return if told[words] && !always

        told[words] = true
        @troubles << Core::Report::Trouble.new(at_ms: now_ms, stage: desk.stage.name, screen: screen.words, words:)
        @troubles.shift if @troubles.size > MOST_TROUBLES
      end

      def slow(time)
        line = time.line
        Core::Report::Slow.new(line: line.id, at_ms: time.at_ms, took_ms: time.took_ms, who: line.person.display_name,
          feed: lanes[line.feed_id]&.feed&.name || "gone", text: line.text[0, LONGEST_TEXT])
      end
    end
  end
end
