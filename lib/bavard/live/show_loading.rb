# frozen_string_literal: true

require_relative "../core/chat/timeline"
require_relative "cue_desk"
require_relative "feed_lane"
require_relative "gatehouse"
require_relative "prompter_desk"
require_relative "shout_outs"
require_relative "sounding"
require_relative "tallies"
require_relative "voices"

module Bavard
  module Live
    # How a show begins where it left off: from what is kept to what was held, shown, pinned and counted. Part of {Show}.
    module ShowLoading
      REMEMBERED_LINES = 2000
      HOUR_MS = 3_600_000
      SCREENS_BACK_MS = 2000

      private

      def dress_show
        dress_cues
        @voices = Voices.new(id, @house, @house.cast&.of_show(id) || [])
      end

      def dress_cues
        kept = record.cues
        @cues = CueDesk.new(kept, feed_name: ->(feed_id) { lanes[feed_id]&.feed&.name })
        @cues.began_ms = kept["began_ms"]
        @tallies = Tallies.new(id, @house.tallies, now_ms, began_ms: kept["began_ms"],
          totals: Core::Cues::Settings.all_totals(kept))
        all = -> { @desks.values }
        @sounding = Sounding.new(@house.hub, all)
        @shout_outs = ShoutOuts.new(@house.fellows&.of_show(id) || [], self, Sounding.new(@house.hub, all, :shouts?))
      end

      def load
        @gatehouse = made_gatehouse
        entries = @house.lines.latest(id, REMEMBERED_LINES).each { |entry| said_before(entry.line.dress(wardrobe.emotes)) }
        recount
        load_feeds(entries)
        load_desks(entries.select { |entry| entry.aired || (entry.verdict.pass? && !entry.held) })
        load_prompter(entries)
        load_held(entries)
      end

      # What the log has was said before now. Where the clock was set back meanwhile it says otherwise, and what comes next would have to
      # wait until the clock has caught up.
      def said_before(line) = line.shown_at_ms = [line.shown_at_ms, now_ms].min

      def load_feeds(entries)
        @lanes = @house.feeds.of_show(id).to_h { |feed| [feed.id, lane_with(feed, entries)] }
        @house.feeds.all_of_show(id).each { |feed| places[feed.id] = place_of(feed) }
      end

      def made_gatehouse
        Gatehouse.new(record.gate, left_out: @house.left_out.of_show(id, now_ms), first_seen: @house.known.first_seen(id))
      end

      # What stood on the stages, as it was shown there.
      def load_desks(passed)
        passed = passed.map { |entry| shown(entry) }.sort_by { |entry| [entry.line.shown_at_ms, entry.line.id] }.last(Core::Chat::Timeline::REMEMBERED)
        @desks = @house.stages.of_show(id).to_h { |stage| [stage.id, desk_with(stage, passed)] }
        desks.each_value { |desk| desk.air.veil(true) } if gatehouse.brake&.off_picture?
      end

      # What was held goes on being held where it was when the last was heard of us: nobody could pull it meanwhile, and no screen would
      # have painted it. Screens have time to be there again.
      def load_held(entries)
        until_ms = [entries.last&.line&.arrived_at_ms, *lanes.each_value.map { |lane| lane.feed.heard_at_ms }].compact.max.to_i.clamp(..now_ms)
        @house.lines.held(id).each do |entry|
          line = entry.line.dress(wardrobe.emotes)
          gatehouse.hold(line, line.feed_id, entry.verdict, now_ms, held_for_ms: [until_ms - line.arrived_at_ms, 0].max - SCREENS_BACK_MS)
        end
      end

      def lane_with(feed, entries)
        own = entries.select { |entry| entry.line.feed_id == feed.id }
        FeedLane.new(feed, @house, send: method(:take_in), wardrobe: -> { @wardrobe }, entries: own,
          seen: @house.lines.recent_platform_ids(feed.id, FeedLane::SEEN_IDS))
      end

      def load_prompter(entries)
        @prompter = PrompterDesk.new(id, @house, gatehouse, record.host_name)
        entries.each { |entry| lanes[entry.line.feed_id]&.then { |lane| note_again(lane, entry) } }
        prompter.remember(@house.deeds.latest(id), @house.deeds.search(id, what: PrompterDesk::STAND, most: REMEMBERED_LINES).reverse)
        enlarge_again(prompter.large) if prompter.large
        prompter.prepare(now_ms)
      end

      def note_again(lane, entry)
        card = lane.card(entry.line, entry.verdict, pulled: entry.pulled)
        prompter.line(lane, entry, entry.aired ? :aired : :nowhere, card, pulled: entry.pulled)
      end

      # As it goes on the picture.
      def shown(entry) = Store::Lines::Entry.new(entry.line.as_shown(entry.verdict.shown, wardrobe.emotes), *entry.to_a.drop(1))

      def recount
        @house.lines.counts_since(id, now_ms - HOUR_MS).each do |at_ms, dropped, aired, rule, times|
          before_ms = [at_ms, now_ms].min
          figures.count(before_ms, dropped:, aired:, times:)
          gatehouse.recount(before_ms, rule, times)
        end
      end
    end
  end
end
