# frozen_string_literal: true

require_relative "../stage/chat_piece"
require_relative "colour"

module Bavard
  module Core
    module Look
      # A chat piece's settings as the custom properties the air page's style sheet works with.
      #
      #   ChatCss.from("size_px" => 25)   # => {"--size" => "25px"}
      module ChatCss
        PIXELS = {"x" => "--x", "y" => "--y", "width" => "--width", "height" => "--height", "size_px" => "--size"}.freeze
        COLOURS = {"text_colour" => "--ink", "one_name_colour" => "--one-name"}.freeze

        module_function

        # @param values [Hash] a chat piece, or some of its properties
        # @return [Hash{String => String}]
        def from(values)
          css = {}
          PIXELS.each { |name, property| css[property] = "#{values[name]}px" if values.key?(name) }
          COLOURS.each { |name, property| css[property] = values[name] if values.key?(name) }
          css["--face"] = %("#{values["face"]}") if values.key?("face")
          css["--weight"] = values["weight"].to_s if values.key?("weight")
          css["--plate"] = values["plate_colour"] if values.key?("plate_colour")
          css["--plate-opacity"] = (values["plate_opacity"] / 100.0).to_s if values.key?("plate_opacity")
          css
        end

        # @param piece [Hash] whole
        # @return [Hash] as from, with the weight the face has
        def whole(piece)
          from(piece.merge("weight" => Stage::ChatPiece.weight(piece)))
        end
      end
    end
  end
end
