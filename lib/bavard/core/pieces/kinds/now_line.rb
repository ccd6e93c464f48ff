# frozen_string_literal: true

require_relative "words"

module Bavard
  module Core
    module Pieces
      # A text that others set while the broadcast goes on: by hand, by its own address, from a file. Several lines come in
      # turn.
      module NowLinePiece
        extend WordsPiece

        KEY = "now_line"
        LABEL = "Now line"
        ICON = "text-cursor-input"
        LONGEST = 400
        MOST = 20

        CONTENT = [
          Fields::Property.text("otherwise", "where nothing is set", LONGEST, "In the net now: nobody yet"),
          Fields::Property.choice("source", "set", %w[hand address file], "hand"),
          Fields::Property.text("file_name", "name of the file", 60),
          Fields::Property.number("seconds", "seconds each", 1..600, 8, unit: "s", digits: 1),
          Fields::Property.choice("turn", "lines change", %w[fade rise cut], "fade"),
          Fields::Property.choice("too_long", "a line that is too long", %w[smaller wrapped cut], "smaller")
        ].freeze
        LOOK = WordsPiece::LOOK
        FORMED = WordsPiece::FORMED
        OWN = (CONTENT + LOOK + WordsPiece::FORMS).freeze

        module_function

        # @param given [String] as it was set: a line each
        # @return [Array<String>]
        def lines(given)
          given.to_s.scrub("").lines.map { |line| line.gsub(/\p{Cntrl}/, " ").strip[0, LONGEST] }.reject(&:empty?).first(MOST)
        end
      end
    end
  end
end
