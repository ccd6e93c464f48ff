# frozen_string_literal: true

require_relative "../../look/plate_hand"
require_relative "../../look/plate_settings"
require_relative "../../look/type_settings"
require_relative "../piece_kind"
require_relative "../two_forms"

module Bavard
  module Core
    module Pieces
      # What pieces that show words share: their type, their plate and where in their place they stand. Extends a module
      # that has CONTENT.
      module WordsPiece
        include PieceKind
        include TwoForms

        LOOK = [
          *Look::TypeSettings.of("text", "text", main: true, defaults: {"size_px" => 40, "weight" => 600}),
          Fields::Property.number("text_line_spacing", "line spacing", 80..240, 125, unit: "%"),
          Fields::Property.choice("text_align", "text aligned", %w[start centre end], "start"),
          Fields::Property.choice("text_upright", "text stands", %w[top middle bottom], "middle"),
          Fields::Property.choice("plate_for", "plate", %w[text rows piece none], "text"),
          *Look::PlateSettings.of("plate", "plate", {"opacity" => 0}), *Look::PlateHand.ground, *Look::PlateHand.hung
        ].freeze
        # How the ground of a part begins, over the piece's own.
        SMALL_PLATE = {"padding_x" => 24, "padding_y" => 4}.freeze
        # @param others [Array<Property>] in the place of those of the same name
        # @return [Array<Property>] the look of a piece that begins otherwise
        def self.look(*others)
          by_name = others.to_h { |property| [property.name, property] }
          LOOK.map { |property| by_name.fetch(property.name, property) }
        end

        FORMED = TwoForms.formed(LOOK)
        FORMS = TwoForms.properties(FORMED).freeze
      end
    end
  end
end
