# frozen_string_literal: true

module Bavard
  module Live
    # What all running shows share.
    #
    # platforms:: Feeds::Platform by key; boot:: another word each time the process starts; door:: the one way out;
    # people:: the demo's voices by login, for rehearsals
    TOLD_EVERY_MS = 1000
    House = Struct.new(:shows, :feeds, :stages, :lines, :hub, :journal, :ids, :clock, :log, :meters, :boot, :people, :scripts,
      :known, :left_out, :deeds, :team, :permissions, :platforms, :dress, :pictures, :imports, :fetcher, :door, :files, :cast, :conversations,
      :tallies, :fellows, :ceilings,
      keyword_init: true) do
      # Counts what could not be read, and logs it, but no more than once a second for each source.
      def reject(source, what)
        meters.rejected(source)
        now_ms = clock.call
        @told_at_ms ||= {}
        return if now_ms - @told_at_ms.fetch(source, 0) < TOLD_EVERY_MS

        @told_at_ms[source] = now_ms
        log.info("rejected on #{source}: #{what}")
      end
    end
  end
end
