# frozen_string_literal: true

require_relative "../../core/cues/event"
require_relative "../../error"
require_relative "../intake/answers"
require_relative "../part"

module Bavard
  module Live
    # What is done about alerts, stages and answers while the broadcast goes on, each a deed of whoever does it.
    class Directing < Part
      # What is done about the queue of alerts.
      #
      # @param what [String] one of the deeds that begin with cue_
      # @param waiting_id [Integer, nil] which of those that wait
      def direct_cues(what, waiting_id, by)
        about = cues.title(waiting_id)
        done = case what
               when "cue_skip" then cues.skip(now_ms)
               when "cue_pause" then cues.queue.pause
               when "cue_clear" then cues.queue.clear
               when "cue_go_on" then cues.queue.go_on || true
               when "cue_play" then cues.queue.approve(waiting_id)
               else cues.queue.remove(waiting_id)
        end
        raise Error.new("That is no longer in the queue.", field: "line") unless done

        @show.deed(what, by, about:)
      end

      # Plays what played before once more.
      def play_again(line_id, by)
        about = cues.again(line_id, now_ms)
        @show.deed("cue_again", by, about:)
      end

      # Viewers see the draft.
      #
      # @param document [Hash] the draft, checked whole
      # @return [Integer] the revision's number
      def put_on_air(stage_id, document, by)
        desk = @show.desk(stage_id)
        desk.put_on_air(now_ms, document:, by:).tap { |number| @show.deed("air", by, about: "#{desk.stage.name}, revision #{number}") }
      end

      # An earlier revision is the draft again.
      def restore(stage_id, document, number, by)
        desk = @show.desk(stage_id)
        desk.editor.edit({"do" => "replace", "document" => document}, by:)
        @show.deed("restore", by, about: "#{desk.stage.name}, revision #{number}")
      end

      # Sends a line of the show's into its chats.
      #
      # @return [Integer] the answer's id
      def answer_in_chat(text, feed_ids, by)
        text = Answers.read(text)
        @show.send_answer(text, feed_ids).tap { @show.deed("answer", by, about: text[0, 120]) }
      end

      # Something of the host's own happens, by a key.
      #
      # @param cue_id [String] of a cue for the host's own events
      def play_own(cue_id, by)
        cue = cues.own.find { |one| one["id"] == cue_id } or raise Error.new("That cue is no longer on the sheet.", field: "text")
        event = Core::Cues::Event.new(id: ids.next(now_ms), kind: "own", at_ms: now_ms, login: "", name: record.host_name, roles: ["host"],
          message: "")
        cues.play(cue, event, now_ms)
        @show.deed("cue_own", by, about: cue["name"])
      end

      # The card of whoever wrote a line.
      def introduce(line_id, by)
        person = lines.find(line_id).line.person
        shout_outs.add(person.display_name, person:) or
          raise Error.new("No stage has a shout-out piece on it, the card waits already, or the gate keeps that name off.", field: "line")
        @show.deed("shout_out", by, line_id:, about: person.login)
      end
    end
  end
end
