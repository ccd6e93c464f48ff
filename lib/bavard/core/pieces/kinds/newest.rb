# frozen_string_literal: true

require_relative "../../cues/tally"
require_relative "words"

module Bavard
  module Core
    module Pieces
      # The newest and the best: who followed last, the largest tip of the broadcast, who gave most this month.
      module NewestPiece
        extend WordsPiece

        KEY = "newest"
        LABEL = "Newest and best"
        ICON = "trophy"

        CONTENT = [
          Fields::Property.text("title", "title", 120, "Newest follower"),
          Fields::Property.choice("what", "shows", %w[newest list largest most count], "newest"),
          Fields::Property.choice("counted", "of", Cues::Tally::COUNTED.keys, "followers"),
          Fields::Property.text("unit", "currency or unit", 40, "EUR"),
          Fields::Property.choice("since", "since the beginning of", %w[broadcast day month ever], "broadcast"),
          Fields::Property.number("rows", "rows at most", 1..20, 3),
          Fields::Property.switch("figures", "how much, beside the names", true),
          Fields::Property.text("otherwise", "where there is nobody yet", 120, "nobody yet")
        ].freeze
        BEGINS = [
          Fields::Property.number("plate_opacity", "plate opacity", 0..100, 78, unit: "%"),
          Fields::Property.number("text_size_px", "text size", 8..400, 28, unit: "px"),
          Fields::Property.choice("plate_for", "plate", %w[text rows piece none], "piece")
        ].freeze
        # Set apart from the title.
        PARTS = [*Look::TypeSettings.of("name", "name", defaults: {"weight" => 800, "colour" => "house:accent"}),
          *Look::PlateSettings.of("name_plate", "name’s plate", WordsPiece::SMALL_PLATE)].freeze
        LOOK = (WordsPiece.look(*BEGINS) + PARTS).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
