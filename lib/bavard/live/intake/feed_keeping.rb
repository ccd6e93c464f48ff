# frozen_string_literal: true

module Bavard
  module Live
    # By which what is to be remembered of feeds is kept, without waiting for the database.
    class FeedKeeping
      # @param journal [Journal]
      # @param stores [Store::Stores]
      # @param clock [#mark]
      def initialize(journal, stores, clock)
        @journal = journal
        @feeds = stores.feeds
        @permissions = stores.permissions
        @clock = clock
      end

      # @param from_ms [Integer] since then nothing could be heard
      # @param to_ms [Integer] until then
      def missed(feed, from_ms, to_ms) = @journal.behind(feed.show_id, :gap, feed.id, from_ms, to_ms)

      # @param cursor [Hash] from where it goes on
      def heard(feed, at_ms, cursor) = @journal.behind(feed.show_id, :feed, feed.id, {heard_at_ms: at_ms, heard_mark: @clock.mark, cursor:})

      # It reads another place, so that what was heard at the earlier one does not count, also not what waits to be kept.
      def readdressed(feed)
        keep(feed, address: feed.address, cursor: {})
        @journal.behind(feed.show_id, :feed, feed.id, {cursor: {}})
      end

      def permitted(feed) = keep(feed, permission_id: feed.permission&.id)
      def draft_only(feed) = @journal.deed(:feeds, :keep, feed.id, draft_only: feed.draft_only)

      # @param permission [Core::Permission] that was renewed
      def renewed(permission)
        @journal.later { @permissions.renew(permission) }
      end

      private

      def keep(feed, **values)
        id = feed.id
        @journal.later { @feeds.keep(id, **values) }
      end
    end
  end
end
