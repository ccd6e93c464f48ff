# frozen_string_literal: true

require_relative "../../../core/cues/goal"
require_relative "../../../core/contrast/clearer"
require_relative "../../../core/reading/pace"
require_relative "../../../core/reading/voices_measure"
require_relative "../../../core/stage/document"

module Bavard
  module Web
    # What a piece's settings do, measured: how well it can be read over the pictures behind the stage, and how long its
    # lines stay.
    class StageMeasures
      # Pictures the host brought that are looked at besides the one behind the stage.
      MOST_PICTURES = 6

      # recent:: Live::PlayedChat::Recent of a chat piece; names:: of the people in the room, of a voices piece
      # counted:: of a goal: as Show#pace_of gives it; nil where it is another kind
      Told = Struct.new(:recent, :names, :counted)

      # @param site [Site]
      # @param stage [Store::Stages::Stage]
      # @param piece [Hash]
      # @param told [Told] what the running show knows of the piece
      # @param document [Hash] where it stands: the draft, or what is on air
      def initialize(site, stage, piece, told, document: stage.draft)
        @site = site
        @stage = stage
        @document = document
        @piece = Core::Stage::Document.drawn(piece, document["house"])
        @recent, @names, @counted = *told
      end

      # @return [Hash] legibility, pace, the room that voices need, and how fast a goal fills, each nil where there is nothing to measure
      def report
        {legibility:, pace:, room:, wrong:, goal: @counted && Core::Cues::Goal.pace(@piece, *@counted)}
      end

      private

      def legibility
        return unless @piece.key?("text_colour")

        judged = pictures.to_h { |key, name| [key, [name, judge(key)]] }
        key, (name, worst) = judged.min_by { |_, (_, legibility)| legibility.worst.ratio }
        here = judged.fetch(@stage.backdrop).last
        {word: worst.word, usual: floor(here.usual), worst: floor(worst.worst.ratio), part: worst.worst.part, over: name,
         patch: key == @stage.backdrop ? place(worst.worst.patch) : nil, ways: ways(key)}
      end

      def judge(key) = Core::Contrast::Legibility.new(@piece, patches(key), people:)
      def ways(key) = Core::Contrast::Clearer.new(@piece, patches(key), people:).ways.map { |way| {words: way.words, values: way.sets} }
      def people = @recent&.people || []

      # The picture behind the stage, and the host's own.
      def pictures
        @pictures ||= begin
          own = @site.stores.files.of_show(@stage.show_id, "backdrop").first(MOST_PICTURES).to_h { |file| ["file:#{file.id}", file.name] }
          {@stage.backdrop => own.fetch(@stage.backdrop, "the picture behind")}.merge(own)
        end
      end

      def patches(key)
        grid = grid(key) or return Core::Contrast::Legibility::ANYTHING
        grid.under(@piece.values_at(*Core::Pieces::PieceKind::PLACE_NAMES), on: @document.values_at("width", "height"))
      end

      def grid(key)
        (@grids ||= {})[key] ||= @site.backdrops.grid(key)
      end

      def place(patch) = patch.width.zero? ? nil : patch.to_a[3, 4].map(&:round)

      # What cannot be used of own CSS and markup, by line.
      def wrong
        return [] unless @piece["kind"] == "chat"

        css = Core::OwnCode::OwnCss.read(@piece["own_css"], @piece["id"]).errors.map { |line, words| "CSS, line #{line}: #{words}" }
        css + Core::OwnCode::OwnMarkup.read(@piece["own_markup"]).errors.map { |line, words| "Markup, line #{line}: #{words}" }
      end

      # Never told better than it is.
      def floor(ratio) = ratio.floor(1)

      def room
        Core::Reading::VoicesMeasure.new(@piece, @site.type_case).report(@names) if @piece["kind"] == "voices" && @names
      end

      def pace
        return unless @piece["kind"] == "chat" && @recent

        Core::Reading::Pace.new(@piece, @recent.lines, per_minute: @recent.per_minute, type: @site.type_case).report
      end
    end
  end
end
