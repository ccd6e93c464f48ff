# frozen_string_literal: true

require_relative "show"

module Bavard
  module Live
    # The shows that run in this process.
    class Shows
      # @param house [House]
      def initialize(house)
        @house = house
        @lock = Mutex.new
        @running = {}
      end

      def start
        @house.shows.ids.each { |id| run(id) }
        self
      end

      # @return [Show] running from now on
      def run(id)
        @lock.synchronize { @running[id] ||= Show.new(@house.shows.find(id), @house).start }
      end

      # @return [Show, nil]
      def [](id)
        @lock.synchronize { @running[id] }
      end

      # @return [Array(Show, StageDesk), nil] what a token's link shows
      def by_token(token)
        running = @lock.synchronize { @running.values }
        running.each do |show|
          show.desks.each_value { |desk| return [show, desk] if desk.stage.token == token }
        end
        nil
      end

      def stop
        @lock.synchronize { @running.each_value(&:stop) }
      end
    end
  end
end
