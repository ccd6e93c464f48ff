# frozen_string_literal: true

require "json"
require_relative "../../described"
require_relative "../../outbox"
require_relative "../../resume"
require_relative "frames"

module Bavard
  module Feeds
    module Described
      module Bench
        # Reads a platform for a minute by a description that is being written, and keeps what it sends. After a while the line is cut on
        # purpose, to see whether what was said before comes once more.
        class Recorder
          LASTS_S = 60
          CUT_AFTER_S = 12
          # Bytes of all that is kept, as JSON.
          ROOM = 2 * 1024 * 1024
          # Of a feed that is in no database.
          Feed = Struct.new(:id, :address, :password, :permission, :mapping)
          # What a description may lack to be recorded by: nothing is read yet.
          NOTHING_YET = [{"is" => "nothing"}].freeze
          # state, words:: as feeds tell them; twice:: lines that came again after the cut, nil before it
          Told = Struct.new(:state, :words, :over, :lines, :twice, keyword_init: true)

          # @param platform [Platform] of the description
          # @param read [Hash] address and password: what was asked for
          # @param clock [#call]
          # @param cut_after_s [Numeric] when the line is cut on purpose
          def initialize(platform, read, clock, cut_after_s: CUT_AFTER_S)
            @platform = platform
            @feed = Feed.new(0, read[:address], read[:password], nil)
            @clock = clock
            @cut_after_s = cut_after_s
            @lock = Mutex.new
            @frames = []
            @room = ROOM
            @ids = {}
            @told = Told.new(state: :connecting, words: "Connecting.", over: false, lines: 0)
            @stop_reader, @stop = IO.pipe
          end

          def start
            @thread = Thread.new { record }
            @thread.report_on_exception = false
            self
          end

          # @param from [Integer] frames that are known already
          # @return [Array(Array<Object>, Told)]
          def since(from) = @lock.synchronize { [@frames.drop(from), @told.dup] }

          def over? = @lock.synchronize { @told.over }

          def stop
            @stop.write_nonblock(".")
            @thread&.join
          rescue IOError, SystemCallError
            nil # it has ended by itself
          end

          private

          def record
            ends = now + LASTS_S
            connection = stretch(nil, [now + @cut_after_s, ends].min)
            if connection&.joined?
              change(twice: 0)
              stretch(connection, ends)
            end
          rescue Error, StandardError => error
            change(state: :waiting, words: error.is_a?(Error) ? error.message : "It ended: #{error.class.name}.")
          ensure
            change(over: true)
            [@stop, @stop_reader].each(&:close)
          end

          # @return [Object, nil] the connection, where it was cut in time
          def stretch(before, ends)
            reader, cut = IO.pipe
            outbox = Outbox.new
            resume = Resume.new(nil, before&.heard_at_ms, before&.cursor)
            connection = Described.connection(@feed, resume, platform: @platform, permission: nil, clock: @clock, take: method(:hear),
              reject: ->(_what) {}, outbox:, watch: method(:watch))
            running = Thread.new { connection.run(reader) }
            running.report_on_exception = false
            stopped = wait(running, ends)
            cut.write(".")
            ended = running.value
            change(state: ended.state, words: ended.reason) if ended.respond_to?(:reason) && ended
            connection unless stopped || ended
          ensure
            [reader, cut].compact.each(&:close)
            outbox&.close
          end

          # @return [Boolean] whether somebody stopped it, or there is no more room
          def wait(running, ends)
            while running.alive? && now < ends
              return true if @stop_reader.wait_readable(0.1) || full?
            end
            false
          end

          def full? = @lock.synchronize { @room <= 0 || @frames.size >= Frames::MOST }

          def watch(frame)
            bytes = JSON.generate(frame).bytesize
            @lock.synchronize do
              next if @room < bytes || @frames.size >= Frames::MOST

              @room -= bytes
              @frames << frame
            end
          rescue JSON::GeneratorError
            nil
          end

          def hear(intake)
            return change(state: intake.body.state, words: intake.body.reason) if intake.kind == :feed_state
            return unless intake.kind == :line && intake.platform_id

            @lock.synchronize do
              @told.twice += 1 if @told.twice && @ids.key?(intake.platform_id)
              @told.lines += 1 unless @ids.key?(intake.platform_id)
              @ids[intake.platform_id] = true
            end
          end

          def change(**what) = @lock.synchronize { what.each { |name, value| @told[name] = value } }
          def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        end
      end
    end
  end
end
