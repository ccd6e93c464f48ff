# frozen_string_literal: true

require_relative "../../now_and_then"

module Bavard
  module Live
    # Takes away what is older than a show keeps its log, a little at a time, from a thread of its own.
    class Sweeper
      EVERY_S = 600
      BETWEEN_S = 0.2
      DAY_MS = 86_400_000

      # @param shows [Store::Shows]
      # @param log [Store::Log]
      # @param deeds [Store::OperatorDeeds]
      def initialize(shows, log, deeds, clock:, logger:)
        @shows = shows
        @log = log
        @deeds = deeds
        @clock = clock
        @logger = logger
        @sweeping = NowAndThen.new("sweeper", EVERY_S) { |ended| sweep(ended) }
      end

      def start
        @sweeping.start
        self
      end

      def stop = @sweeping.stop

      # @param ended [#call] whether to stop
      def sweep(ended = -> { false })
        @deeds.sweep
        @shows.ids.each do |id|
          # Its account may have been removed meanwhile.
          show = @shows.brief(id) or next
          before_ms = @clock.call - (show.keep_days * DAY_MS)
          sleep(BETWEEN_S) while @log.sweep(id, before_ms).positive? && !ended.call
        end
      rescue Sequel::Error => error
        @logger.warn("old lines could not be taken away", error)
      end
    end
  end
end
