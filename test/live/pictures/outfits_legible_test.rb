# frozen_string_literal: true

require_relative "../../support/live_test"
require_relative "../../../lib/bavard/core/contrast/legibility"
require_relative "../../../lib/bavard/core/stage/edit"
require_relative "../../../lib/bavard/live/pictures/backdrops"

# Whatever is worn can be read over every picture that ships, in one of its two forms.
class OutfitsLegibleTest < LiveTest
  include Bavard::Core

  Backdrops = Bavard::Live::Backdrops
  SIZE = [1920, 1080].freeze
  # What viewers' own colours come to is measured where they are chosen.
  WORDS = (Pieces::ALL - [Pieces::ChatPiece]).select { |kind| kind.properties.key?("text_colour") }.freeze

  def worn(outfit)
    placed = WORDS.reduce(Stage::Document.empty) { |document, kind| Stage::Edit.apply(document, {"do" => "place", "kind" => kind::KEY}).document }
    Stage::Edit.apply(placed, {"do" => "outfit", "outfit" => outfit}).document
  end

  def worst(piece, house, patches)
    forms = piece.key?("form") ? Pieces::TwoForms::FORMS : [nil]
    forms.map { |form| Contrast::Legibility.new(Stage::Document.drawn(piece, house, form:), patches).worst }.max_by(&:ratio)
  end

  def test_every_text_in_every_outfit_over_every_picture_that_ships
    backdrops = Backdrops.new(means.pictures, cabinet)
    grids = Backdrops::SHIPPED.keys.to_h { |key| [key, backdrops.grid(key)] }
    Pieces::Outfit.shipped.each_key do |outfit|
      document = worn(outfit)
      document["pieces"].product(grids.to_a).each do |piece, (key, grid)|
        found = worst(piece, document["house"], grid.under([0, 0, *SIZE], on: SIZE))
        assert_operator found.ratio, :>=, Contrast::Legibility::LEAST_RATIO, "#{outfit}, #{piece["kind"]} over #{key}: #{found.part}"
      end
    end
  end
end
