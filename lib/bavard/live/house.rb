# frozen_string_literal: true

module Bavard
  module Live
    # What all running shows share.
    #
    # boot:: another word each time the process starts; people:: the demo's voices by login, for rehearsals
    House = Struct.new(:shows, :feeds, :stages, :lines, :hub, :journal, :ids, :clock, :log, :meters, :boot, :people, :scripts,
      keyword_init: true) do
      # Counts and logs what could not be read.
      def reject(source, what)
        meters.rejected(source)
        log.info("rejected on #{source}: #{what}")
      end
    end
  end
end
