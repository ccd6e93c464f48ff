# frozen_string_literal: true

require "json"
require "securerandom"
require_relative "since"

module Bavard
  module Relay
    # One thing that screens follow: numbered frames, the newest of them kept so that a screen that was away gets what
    # it missed, and a whole picture of now for all others. Every frame carries "at": "life:seq".
    class Topic
      KEPT_FRAMES = 240
      EMPTY = {}.freeze

      attr_reader :name

      # @param name [String]
      # @param timed [Boolean] whether its pages are told each second how long their line is: ours are; others hear now and then that it holds
      # @param life [String] another one for each, also where it has the name of an earlier one: a show that slept, or was elsewhere, goes on in
      #   topics of its own, and what a page has of those before is no beginning of them
      def initialize(name, timed: true, life: SecureRandom.alphanumeric(8))
        @timed = timed
        @name = name
        @life = life
        @lock = Mutex.new
        @seq = 0
        @kept = []
        @picture = -> { EMPTY }
      end

      def timed? = @timed

      # Nothing comes in it any more, as of a show that has gone to sleep: whoever would follow it from now on, comes again.
      def finish = @over = true
      def over? = @over || false

      # @param change [Hash] what is new
      # @param picture [#call] gives all that is there now, as a Hash; may be called later, from another thread
      # @return [String] the frame as it goes out
      def frame(change, picture)
        @lock.synchronize do
          @seq += 1
          @picture = picture
          text = JSON.generate({at:, t: Since.ms}.merge(change))
          @kept << text
          @kept.shift if @kept.size > KEPT_FRAMES
          text
        end
      end

      # @param last [String, nil] "life:seq" of the last frame a screen has
      # @return [String] one message that brings it up to now: what it missed, to be applied in one go, or a whole picture
      def catch_up(last)
        @lock.synchronize do
          missed = missed_since(last)
          if missed
            %({"at":"#{at}","t":#{Since.ms},"missed":[#{missed.join(",")}]})
          else
            JSON.generate({at:, t: Since.ms,
                           whole: true}.merge(@picture.call))
          end
        end
      end

      # @return [String] tells how long a line is, and that it holds
      def beat = %({"t":#{Since.ms}})

      # @param number [String] of a page's question whether all is there
      # @return [String] its answer, which is true once the page has what it names
      def answer(number) = @lock.synchronize { %({"here":#{number},"t":#{Since.ms},"upto":"#{at}"}) }

      private

      def at
        "#{@life}:#{@seq}"
      end

      def missed_since(last)
        life, seq = last.to_s.split(":", 2)
        return unless life == @life && seq&.match?(/\A\d{1,15}\z/)

        count = @seq - seq.to_i
        @kept.last(count) if count.between?(0, @kept.size)
      end
    end
  end
end
