# frozen_string_literal: true

require_relative "../../core/lead/steps"
require_relative "../../core/pieces/outfit"
require_relative "../part"
require_relative "../pictures/backdrops"

module Bavard
  module Live
    # A new show's way to its first line on the picture: what of it was seen to work, and what comes next. Once done, or where a show never
    # had one, it says nothing. Belongs to its show's thread.
    class Lead < Part
      Steps = Core::Lead::Steps

      # @param now_ms [Integer]
      # @return [Hash, nil] left: whether somebody put it aside; stage: which stage it is about, or nil; since: when it began; steps
      def report(now_ms)
        return unless record.lead
        return {left: true} if record.lead["left"]

        facts = facts(now_ms)
        keep_done(facts, now_ms)
        {left: false, since: record.lead["began_ms"], stage: desk&.id, wears: draft["outfit"],
         quiet: Steps.quiet?(facts), steps: Steps.of(facts, done).map(&:to_h), last:}.compact
      end

      # @param line [ScreenTimes::Time] that a screen painted
      def painted(line)
        return if record.lead.nil? || line.line.person.roles.include?("host")

        @painted = line
      end

      # Put aside, or taken up again.
      def left=(wanted)
        keep("left" => wanted) if record.lead
      end

      # It is seen that all of it is done, and does not come again.
      def finish
        return unless record.lead

        raise Error, "There is still something to be seen." unless Steps::TITLES.keys.all? { |key| done.key?(key) }

        record.lead = nil
        journal.deed(:shows, :keep_lead, id, nil)
      end

      private

      def done = record.lead.fetch("done", {})

      def keep(values)
        record.lead = record.lead.merge(values)
        journal.deed(:shows, :keep_lead, id, record.lead)
      end

      def keep_done(facts, now_ms)
        keep("began_ms" => now_ms) unless record.lead["began_ms"]
        fresh = Steps::TITLES.keys.reject { |key| done.key?(key) }.select { |key| Steps.seen?(key, facts) }
        keep("done" => done.merge(fresh.to_h { |key| [key, now_ms] })) if fresh.any?
      end

      # The first that there is.
      def desk = desks.values.first
      def draft = desk ? desk.stage.draft : {}

      def facts(now_ms)
        Steps::Facts.new(**chat(now_ms), picture: picture, outfit: outfit, revision: revision,
          screens: screens(now_ms), painted: @painted && said(@painted))
      end

      # What is on air may wear another one, or none.
      def revision = desk&.stage&.on_air && desk.stage.on_air["outfit"] == draft["outfit"] ? desk.stage.revision : 0

      def screens(now_ms) = desk ? desk.screens.cards(desk.stage.on_air || draft, desk.stage.revision, now_ms) : []

      def chat(now_ms)
        heard = lines.to_a.select { |kept| kept.line.origin == :feed }
        last = heard.last&.line
        {feeds: lanes.size, live: lanes.each_value.count { |lane| lane.state.state == :live }, lines: heard.size,
         last_ms: last && [now_ms - last.arrived_at_ms, 0].max, last_from: last && name_of(last)}
      end

      def name_of(line) = lanes[line.feed_id]&.feed&.name || "A chat"

      def picture
        key = desk&.stage&.backdrop
        return if key.nil? || key == "none"

        Backdrops::SHIPPED.fetch(key, "Your own picture")
      end

      def outfit = Core::Pieces::Outfit.shipped[draft["outfit"]]&.name
      def said(time) = Steps::Painted.new(time.line.person.display_name, name_of(time.line), time.took_ms)

      # @return [Hash, nil] of the newest line that a screen painted
      def last = @show.screen_times.last&.then { |time| {took: time.took_ms, from: name_of(time.line)} }
    end
  end
end
