# frozen_string_literal: true

require_relative "../../../core/chat/line"
require_relative "../../../core/pieces/look_document"
require_relative "../../../core/pieces/outfit"
require_relative "../../../core/stage/edit"
require_relative "../../../core/style/piece_style"
require_relative "../../../core/style/samples"
require_relative "../../../live/playout/played_chat"
require_relative "../../../live/playout/playout"
require_relative "../../../live/rehearsal/rehearsal"

module Bavard
  module Web
    # What a piece or a whole stage can be dressed in, each with what a page needs to draw it: the very pieces of the stage,
    # with made-up lines and samples in them.
    class LookGallery
      SCRIPT = "quiet_dawn"
      LINES = 4
      # Where there are no scripts at all.
      OTHERWISE = [["kestrel_ann", "can we see the wing again?"], ["mudlark7", "morning all"]].freeze

      # @param site [Site]
      # @param document [Hash] the draft
      # @param piece [Hash, nil] of it, alone; nil: all
      # @param form [String] of TwoForms::FORMS
      # @param cues [Array<Hash>] of the show's sheet
      # @param kept [Array<Store::Looks::Kept>] of the host's own
      def initialize(site, document, piece: nil, form: "dark", cues: [], kept: [])
        @site = site
        @document = document
        @piece = piece
        @form = form
        @cues = cues
        @kept = kept
        @shared = Live::Playout::Shared.new(->(line) { Live::Rehearsal.mark(line.person.login) }, nil, "")
      end

      # @return [Hash] box: what is seen of the stage; looks: key, name, about, behind, pieces with style and what shows in them
      def report
        {box: box, looks: own + Core::Pieces::Outfit.shipped.map { |key, outfit| look(key, outfit) }}
      end

      private

      def look(key, outfit)
        set = Core::Pieces::LookDocument.shipped.fetch(key)["set"] if @piece && @piece["kind"] == Core::Pieces::ChatPiece::KEY
        {key:, name: outfit.name, about: outfit.about, behind: outfit.behind, set:, pieces: worn(key)}.compact
      end

      # Those of this kind, or of a whole stage. What is read no more is left out.
      def own
        format = @piece ? Core::Pieces::LookDocument::FORMAT : Core::Pieces::OwnOutfit::FORMAT
        theirs = @kept.select { |kept| kept.document["format"] == format && (@piece.nil? || kept.document["kind"] == @piece["kind"]) }
        theirs.filter_map { |kept| own_look(kept) }
      end

      def own_look(kept)
        set = @piece ? kept.document["set"] : kept.document
        edit = @piece ? {"do" => "look", "piece" => @piece["id"], "set" => set} : {"do" => "dress", "set" => set}
        {key: "own-#{kept.id}", own: kept.id, name: kept.name, about: "Your own", behind: "dawn", set:, pieces: pieces_after(edit)}
      rescue Error
        nil
      end

      # As the edit does it that a press is.
      def worn(key)
        edit = {"do" => "outfit", "outfit" => key}
        edit["pieces"] = [@piece["id"]] if @piece
        pieces_after(edit)
      end

      def pieces_after(edit)
        document = Core::Stage::Edit.apply(@document, edit).document
        wanted = @piece ? [Core::Stage::Document.piece(document, @piece["id"])] : document["pieces"]
        wanted.select { |piece| Core::Style::PieceStyle.drawn?(piece) }.map { |piece| drawn(piece, document["house"]) }
      end

      def drawn(piece, house)
        piece = piece.merge("form" => @form) if piece.key?("form")
        {style: Core::Style::PieceStyle.of(piece, house).merge(other: nil).compact, **shown(piece, house)}
      end

      def shown(piece, house)
        return {cards: Live::PlayedChat.new(piece, house, [], @shared).cards(lines)} if piece["kind"] == Core::Pieces::ChatPiece::KEY

        {sample: Core::Style::Samples.of(piece, cues: @cues)}.compact
      end

      # The stage, or the piece with what is around it.
      def box
        return [0, 0, *@document.values_at("width", "height")] unless @piece

        @piece.values_at(*Core::Pieces::PieceKind::PLACE_NAMES)
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
