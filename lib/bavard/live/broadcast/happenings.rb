# frozen_string_literal: true

require_relative "../../core/cues/event"
require_relative "../../core/gate/sight"
require_relative "flurry_findings"
require_relative "../part"

module Bavard
  module Live
    # What comes of what happens in a running show: cues, what is counted for challenges and goals, commands and shout-outs. Part
    # of {Show}; for use in its thread only.
    class Happenings < Part
      # Within this, the same goal was reached once.
      SAME_MS = 10_000
      # What was said longer ago is no command any more.
      COMMAND_MS = 20_000

      # Something happened that challenges may count.
      #
      # @param event [Core::Cues::Event]
      def counted(event) = desks.each_value { |desk| told_ended(desk.happened(event, now_ms)) }

      # What may go on screen may be a cue for something.
      #
      # @param line [Core::Chat::Line] as it is shown
      def cue(line)
        now = now_ms
        cues.happened(line, now, first: tallies.first?(line.id)) unless line.kind == :said
        shout_outs.visited(line, now) if line.kind == :visit
      end

      # @return [Array<Array(String, String)>] ids of cues that do not all they say, and why
      def cue_findings = cues.findings + FlurryFindings.new(wardrobe, desks.each_value).of(cues.document["cues"])

      # What came of lines that were pulled or deleted.
      def pull_cues(&) = [cues, shout_outs].each { |played| played.pull_where(now_ms, &) }

      # A line may be a command: for counters, and for shout-outs.
      #
      # @param line [Core::Chat::Line]
      def said(line)
        now = now_ms
        return if intake_over?(line, now) || gatehouse.left_out.find(line.person, now)

        roles = line.person.roles
        desks.each_value { |desk| desk.said(line.text, roles, now) }
        shout_outs.said(line, roles, now)
      end

      # A goal or a challenge has come to something: the cue sheet says what happens then. Of several stages that show the same, it is
      # told once.
      #
      # @param how [String] milestone, reached or missed
      # @param number [Integer, nil] of a milestone, in hundredths of the way
      def reached(piece, how, number = nil)
        now = now_ms
        title = Core::Cues::Goal.called(piece)
        return if now - (@ended ||= {}).fetch([title, how, number], 0) < SAME_MS

        @ended[[title, how, number]] = now
        cues.happen(Core::Cues::Event.new(id: ids.next(now), kind: how, at_ms: now, login: "", name: title, roles: [], number:, message: ""), now)
      end

      # Moves on what was counted, cues and shout-outs.
      def play(now)
        tallies.advance(now)
        cues.advance(now)
        cues.take_added.each { |to, number| desks.each_value { |desk| told_ended(desk.add_to(to, number)) } }
        shout_outs.advance(now)
        play_cue(now) if cues.changed?
      end

      # @param told [Array<Array(Hash, String, Integer)>] challenges, what they came to, and which
      def told_ended(told) = told.each { |piece, how, number| reached(piece, how, number) }

      private

      def play_cue(now)
        card = cues.card(wardrobe)
        draft_only = cues.where == :draft
        desks.each_value { |desk| desk.alert(card, draft_only:) }
        return sounding.over(now) unless cues.begun?

        begin_cue(now, draft_only)
        @show.small_leads.played(cues.title(nil)) unless draft_only
      end

      # @return [String, nil] of the alerts on air that play events of that kind
      def chime(kind)
        pieces = desks.each_value.flat_map { |desk| desk.alerts_of(kind) }
        pieces.map { |piece| piece["chime"] }.find { |chime| chime != "none" }
      end

      def intake_over?(line, now) = now - line.shown_at_ms > COMMAND_MS

      # What is there besides its words: emotes that fly, and a sound.
      def begin_cue(now, draft_only)
        wish = cues.wish(wardrobe)
        desks.each_value { |desk| desk.fly(wish, now, draft_only:) } if wish
        heard = cues.playing.heard(chime(cues.playing.kind))
        heard ? sounding.play(heard, now, cues.length_ms) : sounding.stop
      end
    end
  end
end
