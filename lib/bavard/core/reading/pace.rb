# frozen_string_literal: true

require_relative "../chat/timeline"
require_relative "chat_measure"

module Bavard
  module Core
    module Reading
      # How long lines stay in a chat piece against how long they take to read.
      #
      #   pace = Pace.new(piece, lines, per_minute: 24, type:)
      #   pace.word       # => "calm"
      #   pace.fits       # => 7, lines that stand at once
      #   pace.stays_ms   # => 14_000
      class Pace
        NOTICED_MS = Chat::Timeline::Settings::NOTICED_MS
        # A line that stands this long is old news.
        STALE_MS = 180_000
        # Of the time the longest takes to read.
        CALM_SHARE = 1.0
        MINUTE_MS = 60_000
        # The share of lines that must be readable for it not to be too fast.
        TYPICAL = 0.5
        # More than this many nobody has room for.
        MOST_LINES = 30
        # Of each minute with nothing on the picture, from when on somebody would think that nobody writes.
        EMPTY_MS = 20_000
        # So many stay however long ago they came.
        KEPT = 5

        # @param piece [Hash] a chat piece as it is drawn
        # @param lines [Array<Chat::Line>] what came lately, or is rehearsed
        # @param per_minute [Numeric] lines a minute just now
        # @param type [TypeCase]
        def initialize(piece, lines, per_minute:, type:)
          @piece = piece
          @lines = lines
          @per_minute = per_minute
          @measure = ChatMeasure.new(piece, type)
        end

        # @return [Integer] lines that stand at once: as many as there is room for, and as are kept
        def fits
          @fits ||= [room, @piece["at_most"]].min
        end

        # @return [Integer] lines there is room for
        def room
          return 1 if @lines.empty? || @piece["flow"] == "ticker"

          heights = @lines.map { |line| @measure.height(line) }.sort
          [(@piece["height"] / heights[heights.size / 2]).floor, 1].max
        end

        # @return [Integer, nil] how long a line of middling length stands; nil: for good
        def stays_ms
          return running_ms if @piece["flow"] == "ticker"

          pushed = @per_minute.positive? ? (fits * MINUTE_MS / @per_minute).round : nil
          [set_ms, pushed].compact.min
        end

        # @return [Integer] how long the longest takes to read
        def longest_needs_ms = needs.last || 0

        # Lines come by chance, each stays as long as others of its length: so many of them stand as a Poisson distribution has it.
        #
        # @return [Integer] of each minute, how long nothing stands there
        def empty_ms
          return 0 if set_ms.nil? || @piece["flow"] == "ticker" || @piece["keep_last"].positive? || @lines.empty?

          (MINUTE_MS * Math.exp(-@per_minute * set_ms / MINUTE_MS.to_f)).round
        end

        # @return [String] calm, brisk, too fast, empty or stale
        def word
          stays = stays_ms
          return "stale" if stays.nil? || stays > STALE_MS
          return "too fast" if cut_short? && stays < typical_needs_ms
          return "empty" if empty_ms >= EMPTY_MS

          cut_short? && stays < longest_needs_ms * CALM_SHARE ? "brisk" : "calm"
        end

        # @return [String, nil] what would change it
        def advice
          case word
          when "empty" then "#{emptiness} Let the last #{KEPT} lines stay until others come."
          when "stale" then "Let lines go after a set time, so that nothing old stands there."
          when "too fast", "brisk" then pushed? ? more_room : "Let them stand for #{seconds(longest_needs_ms)}, or as long as they take to read."
          end
        end

        # @return [Hash, nil] values of the piece that mend it, where that takes no more room
        def mending
          case word
          when "empty" then {"keep_last" => KEPT}
          when "stale" then {"stay_by" => "reading"}
          when "too fast", "brisk" then unless pushed? || as_long_as_it_takes?
                                          {"stay_by" => "reading",
                                           "keep_last" => [@piece["keep_last"], KEPT].max}
                                        end
          end
        end

        # @return [Hash] for the page; values: what mends it, by one press
        def report
          {word:, fits:, stays_ms:, longest_needs_ms:, per_minute: @per_minute.round, empty_ms:, advice:, values: mending}
        end

        private

        def emptiness
          @per_minute.positive? ? "It is empty #{empty_ms / 1000} s of each minute." : "Nobody wrote within the last minute, so it stands empty."
        end

        # Where each stays as long as it takes itself, only another line could cut that short.
        def cut_short? = !as_long_as_it_takes? || pushed?

        # Whether it is the next lines that take a line's place, and not its time that is over.
        def pushed? = @per_minute.positive? && (set_ms.nil? || fits * MINUTE_MS / @per_minute < set_ms)

        def more_room
          wanted = (longest_needs_ms * @per_minute / MINUTE_MS.to_f).ceil
          return "At this rate nothing can be read in time: hold back some of it at the Gate." if wanted > MOST_LINES

          "Room for #{wanted} lines would do: a taller piece, smaller text, or a smaller gap."
        end

        def as_long_as_it_takes? = @piece["stay_by"] == "reading" && @piece["flow"] != "ticker"

        def set_ms
          @piece["stay_by"] == "reading" ? Chat::Timeline::Settings.reading_ms(typical_letters, @piece["reading_speed"]) : @piece["stay_ms"]
        end

        def running_ms
          widest = @lines.map { |line| @measure.width("text", line.text) }.sort
          (((@piece["width"] + (widest[widest.size / 2] || 0)) / @piece["ticker_speed"]) * 1000).round
        end

        def letters = @letters ||= @lines.map { |line| line.text.length }.sort
        def typical_letters = letters[(letters.size * TYPICAL).floor] || 0
        def typical_needs_ms = needs[(needs.size * TYPICAL).floor] || 0
        def needs = @needs ||= letters.map { |count| NOTICED_MS + (count * 1000 / @piece["reading_speed"]) }
        def seconds(ms) = "#{(ms / 1000.0).ceil} s"
      end
    end
  end
end
