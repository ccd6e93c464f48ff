# frozen_string_literal: true

require "json"
require_relative "../../core/stage/drawing"

module Bavard
  module Live
    # One open copy of a stage's page, with what it last said of itself. What it says is not trusted: numbers are read
    # as numbers within bounds, everything else is left out.
    class Screen
      # A screen reports every five seconds; after this much silence something is wrong with it.
      FRESH_MS = 15_000
      SIDE_PX = 0..16_384
      # side:: of the camera it shows, or nil: both; missing:: names of faces its computer does not have
      Report = Struct.new(:width, :height, :rate, :revision, :hidden, :not_understood, :side, :missing)
      UNKNOWN = Report.new(0, 0, nil, nil, false, [], nil, []).freeze
      SIDES = %w[front behind].freeze

      # since_ms:: when it was opened; silent:: the last sound it could not play, or nil
      attr_reader :id, :report, :since_ms, :heard_at_ms, :silent

      def initialize(id, from:, now_ms:)
        @id = id
        @from = from
        @report = UNKNOWN
        @since_ms = @heard_at_ms = now_ms
      end

      MOST_PAINTED = 200
      LONGEST_AGO_MS = 60_000

      # @param text [String] JSON from the page
      # @return [Boolean] whether it could be read
      # @yieldparam line_id [Integer] of a line it painted
      # @yieldparam at_ms [Integer] when
      def hear(text, now_ms)
        said = JSON.parse(text, max_nesting: 4)
        return false unless said.is_a?(Hash)

        @heard_at_ms = now_ms
        note(said)
        Array(said["painted"]).first(MOST_PAINTED).each do |line_id, ago|
          yield line_id, now_ms - (number(ago, 0..LONGEST_AGO_MS) || 0) if block_given? && line_id.is_a?(Integer)
        end
        true
      rescue JSON::ParserError, EncodingError
        false
      end

      # @param document [Hash] what is on air
      # @return [Hash] for the Air page
      def card(document, revision, now_ms)
        told = {id:, from: @from, since: @since_ms, heard: [now_ms - @heard_at_ms, 0].max, rate: report.hidden ? nil : report.rate,
                **report.to_h.slice(:hidden, :side, :not_understood, :missing)}.merge(size(document), shows(revision))
        told.merge(fine: fine?(told))
      end

      # @return [String] how people know it
      def words = report.width.zero? ? "a screen at #{@from}" : "a screen of #{report.width} × #{report.height} at #{@from}"

      private

      # @param said [Hash] of itself
      def note(said)
        @report = Report.new(extent(said["w"]), extent(said["h"]), number(said["fps"], 0..1000), number(said["rev"], 0..1_000_000_000),
          said["hidden"] == true, told_words(said["not"]), SIDES.find { |side| side == said["side"] }, told_words(said["missing"]))
        @silent = number(said["silent"], 0..1_000_000_000)
      end

      # Whether there is nothing to look at.
      def fine?(told)
        [told[:right], told[:current], told[:heard] < FRESH_MS, told[:not_understood].empty?, told[:missing].empty?].all?
      end

      def size(document)
        return {words: "has not said how it is drawn yet"} if report.width.zero?

        drawing = Core::Stage::Drawing.new(document["width"], document["height"], report.width, report.height)
        text_px = document["pieces"].filter_map { |piece| piece["text_size_px"] unless piece["hidden"] }.min
        {drawn: [report.width, report.height], right: drawing.right?, words: drawing.words(text_px), advice: drawing.advice}
      end

      def shows(revision)
        {revision: report.revision, current: report.revision == revision}
      end

      # A few short words.
      def told_words(value) = Array(value).grep(String).first(5).map { |word| word[0, 60] }

      def extent(value)
        number(value, SIDE_PX) || 0
      end

      def number(value, range)
        value.round.clamp(range) if value.is_a?(Numeric) && value.to_f.finite?
      end
    end
  end
end
