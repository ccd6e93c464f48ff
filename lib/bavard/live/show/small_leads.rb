# frozen_string_literal: true

require_relative "../../core/lead/small_steps"
require_relative "../../core/pieces/pieces"
require_relative "../../core/stage/document"
require_relative "../../error"
require_relative "../part"

module Bavard
  module Live
    # A show's ways to a second platform, voices, alerts and somebody who helps: what of them was seen, which is kept. Belongs to its show's
    # thread.
    class SmallLeads < Part
      Steps = Core::Lead::SmallSteps
      SHOW_VOICES = (Core::Pieces::VOICED - %w[room_card]).freeze

      def initialize(show)
        super
        @painted = {}
      end

      # @return [Hash{String => Hash}] those that are not over: title, steps; none as long as the first way is gone
      def report(now_ms)
        return {} if record.lead && !record.lead["left"]

        open = Steps::LEADS.reject { |key, _| over?(key) }
        return {} if open.empty?

        facts = facts()
        open.to_h { |key, (title, _)| [key, {title:, steps: seen(key, facts, now_ms).map(&:to_h)}] }
      end

      # @param time [ScreenTimes::Time] of a line that a screen painted
      def painted(time)
        @painted[time.line.feed_id] = true
      end

      # @param title [String] of a cue that begins to play on air
      def played(title)
        @played = title if shown?(["alerts"])
      end

      # @param deed [Core::Moderation::Deed] that somebody did
      def deed(deed)
        case deed.what
        when "invite" then @invited = deed.about
        when "join" then @joined = deed.by
        when "pull" then @pulled = deed.by if helped?(deed)
        end
      end

      # It is seen that it is over, and does not come again.
      def finish(key)
        raise Error, "There is no such way." unless Steps::LEADS.key?(key)
        raise Error, "There is still something to be seen." unless Steps::LEADS.fetch(key).last.keys.all? { |step| done(key).key?(step) }

        keep(key, {"over" => true})
      end

      private

      def over?(key) = record.small_leads.dig(key, "over") == true
      def done(key) = record.small_leads.dig(key, "done") || {}

      def keep(key, values)
        record.small_leads = record.small_leads.merge(key => values)
        journal.deed(:shows, :keep_small_leads, id, record.small_leads)
      end

      def seen(key, facts, now_ms)
        steps = Steps.of(key, facts, done(key))
        fresh = steps.select { |step| step.state == "done" && !done(key).key?(step.key) }
        keep(key, {"done" => done(key).merge(fresh.to_h { |step| [step.key, now_ms] })}) if fresh.any?
        steps
      end

      def facts
        @talked = talker || @talked if shown?(SHOW_VOICES)
        Steps::Facts.new(chats: lanes.each_value.map { |lane| chat(lane) }, rooms:, voices_on: on_air(SHOW_VOICES), alerts_on: on_air(["alerts"]),
          talked: @talked, played: @played, invited: @invited, joined: @joined, pulled: @pulled)
      end

      # In which somebody is.
      def rooms = voices.rooms.each_value.select { |room| room.size.positive? }.map { |room| room.card.name }

      # Somebody else than the host took a line off the picture.
      def helped?(deed) = deed.by != record.host_name && deed.detail["was"].to_s == "aired" && desks.each_value.any? { |desk| screens?(desk) }

      def chat(lane)
        Steps::Chat.new(lane.feed.name, lane.feed.platform || lane.feed.kind, lane.state.state == :live, lane.heard?, @painted.key?(lane.id))
      end

      def talker
        lane_id, member = voices.rooms.lazy.flat_map { |lane_id, room| room.members.select(&:talks?).map { |one| [lane_id, one] } }.first
        member && (voices.worn(lane_id, member.key)&.short || member.name)
      end

      def shows?(desk, kinds) = desk.stage.on_air && desk.stage.on_air["pieces"].any? { |piece| kinds.include?(piece["kind"]) && !piece["hidden"] }
      def screens?(desk) = desk.screens.all.any?
      def shown?(kinds) = desks.each_value.any? { |desk| screens?(desk) && shows?(desk, kinds) }
      def on_air(kinds) = desks.each_value.select { |desk| shows?(desk, kinds) }.map { |desk| desk.stage.name }
    end
  end
end
