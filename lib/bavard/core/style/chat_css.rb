# frozen_string_literal: true

require_relative "../pieces/kinds/chat"
require_relative "../look/plate_hand"
require_relative "../look/plate_settings"
require_relative "../look/type_settings"
require_relative "part_plates"

module Bavard
  module Core
    module Style
      # A chat piece's settings as the custom properties and the words the air page's style sheet works with.
      #
      #   ChatCss.from(piece)     # => {"--text-size" => "25px", "--plate-rgb" => "16 21 26" …}
      #   ChatCss.choices(piece)    # => {"names" => "shown", "newest" => "bottom" …}
      module ChatCss
        CHOICES = %w[names name_place name_colour name_plate_by times marks mark_form badges avatars emotes emotes_alone plate_for plate_width
          plate_by plate_tail line_sides flow newest stack_align text_align separator highlight_form].freeze
        # What a link may set by itself.
        OPTIONS = {
          "text_size_px" => ->(value) { {"--text-size" => "#{value}px"} }, "text_face" => ->(value) { {"--text-face" => Palette::Faces.css(value)} },
          "text_weight" => ->(value) { {"--text-weight" => value.to_s} }, "text_colour" => ->(value) { {"--text-colour" => value} },
          "one_name_colour" => ->(value) { {"--one-name" => value} },
          "plate_colour" => ->(value) { {"--plate-rgb" => Look::PlateSettings.rgb(value)} },
          "plate_opacity" => ->(value) { {"--plate-opacity" => Look::PlateSettings.share(value)} }
        }.freeze

        module_function

        # @param piece [Hash] as it is drawn: {Stage::Document.drawn}
        # @return [Hash{String => String}]
        def from(piece)
          {**%w[text name time].map { |part| Look::TypeSettings.css(part, piece) }.reduce(:merge),
            **Look::PlateSettings.css("plate", piece), **Look::PlateHand.css(piece),
            **PartPlates.css(Pieces::ChatPiece::PLATED, piece),
            "--line-spacing" => Look::PlateSettings.share(piece["text_line_spacing"]), "--one-name" => piece["one_name_colour"],
            "--name-column" => em(piece["name_column"]), **sizes(piece), **stack(piece), **highlights(piece)}
        end

        # @return [Hash{String => String}] choices that are not lengths or colours
        def choices(piece) = piece.slice(*CHOICES).merge(Look::PlateHand.choices(piece))

        # @param properties [Hash] of a link
        # @return [Hash{String => String}]
        def of_options(properties)
          properties.reduce({}) { |css, (name, value)| css.merge(OPTIONS[name]&.call(value) || {}) }
        end

        def sizes(piece)
          {"--mark-size" => em(piece["mark_size"]), "--badge-size" => em(piece["badge_size"]), "--avatar-size" => em(piece["avatar_size"]),
           "--avatar-round" => "#{piece["avatar_round"]}%", "--emote-size" => em(piece["emote_size"])}
        end

        def stack(piece)
          turns = "rotateX(#{piece["tilt"]}deg) rotateY(#{piece["tilt_sideways"]}deg)"
          flat = piece["tilt"].zero? && piece["tilt_sideways"].zero?
          {"--gap" => em(piece["gap"]), "--plate-other" => Look::PlateSettings.rgb(piece["plate_other_colour"]),
           "--mask" => mask(piece), "--line-turn" => "#{piece["line_turn"]}deg", "--room" => room(piece),
           "--tail-edge" => em(piece["plate_border"]),
           "--depth" => flat ? "none" : "perspective(#{piece["perspective_px"]}px) #{turns}"}
        end

        # At the sides, for what reaches beyond a plate.
        def room(piece)
          each = !%w[all none].include?(piece["plate_for"])
          each && (piece["line_turn"].positive? || piece["plate_shadow_opacity"].positive?) ? "0.5em" : "0em"
        end

        # Toward the edge where the oldest stand.
        def mask(piece)
          return "none" if piece["fade"].zero?

          side = {"bottom" => "top", "top" => "bottom", "left" => "right", "right" => "left"}.fetch(piece["newest"])
          "linear-gradient(to #{side}, #000 #{100 - piece["fade"]}%, transparent)"
        end

        def highlights(piece)
          Pieces::ChatPiece::HIGHLIGHTS.select { |what| piece["highlight_#{what}"] }
            .to_h { |what| ["--highlight-#{what}", piece["highlight_#{what}_colour"]] }
        end

        def em(percent) = "#{(percent / 100.0).to_s.delete_suffix(".0")}em"

        private_class_method :sizes, :stack, :room, :mask, :highlights, :em
      end
    end
  end
end
