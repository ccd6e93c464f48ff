# frozen_string_literal: true

require_relative "legibility"

module Bavard
  module Core
    module Contrast
      # The least change of a piece that makes its words stand out enough: more plate, more outline, or another colour.
      #
      #   Clearer.new(piece, patches).ways   # => [Way("Plate opacity 84 %", {"plate_opacity" => 84}, 0.12) …], the least first
      class Clearer
        # words:: what it would be; sets:: the values to set; change:: how much of one is changed, 0 to 1
        Way = Struct.new(:words, :sets, :change)
        # The plate a piece without one gets.
        SHAPES = {"chat" => "line"}.freeze
        ENOUGH_PATCHES = 24
        ENOUGH_PEOPLE = 6
        OUTLINES_PX = (0.5..6.0).step(0.5).to_a.freeze

        # @param piece [Hash] as it is drawn
        def initialize(piece, patches, people: [], ratio: Legibility::LEAST_RATIO)
          @piece = piece
          @patches = spread(patches)
          @people = spread_people(people)
          @ratio = ratio
        end

        # @return [Array<Way>] none where nothing has to be changed
        def ways
          return [] if enough?({})

          [plate, outline, colour].compact.sort_by(&:change)
        end

        private

        # Contrast goes by luminance: a few patches from the darkest to the brightest tell as much as all of them.
        def spread(patches)
          sorted = patches.sort_by { |patch| (patch.red * 2) + (patch.green * 7) + patch.blue }
          return sorted if sorted.size <= ENOUGH_PATCHES

          Array.new(ENOUGH_PATCHES) { |index| sorted[index * (sorted.size - 1) / (ENOUGH_PATCHES - 1)] }
        end

        # The names that stand out least and most, and some between.
        def spread_people(people)
          sorted = people.sort_by { |name, _| Palette::Colour.parse(name).luminance }
          sorted.size <= ENOUGH_PEOPLE ? sorted : Array.new(ENOUGH_PEOPLE) { |index| sorted[index * (sorted.size - 1) / (ENOUGH_PEOPLE - 1)] }
        end

        def enough?(values)
          Legibility.new(@piece.merge(values), @patches, people: @people).worst.ratio >= @ratio
        end

        # Halves its way to the least opacity that is enough.
        def plate
          shape = @piece["plate_for"] == "none" ? {"plate_for" => SHAPES.fetch(@piece["kind"], "text")} : {}
          set = ->(opacity) { shape.merge("plate_opacity" => opacity, "plate_to_opacity" => [opacity, @piece["plate_to_opacity"]].max) }
          from = shape.empty? ? @piece["plate_opacity"] : 0
          least = ((from + 1)..100).bsearch { |opacity| enough?(set[opacity]) } or return
          values = @piece["plate_gradient"] == "none" ? set[least].except("plate_to_opacity") : set[least]
          Way.new("Plate opacity #{least} %", values, (least - from) / 100.0)
        end

        # In black round light letters, in white round dark ones.
        def outline
          colour = Palette::Colour.parse(@piece["text_colour"]).luminance > 0.18 ? "#10151a" : "#ffffff"
          parts = @piece["kind"] == "chat" ? %w[text name time] : %w[text]
          set = ->(width) { parts.flat_map { |part| [["#{part}_outline_px", width], ["#{part}_outline_colour", colour]] }.to_h }
          least = OUTLINES_PX.select { |width| width > @piece["text_outline_px"] }.bsearch { |width| enough?(set[width]) } or return
          Way.new("Outline #{least.to_s.delete_suffix(".0")} px", set[least], least / OUTLINES_PX.last)
        end

        # The same hue, lighter or darker by as little as it takes.
        def colour
          lightness, chroma, hue = Palette::Colour.parse(@piece["text_colour"]).oklch
          tried = [lightness.step(1.0, 0.02), lightness.step(0.0, -0.02)].filter_map do |steps|
            steps.find { |one| enough?("text_colour" => Palette::Colour.oklch(one.clamp(0.0, 1.0), chroma, hue).to_s) }
          end
          least = tried.min_by { |one| (one - lightness).abs } or return
          made = Palette::Colour.oklch(least.clamp(0.0, 1.0), chroma, hue).to_s
          Way.new("Text colour #{made}", {"text_colour" => made}, (least - lightness).abs)
        end
      end
    end
  end
end
