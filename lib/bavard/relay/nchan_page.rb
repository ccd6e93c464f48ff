# frozen_string_literal: true

require "securerandom"

module Bavard
  module Relay
    # A page whose line nginx holds: what there is to know of a {Connection}, without a socket.
    class NchanPage
      # Beyond what a hub counts to.
      IDS = ((1 << 32)..(1 << 53))

      attr_reader :id, :key, :env, :topic, :follower, :since_ms

      # @param env [Hash] of its request
      # @param since_ms [Integer] Unix milliseconds
      def initialize(env, topic, follower, since_ms)
        @id = SecureRandom.random_number(IDS)
        # Its own channel, and by which nginx says who spoke. A page never learns it.
        @key = SecureRandom.hex(16)
        @env = env
        @topic = topic
        @follower = follower
        @since_ms = since_ms
      end
    end
  end
end
