# frozen_string_literal: true

require_relative "../../../core/chat/line"
require_relative "../../../core/contrast/name_colour"
require_relative "../../../feeds/described/bench/bench"
require_relative "../../../live/lines/line_card"

module Bavard
  module Web
    # What a page is told of a description and of frames: faults, what becomes of each, and of the chosen one everything.
    class BenchReport
      # What names stand on in the picture of it.
      PLATE = "#10151a"
      MARK = ["hexagon", "#8fb8c9"].freeze
      KINDS = %i[line event].freeze
      # What lines may have, told where it is not given.
      LACKS = %w[id time name text colour avatar badges emotes reply].freeze
      # Lines of one frame that are drawn.
      DRAWN = 12

      # @param bench [Feeds::Described::Bench::Bench]
      def initialize(bench)
        @bench = bench
        @names = Core::Contrast::NameColour.new(PLATE)
      end

      # @param frames [Array<Object>]
      # @param chosen [Integer, nil] of which everything is told
      # @return [Hash]
      def of(frames, chosen)
        all = frames.map { |frame| @bench.items(frame) }
        one = chosen && all[chosen]
        {faults: @bench.faults.map(&:to_h), asks:, samples: @bench.samples.map(&:last), frames: all.map { |items| frame(items) }, counts: counts(all),
         chosen: one&.map { |item| item(item) }, drawn: drawn(one || [])}
      end

      private

      def frame(items)
        {told: @bench.contents(items), unread: items.any? { |item| item.is.nil? }, becomes: items.map { |item| {"is" => item.is, **item.fields} }}
      end

      def asks
        description = @bench.description or return []
        {"text" => description.asks, "password" => description.secrets}.flat_map do |type, all|
          all.map { |ask| {name: ask.name, label: ask.label, example: ask.example, type:} }
        end
      end

      def counts(all) = all.flatten.map { |item| item.is || Feeds::Described::Bench::Bench::UNREAD }.tally.sort_by { |_, count| -count }

      # Field by field, with what it could have besides.
      def item(item)
        unread = @bench.unread(item)
        offers = unread.empty? ? {} : @bench.offers(item, unread)
        {is: item.is, fields: given(item), lacks: lacks(item), kinds: item.is ? nil : Feeds::Described::Bench::Offers::KINDS,
         unread: unread.map { |field| {path: field.path, value: field.value, offers: offers[field.path]} }}
      end

      def said?(item) = !item.intake.nil? && KINDS.include?(item.intake.kind)
      def given(item) = item.fields.reject { |_, value| value.respond_to?(:empty?) && value.empty? }
      def lacks(item) = said?(item) ? LACKS - given(item).keys : []

      def drawn(items)
        lines = items.select { |item| said?(item) }.first(DRAWN)
        lines.each_with_index.map { |item, index| card(item.intake, index + 1) }
      end

      def card(intake, id)
        line = Core::Chat::Line.from(intake, id:)
        Live::LineCard.of(line, @names.for(line.person.key, line.person.colour), MARK, nil)
      end
    end
  end
end
