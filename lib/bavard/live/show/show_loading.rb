# frozen_string_literal: true

require_relative "../../core/chat/timeline"
require_relative "../broadcast/cue_desk"
require_relative "../intake/feed_lane"
require_relative "../moderation/gatehouse"
require_relative "../moderation/prompter_desk"
require_relative "../broadcast/shout_outs"
require_relative "../broadcast/sounding"
require_relative "../broadcast/tallies"
require_relative "../voices/voices"

module Bavard
  module Live
    # How a show begins where it left off: from what is kept to what was held, shown, pinned and counted. Part of {Show}.
    module ShowLoading
      HOUR_MS = 3_600_000
      SCREENS_BACK_MS = 2000

      private

      # @param means [Means]
      def dress_show(means)
        dress_cues(means.hub, means.stores)
        @voices = Voices.new(id, means.stores.cast, journal, mishaps)
      end

      def dress_cues(hub, stores)
        kept = record.cues
        @cues = CueDesk.new(kept, feed_name: ->(feed_id) { lanes[feed_id]&.feed&.name })
        @cues.began_ms = kept["began_ms"]
        @tallies = Tallies.new(id, stores.tallies, now_ms, began_ms: kept["began_ms"], totals: kept)
        all = -> { desks.values }
        @sounding = Sounding.new(hub, all)
        @shout_outs = ShoutOuts.new(stores.fellows.of_show(id), self, Sounding.new(hub, all, :shouts?))
      end

      # What is told of lines needs what is loaded after them, and hears of none before.
      def begin_lines(meters)
        @line_log = LineLog.new(id, journal, ids)
        @screen_times = ScreenTimes.new
        @lead = Lead.new(self)
        @small_leads = SmallLeads.new(self)
        @lines = LineBook.new(Picture.new(self), told: [@line_log, LineFigures.new(id, figures, meters), LineNews.new(self, @report)])
      end

      # @param means [Means]
      def load(means)
        stores = means.stores
        dress_show(means)
        @prompter = made_prompter(means)
        @gatehouse = made_gatehouse(stores)
        lines.use(gatehouse.hold_settings, now_ms)
        held, said = load_lines(stores.lines)
        load_feeds(stores.feeds, said, stores.descriptions.of_show(id))
        load_desks(stores.stages, said)
        load_prompter(stores.deeds)
        load_held(held, said)
      end

      # @return [Array(Array<LineBook::Kept>, Array<LineBook::Kept>)] what was held, and what was said
      def load_lines(store)
        uncut = Core::Chat::Line::Uncut.new(wardrobe.emotes)
        found = [store.held(id), store.latest(id, LineBook::KEPT)].map { |entries| entries.map { |entry| restored(entry, uncut) } }
        recount(store)
        found
      end

      def restored(entry, uncut)
        said_before(entry.line.dress_later(uncut))
        lines.restore(entry)
      end

      # What the log has was said before now. Where the clock was set back meanwhile it says otherwise, and what comes next would have to
      # wait until the clock has caught up.
      def said_before(line) = line.shown_at_ms = [line.shown_at_ms, now_ms].min

      def load_feeds(store, said, described)
        @feeds.load(store.of_show(id), said, described)
        @broadcast.remember(store.all_of_show(id))
      end

      def made_prompter(means)
        PrompterDesk.new(Relay::Topic.new("prompter:#{id}"), means.hub, lines, record.host_name) { |kept| lanes[kept.lane_id]&.card(kept) }
      end

      def made_gatehouse(stores)
        Gatehouse.new(record.gate, left_out: stores.left_out.of_show(id, now_ms), first_seen: stores.known.first_seen(id))
      end

      # What stood on the stages, as it was shown there.
      def load_desks(store, said)
        passed = said.select { |kept| Core::Moderation::LineState::SEEN.include?(kept.state.was || kept.state.name) }
        passed.each { |kept| kept.shown = kept.line.as_shown(kept.verdict.shown, wardrobe.emotes) }
        passed = passed.map(&:shown).sort_by { |line| [line.shown_at_ms, line.id] }.last(Core::Chat::Timeline::REMEMBERED)
        @stages.load(store.of_show(id), passed)
      end

      # What was held goes on being held where it was when the last was heard of us: nobody could pull it meanwhile, and no screen would
      # have painted it. Screens have time to be there again.
      def load_held(held, said)
        until_ms = [said.last&.line&.arrived_at_ms, *lanes.each_value.map { |lane| lane.feed.heard_at_ms }].compact.max.to_i.clamp(..now_ms)
        held.each do |kept|
          held_for_ms = [until_ms - kept.line.arrived_at_ms, 0].max - SCREENS_BACK_MS
          lines.hold_again(kept, now_ms, held_for_ms:, at_least_ms: SCREENS_BACK_MS)
        end
        follow_gate
      end

      def load_prompter(deeds)
        prompter.remember(deeds.latest(id), deeds.search(id, what: Core::Moderation::Deed::LASTING, most: LineBook::KEPT).reverse)
        prompter.large&.then { |line_id| moderation.enlarge_again(line_id) }
      end

      def recount(store)
        store.counts_since(id, now_ms - HOUR_MS).each do |at_ms, dropped, aired, rule, times|
          before_ms = [at_ms, now_ms].min
          figures.count(before_ms, dropped:, aired:, times:)
          gatehouse.recount(before_ms, rule, times)
        end
      end
    end
  end
end
