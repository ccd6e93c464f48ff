# frozen_string_literal: true

require_relative "../../error"
require_relative "../../now_and_then"
require_relative "show"

module Bavard
  module Live
    # The shows that run in this process.
    class Shows
      RENEW_EVERY_S = 5
      # The locks of a process that was killed are let go within a moment.
      TRIES = 20
      TRY_EVERY_S = 0.1

      # @param means [Means]
      # @param lease [#take, #renew] that keeps a show from running twice
      def initialize(means, lease:)
        @means = means
        @store = means.stores.shows
        @log = means.log
        @lease = lease
        @lock = Mutex.new
        @running = {}
      end

      def start
        @store.ids.each do |id|
          run(id)
        rescue Error => error
          @log.error(error.message)
        end
        @renewing = NowAndThen.new("leases", RENEW_EVERY_S) { renew }.start
        self
      end

      # @return [Show] running from now on
      # @raise [Bavard::Error] where it runs in another process
      def run(id)
        @lock.synchronize { @running[id] ||= lease(id) && Show.new(@store.find(id), @means).start }
      end

      # @return [Show, nil]
      def [](id)
        @lock.synchronize { @running[id] }
      end

      # @return [Array<Show>] all that run
      def running = @lock.synchronize { @running.values }

      # @return [Array(Show, StageDesk), nil] what a token's link shows
      def by_token(token)
        running.each do |show|
          show.desks.each_value { |desk| return [show, desk] if desk.stage.token == token }
        end
        nil
      end

      # @return [Array(Show, FeedLane), nil] whose address of their own this is
      def by_inbox(token)
        running.each do |show|
          show.lanes.each_value { |lane| return [show, lane] if lane.feed.kind == "inbox" && lane.feed.address["token"] == token }
        end
        nil
      end

      def stop
        @renewing&.stop
        @lock.synchronize { @running.each_value(&:stop) }
      end

      private

      def lease(id)
        TRIES.times { @lease.take(id) ? (return true) : sleep(TRY_EVERY_S) }
        raise Busy, "Show #{id} is running in another process of Bavard."
      end

      def renew
        @lease.renew.each do |id|
          @log.error("show #{id} was taken over by another process")
          @lock.synchronize { @running.delete(id) }&.stop
        end
        end_deleted
      end

      # A show goes with the account that it belonged to.
      def end_deleted
        known = running.map(&:id)
        (known - @store.ids).each do |id|
          @log.info("show #{id} was deleted, and ends")
          @lock.synchronize { @running.delete(id) }&.stop
          @lease.release(id)
        end
      rescue Sequel::DatabaseError, Sequel::PoolTimeout
        nil # while the database is away nobody deletes anything either
      end
    end
  end
end
