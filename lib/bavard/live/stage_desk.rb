# frozen_string_literal: true

require_relative "../core/look/legibility"
require_relative "../core/stage/difference"
require_relative "../core/stage/edit"
require_relative "../relay/topic"
require_relative "../store/stages"
require_relative "playout"
require_relative "rehearsal"
require_relative "screen"

module Bavard
  module Live
    # One stage of a running show: its draft and what is on air, each being played; its edits, screens and rehearsal.
    # Belongs to its show's thread.
    class StageDesk
      MOST_UNDO = 200
      MOST_TEST_LINES = 20
      TEST_MARK = ["ring", "#f3b634"].freeze
      TEST_PERSON = "test"

      attr_reader :stage, :draft, :air, :air_topic, :draft_topic, :rehearsal

      # @param stage [Store::Stages::Stage]
      # @param house [House]
      # @param marks [#call] gives the mark of a line's feed
      def initialize(stage, house, marks:, entries:)
        @stage = stage
        @house = house
        @marks = marks
        @undo = []
        @redo = []
        @screens = {}
        standing = entries.select { |entry| entry.line.id > stage.cleared_at_line }
        @draft_topic = Relay::Topic.new("draft:#{stage.id}", house.boot)
        @air_topic = Relay::Topic.new("air:#{stage.id}", house.boot)
        @draft = playout(draft_topic, stage.draft, stage.revision, entries)
        @air = playout(air_topic, stage.on_air, stage.revision, standing)
      end

      def id = stage.id

      # @return [Boolean] whether viewers see it
      def show(line)
        draft.add(line)
        air.add(line)
      end

      def pull_where(&block)
        [draft, air].each { |playout| playout.pull_where(&block) }
      end

      # @param edit [Hash] as Core::Stage::Edit takes it; edits of one "gesture", such as a drag, are undone in one step
      # @return [Hash] the edit as it was read
      # @raise [Bavard::Error]
      def edit(edit)
        gesture = edit.delete("gesture")
        done = apply(edit)
        @undo << done.undo unless gesture && gesture == @gesture
        @gesture = gesture
        @undo.shift if @undo.size > MOST_UNDO
        @redo.clear
        done.edit
      end

      def undo
        step(@undo, @redo)
      end

      def redo
        step(@redo, @undo)
      end

      def put_on_air(now_ms)
        document = Store::Stages.checked(stage.draft)
        number = stage.last_number += 1
        @house.journal.later { @house.stages.put_on_air(id, number, document, now_ms) }
        stage.on_air = document
        stage.revision = number
        air.play(stage.on_air, number)
        draft.play(stage.draft, number)
        number
      end

      # @return [Array<String>] what is edited but not on air, in words
      def changes
        return [] if stage.on_air.nil? && stage.draft["pieces"].empty?

        Core::Stage::Difference.between(stage.on_air, stage.draft)
      end

      # Puts marked lines on this link's screens, and nowhere else.
      def send_test(count, now_ms)
        count = count.clamp(1, MOST_TEST_LINES)
        (1..count).each do |number|
          said = Core::Said.new(TEST_PERSON, "Test #{number} of #{count}", TEST_MARK.last, [],
            "This is a test line from Bavard, number #{number}.", false, false)
          intake = Core::Intake.new(:line, nil, nil, nil, now_ms, said)
          air.add(Core::Chat::Line.from(intake, id: @house.ids.next(now_ms), origin: :test))
        end
      end

      def clear_air(last_line_id)
        air.clear
        @house.journal.later { @house.stages.keep_cleared(id, last_line_id) }
      end

      def clear_draft
        draft.clear
      end

      def rehearse(script, now_ms)
        @rehearsal = script && Rehearsal.new(script, @house.people, now_ms)
      end

      def renew_link
        @house.hub.close(air_topic)
        token = stage.token = Store::Stages.new_token
        @house.journal.later { @house.stages.keep_token(id, token) }
        token
      end

      def backdrop=(name)
        @house.journal.later { @house.stages.keep_backdrop(id, name) }
        stage.backdrop = name
      end

      # Moves on whatever time moves on.
      # @yieldparam line a rehearsal's line, before it is drawn; true where the gate lets it through
      def advance(now_ms)
        while rehearsal && (line = rehearsal.line(now_ms, @house.ids))
          draft.add(line) if yield(line)
        end
        draft.flush(now_ms)
        air.flush(now_ms)
      end

      def due_ms
        [draft.due_ms, air.due_ms, rehearsal&.due_ms].compact.min
      end

      def screen_opened(connection, now_ms)
        @screens[connection.id] = Screen.new(connection.id, from: connection.env["REMOTE_ADDR"], now_ms:)
      end

      def screen_heard(connection, text, now_ms)
        @screens[connection.id]&.hear(text, now_ms)
      end

      def screen_closed(connection)
        @screens.delete(connection.id)
      end

      def screens = @screens.values

      # @return [Hash] for the Stage and Air pages
      def report(now_ms)
        {id:, name: stage.name, changes:, revision: stage.revision, undo: @undo.any?, redo: @redo.any?,
         rehearsing: rehearsal&.script&.key, backdrop: stage.backdrop, document: stage.draft, legibility:, standing: air.standing,
         screens: screens.map { |screen| screen.told(stage.on_air || stage.draft, stage.revision, now_ms) }}
      end

      private

      def playout(topic, document, revision, entries)
        Playout.new(topic, @house.hub, marks: method(:mark), document:, revision:, entries: entries.dup)
      end

      def mark(line)
        case line.origin
        when :test then TEST_MARK
        when :rehearsal then Rehearsal.mark(line.person.login)
        else @marks.call(line)
        end
      end

      # In words, by piece.
      def legibility
        Core::Stage::Document.chat_pieces(stage.draft).to_h { |piece| [piece["id"], Core::Look::Legibility.new(piece).words] }
      end

      def apply(edit)
        done = Core::Stage::Edit.apply(stage.draft, edit)
        document = Store::Stages.checked(done.document)
        @house.journal.later { @house.stages.keep_draft(id, document) }
        stage.draft = done.document
        draft.play(done.document, stage.revision)
        done
      end

      def step(from, to)
        @gesture = nil
        edit = from.pop or return
        to << apply(edit).undo
      end
    end
  end
end
