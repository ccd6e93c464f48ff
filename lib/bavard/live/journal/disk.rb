# frozen_string_literal: true

require_relative "../../now_and_then"

module Bavard
  module Live
    # How much room is left on the disk that holds what is kept, looked at now and then: a database that has none reads on, and takes
    # nothing that is new.
    class Disk
      EVERY_S = 10
      LOW_KB = 200 * 1024
      FULL_KB = 4 * 1024
      FULL = "There is no room on the disk that holds what Bavard keeps: nothing new can be kept until somebody makes some. What is on air goes on."
      LOW = "The disk that holds what Bavard keeps is nearly full. Make room: once it is full nothing new can be kept."
      STATES = {full: "is full", low: "is nearly full", room: "has room", unknown: "says nothing"}.freeze

      # @param free_kb [#call] gives an Integer, or nil where nobody knows
      def initialize(free_kb)
        @free = free_kb
        @free_kb = nil
      end

      def start
        look
        @looking = NowAndThen.new("disk", EVERY_S) { look }.start
        self
      end

      def stop = @looking.stop

      # As is done every {EVERY_S}.
      def look = @free_kb = @free.call

      # @return [Integer, nil] as it was when it was looked at last
      def free_bytes = @free_kb&.*(1024)

      def full? = state == :full

      # @return [Symbol] of STATES
      def state
        case @free_kb
        when nil then :unknown
        when ...FULL_KB then :full
        when ...LOW_KB then :low
        else :room
        end
      end

      # @return [String, nil] what a host should know of it
      def words = {full: FULL, low: LOW}[state]
    end
  end
end
