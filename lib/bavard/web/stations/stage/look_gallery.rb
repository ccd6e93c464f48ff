# frozen_string_literal: true

require_relative "../../../core/chat/line"
require_relative "../../../core/pieces/look_document"
require_relative "../../../core/style/piece_style"
require_relative "../../../live/playout/played_chat"
require_relative "../../../live/playout/playout"
require_relative "../../../live/rehearsal/rehearsal"

module Bavard
  module Web
    # The looks a chat piece can start from, each with what a page needs to draw a few lines in it.
    class LookGallery
      SCRIPT = "quiet_dawn"
      LINES = 4
      # Where there are no scripts at all.
      OTHERWISE = [["kestrel_ann", "can we see the wing again?"], ["mudlark7", "morning all"]].freeze

      # @param site [Site]
      # @param piece [Hash, nil] whose size and timing stay, where it is chat
      # @param style [Hash] the show's colours and faces
      def initialize(site, piece, style)
        @site = site
        @piece = piece && piece["kind"] == Core::Pieces::ChatPiece::KEY ? piece : Core::Pieces::ChatPiece.build("chat1")
        @style = style
        @shared = Live::Playout::Shared.new(->(line) { Live::Rehearsal.mark(line.person.login) }, nil, "")
      end

      # @return [Hash] looks: key, name, about, behind, set, and style and cards for each form
      def report
        {looks: Core::Pieces::LookDocument.shipped.map { |key, look| {key:, **look.slice("name", "about", "behind", "set"), forms: forms(look)} }}
      end

      private

      def forms(look)
        values = Core::Pieces::LookDocument.values(@piece, look["set"])
        Core::Pieces::TwoForms::FORMS.to_h do |form|
          piece = @piece.merge(values, "form" => form, "hidden" => false, "at_most" => LINES)
          chat = Live::PlayedChat.new(piece, @style, [], @shared)
          [form, {style: Core::Style::PieceStyle.of(piece, @style).merge(other: nil), cards: chat.cards(lines)}]
        end
      end

      def said
        script = @site.scripts[SCRIPT]
        return script.steps.first(LINES).map(&:what) if script

        OTHERWISE.map { |login, text| Core::Said.new(login, nil, nil, [], text, false, false) }
      end

      def lines
        @lines ||= said.each_with_index.map do |said, index|
          Core::Chat::Line.from(Core::Intake.new(:line, nil, nil, nil, @site.clock.call, said), id: index + 1, origin: :rehearsal)
        end
      end
    end
  end
end
