# frozen_string_literal: true

require_relative "words"

module Bavard
  module Core
    module Pieces
      # A voice room as a card: its name and picture, how many are there, how to join.
      module RoomCardPiece
        extend WordsPiece

        KEY = "room_card"
        LABEL = "Room card"
        ICON = "qr-code"
        LONGEST_LINK = 400

        CONTENT = [
          Fields::Property.text("room", "room", 20),
          Fields::Property.choice("title", "the room’s name", %w[shown none], "shown"),
          Fields::Property.choice("picture", "its picture", %w[shown none], "shown"),
          Fields::Property.choice("count", "how many are there", ["shown", "on the service", "none"], "shown"),
          Fields::Property.text("join", "how to join", 200, "Come and talk with us"),
          Fields::Property.choice("code", "code to scan", %w[none room own], "room"),
          Fields::Property.text("link", "link of the code", LONGEST_LINK),
          Fields::Property.number("dims_after_s", "dimmed once the service is silent for", 1..3600, 20, unit: "s")
        ].freeze
        BEGINS = [
          Fields::Property.number("plate_opacity", "plate opacity", 0..100, 78,
            unit: "%"), Fields::Property.number("text_size_px", "text size", 8..400, 26, unit: "px")
        ].freeze
        LOOK = [*WordsPiece.look(*BEGINS), Fields::Property.number("picture_size", "size of picture and code", 100..1200, 420, unit: "%")].freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze

        module_function

        # @param count [Integer] of people on the whole service
        # @return [String]
        def online_words(count) = "#{count} online"

        # @param size [Integer] of a room
        # @return [String]
        def count_words(size)
          case size
          when 0 then "nobody is here yet"
          when 1 then "one is here"
          else "#{size} are here"
          end
        end
      end
    end
  end
end
