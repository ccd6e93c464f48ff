# frozen_string_literal: true

require_relative "../../core/reading/captions"
require_relative "../../core/stage/document"
require_relative "captioning"
require_relative "live_counts"

module Bavard
  module Live
    # What is set in a stage's pieces while the broadcast goes on, in the draft and on air alike: the text of now lines, and
    # clocks that are started and stopped; with what is counted there, and captions. Belongs to its show's thread.
    class LiveValues
      # What is longer is a file.
      LONGEST_TOLD = 10_000
      # since_ms:: when the clock was started, or nil while it stands; ran_ms:: how long it ran before
      Clock = Struct.new(:since_ms, :ran_ms) do
        def ran(now_ms) = ran_ms + (since_ms ? now_ms - since_ms : 0)
      end

      # @param kept [Hash] as {#to_h} gave it
      # @param clock [#call] the time in Unix milliseconds
      def initialize(kept, clock)
        @clock = clock
        @texts = (kept["texts"] || {}).transform_values(&:to_s)
        @counts = LiveCounts.new(kept["counts"])
        @captioning = Captioning.new
        @clocks = (kept["clocks"] || {}).transform_values { |since, ran| Clock.new(since, ran.to_i) }
      end

      attr_reader :counts, :captioning

      def now_ms = @clock.call

      # @param text [String] a line each
      def text(piece_id, text)
        @texts[piece_id] = Core::Pieces::NowLinePiece.lines(text).join("\n")
      end

      # @param file [String] WebVTT
      # @return [Integer] how many captions it has
      # @raise [Bavard::Error]
      def caption_file(piece_id, file)
        captions = Core::Reading::Captions.parse(file)
        raise Error.new("No captions are in that file. Bavard reads WebVTT.", field: "file") if captions.empty?

        @texts[piece_id] = file.to_s.dup.force_encoding(Encoding::UTF_8).scrub("").delete("\0")[0, Core::Reading::Captions::LONGEST_FILE]
        captions.size
      end

      # @return [String] as it was set
      def text_of(piece_id) = @texts[piece_id].to_s

      # @param what [String] start, stop or back (to the beginning)
      # @raise [Bavard::Error]
      def run(piece_id, what)
        clock = @clocks[piece_id] ||= Clock.new(nil, 0)
        case what
        when "start" then clock.since_ms ||= now_ms
        when "stop" then @clocks[piece_id] = Clock.new(nil, clock.ran(now_ms))
        when "back" then @clocks[piece_id] = Clock.new(clock.since_ms && now_ms, 0)
        else raise Error.new("A clock can start, stop and go back.", field: "what", value: what)
        end
      end

      # @return [Integer] how long a clock ran
      def ran_ms(piece_id, now = now_ms) = @clocks.fetch(piece_id, Clock.new(nil, 0)).ran(now)

      def running?(piece_id) = !@clocks[piece_id]&.since_ms.nil?

      # @return [Hash] by piece, as a page draws it
      def report(document, now = now_ms)
        document["pieces"].each_with_object({}) do |piece, report|
          case piece["kind"]
          when "clock" then report[piece["id"]] = clock(piece, now)
          when "now_line" then report[piece["id"]] = {lines: lines(piece)}
          when "counter" then report[piece["id"]] = {count: counts.number(piece)}
          when "challenge" then report[piece["id"]] = challenge(piece, now)
          when "captions" then report[piece["id"]] = {lines: captioning.report(piece, now)}
          end
        end
      end

      # @return [Hash] by piece, for the Stage's inspector
      def inspected
        files, texts = @texts.partition { |_, text| text.bytesize > LONGEST_TOLD }
        {texts: texts.to_h, files: files.map(&:first), running: @clocks.transform_values { |clock| !clock.since_ms.nil? }}
      end

      # @return [Hash] to be kept
      def to_h = {"texts" => @texts, "clocks" => @clocks.transform_values(&:to_a), "counts" => counts.to_h}

      private

      def lines(piece)
        given = Core::Pieces::NowLinePiece.lines(text_of(piece["id"]))
        given.empty? ? Core::Pieces::NowLinePiece.lines(piece["otherwise"]) : given
      end

      # With what is left of its time.
      def challenge(piece, now)
        card = Core::Cues::Challenge.card(piece, counts.state(piece))
        card.merge(left: card[:ends] && [card[:ends] - now, 0].max)
      end

      def clock(piece, now)
        running = @clocks[piece["id"]] || Clock.new(nil, 0)
        time = Time.at(now / 1000)
        of_day_ms = (((time.hour * 60) + time.min) * 60_000) + (time.sec * 1000) + (now % 1000)
        Core::Pieces::ClockPiece.state(piece, time_of_day_ms: of_day_ms, ran_ms: running.ran(now), running: !running.since_ms.nil?)
      end
    end
  end
end
