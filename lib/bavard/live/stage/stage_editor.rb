# frozen_string_literal: true

require_relative "../../core/stage/difference"
require_relative "../../core/stage/edit"
require_relative "../../store/stages"

module Bavard
  module Live
    # The draft of one stage being edited: every edit a small named change, with its way back; what waits to go on air;
    # and numbered revisions. Belongs to its show's thread.
    class StageEditor
      MOST_UNDO = 2000
      # The draft is written this long after an edit at the latest, whatever comes.
      KEEP_EVERY_MS = 200
      # Where every edit goes on air at once, a revision is numbered when they rest.
      REST_MS = 1000
      # undo:: the edit that takes it back; by:: who did it
      Step = Struct.new(:undo, :by)

      # @param stage [Store::Stages::Stage]
      # @param journal [Journal]
      # @param ceilings [Store::Ceilings]
      # @yieldparam document [Hash] each new draft
      def initialize(stage, journal, ceilings, &changed)
        @stage = stage
        @journal = journal
        @ceilings = ceilings
        @changed = changed
        @undo = []
        @redo = []
        @kept = stage.draft
        @told = stage.draft
        @kept_at_ms = 0
        @at = 0
      end

      # @return [Integer] how often the draft was changed: whoever edits tells by it what came before and what after
      attr_reader :at

      # @param edit [Hash] as Core::Stage::Edit takes it; edits of one "gesture", such as a drag, are undone in one step
      # @param by [String, nil] who does it
      # @return [Hash] the edit as it was read
      # @raise [Bavard::Error]
      def edit(edit, by: nil)
        gesture = edit.delete("gesture")
        done = apply(edit) { |document| room(document) }
        remember(done.undo, by, joined: gesture && gesture == @gesture)
        @gesture = gesture
        @redo.clear
        done.edit
      end

      # @return [Hash, nil] what was done
      def undo = step(@undo, @redo)
      def redo = step(@redo, @undo)
      # @return [String, nil] who did the last edit
      def last_by = @undo.last&.by
      def undo? = @undo.any?
      def redo? = @redo.any?

      # The show's colours and faces were changed on another stage.
      def adopt(house_style)
        keep(@stage.draft.merge("house" => house_style)) unless @stage.draft["house"] == house_style
      end

      # @return [Array<String>] what is edited but not on air, in words
      def changes
        return @changes if @compared == [@stage.on_air, @stage.draft].map(&:object_id)

        @compared = [@stage.on_air, @stage.draft].map(&:object_id)
        @changes = nothing_yet? ? [] : Core::Stage::Difference.between(@stage.on_air, @stage.draft)
      end

      # @param document [Hash] the draft, checked whole
      # @return [Integer] the revision's number
      def put_on_air(document, now_ms, by: nil)
        number = @stage.last_number += 1
        id = @stage.id
        @journal.deed(:stages, :put_on_air, id, number, document, now_ms, by:)
        @stage.on_air = document
        @stage.revision = number
      end

      # Takes the draft back to what is on air; can be undone.
      def set_back(by: nil)
        raise Error, "Nothing is on air yet that it could be set back to." unless @stage.on_air

        edit({"do" => "replace", "document" => @stage.on_air.merge("house" => @stage.draft["house"])}, by:)
      end

      # Where every edit goes on air at once.
      def air_at_once=(wanted)
        @stage.air_at_once = wanted
        id = @stage.id
        @journal.deed(:stages, :keep_air_at_once, id, wanted)
      end

      # Writes what is to be kept, now and then.
      def flush(now_ms)
        return if @kept.equal?(@stage.draft) || now_ms - @kept_at_ms < KEEP_EVERY_MS

        @kept_at_ms = now_ms
        @kept = document = @stage.draft
        id = @stage.id
        @journal.deed(:stages, :keep_draft, id, document)
      end

      # @return [Integer, nil] when {#flush} has something to do
      def due_ms = @kept.equal?(@stage.draft) ? nil : @kept_at_ms + KEEP_EVERY_MS

      # @return [Hash] for the Stage's bar
      def report = {changes:, undo: undo?, redo: redo?, air_at_once: @stage.air_at_once}

      # What has changed in the draft since it was last told, for pages that edit it.
      #
      # @param whole [Boolean] all of it
      # @return [Hash, nil]
      def news(whole: false)
        before = @told
        return if !whole && before.equal?(@stage.draft)

        @told = @stage.draft unless whole
        known = whole ? {} : before["pieces"].to_h { |piece| [piece["id"], piece] }
        changed = @stage.draft["pieces"].reject { |piece| known[piece["id"]].equal?(piece) }
        {id: @stage.id, at: @at, **@stage.draft.slice(*Core::Stage::Document::SIZE.keys, "house"),
         order: @stage.draft["pieces"].map { |piece| piece["id"] }, pieces: changed}
      end

      private

      def nothing_yet? = @stage.on_air.nil? && @stage.draft["pieces"].empty?

      def remember(undo, by, joined:)
        if joined && @undo.any?
          @undo.last.undo = Core::Stage::Edit.joined(@undo.last.undo, undo)
        else
          @undo << Step.new(undo, by)
          @undo.shift if @undo.size > MOST_UNDO
        end
      end

      # @raise [Bavard::Error] where a show may have no more pieces on a stage
      def room(document)
        @ceilings.room_within(@stage.show_id, "pieces", @stage.draft["pieces"].size, document["pieces"].size)
      end

      def apply(edit)
        done = Core::Stage::Edit.apply(@stage.draft, edit)
        yield done.document if block_given?
        keep(done.document)
        done
      end

      def keep(document)
        @at += 1
        @stage.draft = document
        @changed.call(document)
      end

      def step(from, to)
        @gesture = nil
        step = from.pop or return
        done = apply(step.undo)
        to << Step.new(done.undo, step.by)
        done.edit
      end
    end
  end
end
