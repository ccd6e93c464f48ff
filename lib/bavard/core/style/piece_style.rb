# frozen_string_literal: true

require_relative "../stage/document"
require_relative "alerts_css"
require_relative "chat_css"
require_relative "goal_css"
require_relative "../look/motion"
require_relative "parts_css"
require_relative "voices_css"
require_relative "words_css"

module Bavard
  module Core
    module Style
      # All a page needs to draw one piece, but for what comes and goes in it.
      #
      #   PieceStyle.of(piece, house)   # => {id: "chat1", kind: "chat", place: [67, 438, 795, 585], css: {…}, words: {…} …}
      #
      # other:: the custom properties that differ in the piece's other form, for links that ask for it
      module PieceStyle
        # What of a kind goes to the page as it is kept.
        CONTENT = {
          "picture" => %w[pictures fit round change], "video" => %w[film again loudness fit round], "text" => [],
          "clock" => %w[clock clock_form before after], "now_line" => %w[seconds],
          "alerts" => %w[kinds], "flurry" => [], "goal" => %w[unit counted reached figures steps],
          "challenge" => %w[unit waits reached missed figures steps], "newest" => %w[title what otherwise figures], "counter" => [],
          "shout_out" => %w[title picture last_shown followers clip], "captions" => [],
          "voices" => %w[when_empty arc_degrees], "room_card" => %w[join title picture count code],
          "portraits" => %w[figure sized mirrored align gap swap swap_ms bounce quiet_opacity blinks],
          "chat" => %w[parts emote_motion emotes_alone time_form ticker_speed]
        }.freeze

        OWN = {"chat" => ChatCss, "voices" => VoicesCss, "alerts" => AlertsCss, "goal" => GoalCss, "challenge" => GoalCss,
               "newest" => PartsCss, "shout_out" => PartsCss}.freeze

        module_function

        # @param piece [Hash] as the document has it
        # @param house [Hash] the show's colours and faces
        # @return [Hash]
        def of(piece, house)
          drawn = Stage::Document.drawn(piece, house)
          style = {id: piece["id"], kind: piece["kind"], side: piece["side"], place: piece.values_at(*Pieces::PieceKind::PLACE_NAMES),
                   opacity: piece["opacity"] / 100.0, **drawn.slice(*CONTENT.fetch(piece["kind"], []))}
          style[:content] = piece["words"] if %w[text counter].include?(piece["kind"])
          maker = css_of(piece) or return style
          style[:installed] = installed(drawn)

          style[:css] = maker.from(drawn)
          style[:words] = maker.choices(drawn)
          style.merge!(moved(drawn))
          style[:other] = other_form(piece, house, style[:css], maker) unless piece["bright"].empty?
          style
        end

        # @return [Boolean] whether it is drawn at all
        def drawn?(piece) = piece["kind"] != Pieces::SpacePiece::KEY && !piece["hidden"]

        # What only chat and voices have.
        def moved(drawn)
          case drawn["kind"]
          when "chat" then of_chat(drawn)
          when "voices", "alerts", "shout_out", "captions" then {motion: Look::Motion.of(drawn)}
          else {}
          end
        end

        def of_chat(drawn)
          {motion: Look::Motion.of(drawn), own_css: OwnCode::OwnCss.read(drawn["own_css"], drawn["id"]).css,
           markup: OwnCode::OwnMarkup.read(drawn["own_markup"]).tree}.compact
        end

        # Faces a screen must have installed, by their exact names.
        def installed(drawn)
          drawn.values.grep(String).grep(Palette::Faces::INSTALLED).uniq.map { |name| Palette::Faces.family(name) }
        end

        def css_of(piece)
          OWN[piece["kind"]] || words_of(piece)
        end

        def words_of(piece)
          WordsCss if piece.key?("text_size_px")
        end

        # @return [Array(String, Hash)] the other form, and what differs in it
        def other_form(piece, house, css, maker)
          form = (Pieces::TwoForms::FORMS - [piece["form"]]).first
          theirs = maker.from(Stage::Document.drawn(piece, house, form:))
          [form, theirs.reject { |name, value| css[name] == value }]
        end

        private_class_method :moved, :words_of, :of_chat, :installed, :css_of, :other_form
      end
    end
  end
end
