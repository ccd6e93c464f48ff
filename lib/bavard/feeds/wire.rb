# frozen_string_literal: true

require "io/wait"
require "openssl"
require "socket"
require_relative "../outward/door"
require_relative "resume"
require_relative "trouble"

module Bavard
  module Feeds
    # A session on a real socket, from connect to end, for protocols in which one line carries both ways for as long as it holds. A kind of
    # feed says how it is opened and what bytes mean.
    class Wire
      CONNECT_WITHIN_S = 8
      TICK_S = 0.5
      READ_BYTES = 65_536

      # @param address [Object] as the kind has it
      # @param session [#begin, #tick, #say, #take_intakes, #ended, #heard_at_ms, #joined?]
      # @param clock [#call] Unix milliseconds
      # @param take [#call] gets each Core::Intake
      # @param reject [#call] gets a word for what could not be read
      # @param outbox [Outbox] the host's own lines
      # @param door [Outward::Door]
      def initialize(address, session, clock:, take:, reject:, outbox:, door:)
        @address = address
        @session = session
        @clock = clock
        @take = take
        @reject = reject
        @outbox = outbox
        @door = door
      end

      # @param stop [IO] readable once the connection is to end
      # @return [Ended, nil] nil when it was stopped
      def run(stop)
        @socket = open
        @session.begin(@clock.call)
        pump(stop) == :stopped ? say_goodbye : over
      rescue Outward::Door::Refused => error
        Ended.new(:needs_you, error.message, :address)
      rescue *Trouble::NETWORK => error
        over(Trouble.words(error, *place, within_s: CONNECT_WITHIN_S))
      ensure
        hand_over
        @socket&.close
      end

      # @return [Integer, nil] Unix milliseconds of the last thing the server said
      def heard_at_ms = @session.heard_at_ms

      # Nothing besides the last line's id and when it was heard.
      def cursor = nil

      # @return [Boolean] whether it got as far as reading
      def joined? = @session.joined?

      private

      # A kind has besides: #open, a socket; #place, host and port; #over, an Ended, with words where the line broke; #read, which gives :over at
      # its end; #write; and #say_goodbye.

      def pump(stop)
        until @session.ended
          write
          ready, = select([@socket, stop, @outbox.io], nil, nil, TICK_S) unless pending?
          return :stopped if ready&.include?(stop)

          send_on if ready&.include?(@outbox.io)
          return if (ready.nil? || ready.include?(@socket)) && take_in == :over

          @session.tick(@clock.call)
          hand_over
        end
      end

      def send_on
        @outbox.take.each { |letter| @session.say(letter, @clock.call) }
        @outbox.take_asked.each { |login| @session.ask(login) }
      end

      # What TLS has read already is not seen by #select.
      def pending? = @socket.respond_to?(:pending) && @socket.pending.positive?

      def take_in
        bytes = @socket.read_nonblock(READ_BYTES, exception: false)
        return :over if bytes.nil?

        read(bytes) if bytes.is_a?(String)
      end

      def hand_over = @session.take_intakes.each { |intake| @take.call(intake) }
    end
  end
end
