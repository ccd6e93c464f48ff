# frozen_string_literal: true

module Bavard
  module Feeds
    # Lines that the host wants to send on a feed, and people it asks about, from any thread to the feed's own, which may be waiting
    # on {#io}.
    class Outbox
      Letter = Struct.new(:answer_id, :text)

      # @return [IO] readable once there is something
      attr_reader :io

      def initialize
        @letters = Queue.new
        @asked = Queue.new
        @io, @bell = IO.pipe
      end

      def put(answer_id, text)
        @letters << Letter.new(answer_id, text)
        ring
      end

      # @param login [String] about whom
      def ask(login)
        @asked << login
        ring
      end

      # @return [Array<Letter>]
      def take
        @io.read_nonblock(4096, exception: false)
        Array.new(@letters.size) { @letters.pop }
      end

      # @return [Array<String>] logins
      def take_asked = Array.new(@asked.size) { @asked.pop }

      def close
        [@io, @bell].each(&:close)
      end

      private

      def ring
        @bell.write_nonblock(".", exception: false)
      rescue IOError, Errno::EPIPE
        nil # the feed has just been taken away
      end
    end
  end
end
