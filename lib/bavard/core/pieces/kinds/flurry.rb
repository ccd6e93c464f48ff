# frozen_string_literal: true

require_relative "../../flurry/ways"
require_relative "../piece_kind"

module Bavard
  module Core
    module Pieces
      # Emotes that fly: over the whole stage, or wherever it is placed.
      module FlurryPiece
        extend PieceKind

        KEY = "flurry"
        LABEL = "Flurry"
        ICON = "wind"
        ROLES = %w[everyone host moderator guest subscriber supporter].freeze
        WAYS = Flurry::Ways::ALL

        SOURCES = [
          Fields::Property.switch("from_chat", "emotes of chat fly", true),
          Fields::Property.switch("from_cues", "those of the cue sheet fly", true),
          Fields::Property.some("roles", "of (none: everyone)", ROLES, []),
          Fields::Property.some("feeds", "on chats (none: all)", nil, []),
          Fields::Property.some("shelves", "of shelves (none: all)", nil, [])
        ].freeze
        FLIGHT = [
          Fields::Property.some("ways", "ways (several: one of them each time)", WAYS, %w[fall]),
          Fields::Property.number("copies", "copies of each emote", 1..10, 1),
          Fields::Property.number("emote_px", "size", 12..400, 64, unit: "px"),
          Fields::Property.number("size_spread", "sizes differ by", 0..80, 25, unit: "%"),
          Fields::Property.number("length_s", "a flight takes", 0.5..40, 6, unit: "s", digits: 1),
          Fields::Property.number("spin", "turns by", 0..720, 0, unit: "° a second"),
          Fields::Property.number("depth", "depth", 0..100, 30, unit: "%"),
          Fields::Property.number("from_x", "the point stands from the left", 0..100, 50, unit: "%"),
          Fields::Property.number("from_y", "the point stands from the top", 0..100, 80, unit: "%"),
          Fields::Property.switch("over_spaces", "also over spaces", false)
        ].freeze
        CEILINGS = [
          Fields::Property.number("per_line", "of one line at most", 1..20, 5),
          Fields::Property.number("apart_ms", "set apart by", 0..3000, 180, unit: "ms"),
          Fields::Property.number("per_person", "of one person in a minute", 1..600, 40),
          Fields::Property.number("per_minute", "of all in a minute", 1..6000, 600),
          Fields::Property.number("at_once", "on the way at once", 1..600, 120),
          Fields::Property.number("alike_s", "the same of many grows within (0: never)", 0..60, 8, unit: "s"),
          Fields::Property.number("alike_from", "from so many people on", 2..100, 4)
        ].freeze
        CONTENT = SOURCES
        LOOK = (FLIGHT + CEILINGS).freeze
        OWN = (SOURCES + FLIGHT + CEILINGS).freeze
      end
    end
  end
end
