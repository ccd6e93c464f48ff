# frozen_string_literal: true

require "io/wait"
require_relative "../../core/intake"
require_relative "../../core/voice/attendance"

module Bavard
  module Feeds
    module Microphones
      # Stands in the place of a connection: microphones come to us, each over lines of its own and in threads of theirs.
      class Room
        LOOK_EVERY_S = 1.0
        READY = "Ready for microphones. Hand out their links."

        # @param name [String] of the room, as the picture shows it
        def initialize(feed_id, name, clock:, take:)
          @feed_id = feed_id
          @name = name
          @clock = clock
          @take = take
          @lock = Mutex.new
          @attendance = Core::Voice::Attendance.new
        end

        attr_reader :name

        def heard_at_ms = nil
        def joined? = false
        def cursor = nil

        # @param stop [IO] readable once it is to end
        # @return [nil]
        def run(stop)
          tell { [Core::Voice::Happening.new(:room, Core::Voice::Card.new(@feed_id.to_s, @name), [])] }
          now_ms = @clock.call
          hand(:feed_state, Core::FeedState.new(:live, READY, now_ms), now_ms)
          tell { |attendance| attendance.advance(@clock.call) } until stop.wait_readable(LOOK_EVERY_S)
          nil
        ensure
          @lock.synchronize { @over = true }
        end

        # Whether it takes in what it hears; another stands in its place where it does not.
        def open? = !@over

        # What somebody does, in the words of {Core::Voice::Attendance}.
        def enter(...) = tell { |attendance| attendance.enter(...) }
        def mute(...) = tell { |attendance| attendance.mute(...) }
        def level(...) = tell { |attendance| attendance.level(...) }
        def put_out(...) = tell { |attendance| attendance.put_out(...) }

        def leave(key, line)
          @lock.synchronize { @attendance.leave(key, line, @clock.call) }
        end

        private

        # In their order, whoever does it.
        def tell
          @lock.synchronize do
            return if @over

            yield(@attendance).each { |happening| hand(:voice, happening, @clock.call) }
          end
        end

        def hand(kind, body, now_ms) = @take.call(Core::Intake.new(kind, @feed_id, nil, nil, now_ms, body))
      end
    end
  end
end
