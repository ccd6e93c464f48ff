# frozen_string_literal: true

require_relative "../../core/chat/test_line"
require_relative "../../core/style/samples"
require_relative "../../relay/topic"
require_relative "../../store/stages"
require_relative "live_values"
require_relative "../playout/playout"
require_relative "../rehearsal/rehearsal_room"
require_relative "screens"
require_relative "stage_counting"
require_relative "stage_editor"
require_relative "../voices/voice_rehearsal"

module Bavard
  module Live
    # One stage of a running show: its draft and what is on air, each being played; its editor, screens and
    # rehearsal room.
    # Belongs to its show's thread.
    class StageDesk
      include StageCounting

      MOST_TEST_LINES = 20
      TEST_MARK = ["ring", Core::Chat::TestLine::COLOUR].freeze

      attr_reader :stage, :draft, :air, :room, :editor, :live, :screens, :voice_room

      # @param stage [Store::Stages::Stage]
      # @param means [Means] of which it takes what it needs
      # @param shared [Playout::Shared] what lines are drawn with
      # @param lines [Array<Core::Chat::Line>] what was said before, oldest first
      # @param aired [Array<Core::Chat::Line>] those of them that viewers may see
      # @yieldparam house_style [Hash] when an edit here changed the show's colours or faces
      def initialize(stage, means, shared, lines: [], aired: lines, &restyled)
        @stage = stage
        use(means)
        @marks = shared.marks
        @shared = shared.dup.tap { |ours| ours.marks = method(:mark) }
        @restyled = restyled
        @screens = Screens.new
        @live = LiveValues.new(stage.live, @clock)
        @draft = playout("draft", stage.draft, lines, samples: method(:sample))
        @air = playout("air", stage.on_air, aired.select { |line| line.id > stage.cleared_at_line })
        @air.doubt_s = stage.doubt_s
        prepare_rehearsal(means.conversations)
        @editor = StageEditor.new(stage, @journal, @ceilings) { |document| edited(document) }
      end

      def id = stage.id
      def draft_topic = draft.topic
      def air_topic = air.topic
      # What it holds is long, and its link is secret.
      def inspect = "#<#{self.class} #{id}>"

      # @return [Boolean] whether viewers see it
      def show(line)
        draft.add(line)
        air.add(line)
      end

      # @return [Boolean] whether a piece of the draft takes it in
      def show_draft(line)
        draft.add(line)
      end

      # @return [Array<Hash>] of the show's sheet
      def cues = @shared.cues&.call || []

      # A line was taken away, or is there again.
      def moved(line) = [draft, air].each { |playout| playout.moved(line) }

      # A line says something else now.
      def reword(line) = [draft, air].each { |playout| playout.reword(line) }

      # @return [Boolean] whether the line may still be shown
      def remembers?(line_id) = draft.remembers?(line_id) || air.remembers?(line_id)

      # @param line [Core::Chat::Line, nil] that stands large, or none
      def enlarge(line)
        [draft, air].each { |playout| playout.overlays.large = line }
      end

      # @param card [Hash, nil] what plays of the cue sheet
      # @param draft_only [Boolean] whether somebody only tries it
      def alert(card, draft_only: false)
        draft.overlays.alert = card
        air.overlays.alert = card unless draft_only
      end

      # @param card [Hash, nil] of a fellow host, by piece
      def shout(card)
        [draft, air].each { |playout| playout.overlays.shout = card }
      end

      # @return [Boolean] whether viewers see alerts there
      def plays_alerts? = on_air?(Core::Pieces::AlertsPiece::KEY)

      # @param kind [String] of events
      # @return [Array<Hash>] alerts on air that play them
      def alerts_of(kind)
        pieces_on_air(Core::Pieces::AlertsPiece::KEY).select { |piece| piece["kinds"].empty? || piece["kinds"].include?(kind) }
      end

      # @return [Array<Hash>] pieces on air in which emotes of cues fly
      def flurries_for_cues = pieces_on_air(FlownPieces::KIND).select { |piece| piece["from_cues"] }

      # @return [Boolean] whether viewers see shout-outs there
      def shouts? = on_air?(Core::Pieces::ShoutOutPiece::KEY)

      # @param wish [Core::Flurry::Flurry::Wish] emotes that fly
      def fly(wish, now_ms, draft_only: false)
        draft.fly(wish, now_ms)
        air.fly(wish, now_ms) unless draft_only
      end

      # Draws lines anew, as when what they wear has changed.
      def redraw(&block)
        [draft, air].each { |playout| playout.redraw(&block) }
      end

      # Cuts every line anew, with the emotes there are now.
      def dress(emotes)
        [draft, air].each { |playout| playout.each_line { |line| line.dress(emotes) } }
        redraw { true }
      end

      # @param document [Hash] checked whole: the draft it was when it was checked
      # @return [Integer] the revision's number
      def put_on_air(now_ms, document: stage.draft, by: nil)
        number = editor.put_on_air(document, now_ms, by:)
        air.play(stage.on_air, number)
        draft.play(stage.draft, number)
        number
      end

      # @return [PlayedChat::Recent, nil] what came lately in a chat piece of the draft; at least at the pace that is rehearsed
      def recent(piece_id, now_ms)
        recent = draft.recent(piece_id, now_ms)
        recent.per_minute = [recent.per_minute, room.per_minute].max if recent
        recent
      end

      # @return [Array<String>, nil] names as a voices piece of the draft writes them: of all who are in the room
      def names_in(piece_id) = draft.names_in(piece_id)

      # Puts marked lines on this link's screens, or into the draft, and nowhere else.
      #
      # @param name, text [String] as Core::Chat::TestLine takes them
      # @param feed_id [Integer, nil] whose mark they carry
      # @return [Integer] how many
      def send_test(count, now_ms, name: "", text: "", feed_id: nil, draft_only: false)
        count = count.clamp(1, MOST_TEST_LINES)
        said = (1..count).map { |number| Core::Chat::TestLine.said(name, text, number:, of: count) }
        said.each do |one|
          intake = Core::Intake.new(:line, feed_id, nil, nil, now_ms, one)
          line = Core::Chat::Line.from(intake, id: @ids.next(now_ms), origin: :test, emotes: @shared.wardrobe&.call&.emotes)
          (draft_only ? draft : air).add(line)
        end
        count
      end

      # @param last_line_id [Integer] lines up to that one stay away, also after a restart
      def clear_air(last_line_id)
        air.clear
        @journal.deed(:stages, :keep_cleared, id, last_line_id)
      end

      # The draft stands empty.
      def clear_draft
        draft.clear
      end

      def renew_link
        token = stage.token = Store::Stages.new_token
        @hub.close(air_topic)
        @journal.later { @store.keep_token(id, token) }
        token
      end

      # Nobody looks at it any more.
      def close
        [air_topic, draft_topic].each { |topic| @hub.close(topic) }
      end

      def backdrop=(name)
        @journal.deed(:stages, :keep_backdrop, id, name)
        stage.backdrop = name
      end

      # @param seconds [Integer, nil] without a word, after which chat leaves a screen; nil: never
      def doubt_s=(seconds)
        @journal.deed(:stages, :keep_doubt, id, seconds)
        stage.doubt_s = air.doubt_s = seconds
      end

      def name=(name)
        @journal.deed(:stages, :rename, id, name)
        stage.name = name
      end

      # Moves on whatever time moves on.
      # @yieldparam line a rehearsal's line, before it is drawn; gives it as the gate lets it through, or nil
      def advance(now_ms)
        @judge = ->(line) { yield(line) }
        room.advance(now_ms)
        voice_room.advance(now_ms)
        draft.voices = voice_room.playing? ? voice_room : nil
        number_rested(now_ms)
        editor.flush(now_ms)
        keep_live(now_ms)
        draft.flush(now_ms)
        air.flush(now_ms)
      end

      # @return [Integer, nil] when {#advance} has something to do
      def due_ms
        now_ms = @clock.call
        [draft.due_ms, air.due_ms, room.due_ms, voice_room.due_ms, editor.due_ms, @rests_at_ms, live.captioning.due_ms(now_ms),
          live.counts.due_ms(shown_document, now_ms), live_due_ms].compact.min
      end

      # @return [Hash] for the Stage and Air pages; the draft itself is told by its editor
      def report(now_ms)
        {id:, name: stage.name, revision: stage.revision, **editor.report, backdrop: stage.backdrop, boxes:, live: live.inspected,
         rehearsal: room.report(now_ms), voices: voice_room.report, size: stage.draft.slice(*Core::Stage::Document::SIZE.keys),
         standing: air.standing, doubt_s: stage.doubt_s, **shown(now_ms)}
      end

      private

      def on_air?(kind) = pieces_on_air(kind).any?
      def pieces_on_air(kind) = (stage.on_air || Playout::EMPTY)["pieces"].select { |piece| piece["kind"] == kind && !piece["hidden"] }

      def use(means)
        @journal = means.journal
        @store = means.stores.stages
        @ceilings = means.stores.ceilings
        @hub = means.hub
        @clock = means.clock
        @ids = means.ids
      end

      # @param conversations [Hash{String => Core::Voice::Recording}]
      def prepare_rehearsal(conversations)
        @room = RehearsalRoom.new(draft, @ids) { |line| rehearsed?(line) }
        @voice_room = VoiceRehearsal.new(@shared.voices&.call, conversations)
      end

      def playout(which, document, lines, samples: nil)
        topic = Relay::Topic.new("#{which}:#{stage.id}")
        Playout.new(topic, @hub, @shared, live:, document:, revision: stage.revision, lines:, samples:, timed: which == "air")
      end

      # @return [Array, nil] what an empty piece of the draft is drawn with, and how that is called
      def sample(piece)
        return unless Core::Style::Samples::EMPTY_AT_FIRST.include?(piece["kind"])

        [*Core::Style::Samples.of(piece, cues:), Core::Style::Samples.called(piece)]
      end

      # A rehearsal's line wears what others wear, and is judged as they are.
      #
      # @return [Core::Chat::Line, nil] as it is shown
      def rehearsed?(line)
        line.dress(@shared.wardrobe.call.emotes) if @shared.wardrobe
        @judge ? @judge.call(line) : line
      end

      def mark(line)
        case line.origin
        when :test then line.feed_id ? @marks.call(line) : TEST_MARK
        when :rehearsal then Rehearsal.mark(line.person.login)
        else @marks.call(line)
        end
      end

      # What viewers see, and on which screens.
      def shown(now_ms)
        document = stage.on_air || stage.draft
        {behind: Core::Stage::Document.behind?(document), screens: screens.cards(document, stage.revision, now_ms), most_screens:}
      end

      # @return [Integer, nil] how many there may be, where there is little room left
      def most_screens
        @ceilings.most(stage.show_id, "screens") if @ceilings.nearly?(stage.show_id, screens.all.size, "screens")
      end

      # Where things stand, for a small picture of it; a flurry is nowhere in particular.
      def boxes
        seen = stage.draft["pieces"].reject { |piece| piece["hidden"] || piece["kind"] == Core::Pieces::FlurryPiece::KEY }
        seen.map { |piece| piece.values_at("kind", *Core::Pieces::PieceKind::PLACE_NAMES) }
      end

      def edited(document)
        draft.play(document, stage.revision)
        @restyled&.call(document["house"])
        return unless stage.air_at_once

        stage.on_air = document
        air.play(document, stage.revision)
        @rests_at_ms = @clock.call + StageEditor::REST_MS
      end

      # Every edit went on air at once; now that they rest, what came of them gets a number.
      def number_rested(now_ms)
        return unless @rests_at_ms && now_ms >= @rests_at_ms

        @rests_at_ms = nil
        put_on_air(now_ms, by: editor.last_by)
      end
    end
  end
end
