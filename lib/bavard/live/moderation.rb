# frozen_string_literal: true

require_relative "../error"
require_relative "../store/deeds"
require_relative "directing"
require_relative "undoing"

module Bavard
  module Live
    # What people with a role do about lines and people while the broadcast goes on. Each is a deed that everybody with a role
    # sees at once, with who and when, and that can be taken back. For use inside {Show#ask} only.
    module Moderation
      include Directing
      include Undoing

      # What each deed is called, in a sentence about somebody who did it.
      DEEDS = {
        "pull" => "pulled", "let_go" => "let go", "leave_out" => "left out", "take_back" => "took back", "pin" => "pinned", "unpin" => "unpinned",
        "large" => "put on the stage large", "small" => "took off the stage", "read" => "marked as read", "answered" => "marked as answered",
        "unmark" => "unmarked", "note" => "noted about", "rules" => "changed the rules", "brake" => "used the brake", "hold" => "changed the hold",
        "role" => "changed the role of", "invite" => "invited", "remove" => "removed",
        "cue_skip" => "skipped an alert", "cue_pause" => "paused alerts", "cue_go_on" => "let alerts go on", "cue_play" => "let an alert play",
        "cue_off" => "took an alert out", "cue_clear" => "emptied the queue of alerts", "cue_again" => "played an alert again",
        "cue_own" => "played a cue", "shout_out" => "introduced", "air" => "put on air", "restore" => "brought back",
        "answer" => "answered in chat:", "begin" => "began the broadcast", "end" => "ended the broadcast"
      }.freeze

      # Takes a line away, or keeps it from coming.
      def pull_line(line_id, by)
        noted = prompter.find(line_id)
        already(line_id, "pull") if noted.state == "pulled"
        was = noted.state
        take_away(line_id)
        deed("pull", by, line_id:, about: noted.line.person.login, detail: {"was" => was})
      end

      # Sends a held line on at once, brings a pulled one back, and shows one that a rule kept off.
      def let_line_go(line_id, by)
        noted = prompter.find(line_id)
        lane(noted.lane_id)
        was = noted.state
        case was
        when "held", "waits" then gatehouse.let_go(line_id)
        when "pulled" then send_on_again(noted)
        when "off", "left" then show_now(noted)
        else raise Error.new("That line is on the picture already, or no stage takes it in.", field: "line")
        end
        deed("let_go", by, line_id:, about: noted.line.person.login, detail: {"was" => was})
      end

      # @param until_ms [Integer, nil] nil: until taken back
      def leave_out(name, by, feed_id: nil, until_ms: nil)
        name = name.to_s.strip.delete_prefix("@")[0, 120]
        raise Error.new("Somebody to be left out has a name.", field: "name") if Core::Gate::LeftOut.key(name).empty?

        entry = Core::Gate::LeftOut::Entry.new(name, feed_id, until_ms)
        gatehouse.left_out.add(entry)
        at_ms = now_ms
        @house.journal.deed(:left_out, :add, id, entry, at_ms, by)
        gone = prompter_lines_of(name, feed_id).map { |line_id| [line_id, prompter[line_id].state].tap { take_away(line_id) } }
        deed("leave_out", by, about: name, detail: {"feed" => feed_id, "until" => until_ms, "lines" => gone})
      end

      def take_back(name, by, feed_id: nil)
        entry = gatehouse.left_out.take_back(name, feed_id) or raise Error.new("“#{name}” is not left out.", field: "name", value: name)
        @house.journal.deed(:left_out, :take_back, id, entry.name, entry.feed_id)
        deed("take_back", by, about: entry.name, detail: {"feed" => entry.feed_id, "until" => entry.until_ms})
      end

      def pin_line(line_id, on, by)
        noted = prompter.find(line_id)
        already(line_id, "pin") unless prompter.pin(line_id, on)
        deed(on ? "pin" : "unpin", by, line_id:, about: noted.line.person.login)
      end

      # The line that is being answered stands on the stages large until it is taken off.
      #
      # @param line_id [Integer, nil]
      def enlarge(line_id, by)
        before = prompter.large
        prompter.find(line_id) if line_id
        enlarge_again(line_id)
        about = prompter[line_id || before]
        deed(line_id ? "large" : "small", by, line_id: line_id || before, about: about && about.line.person.login, detail: {"before" => before})
      end

      # @param mark [String] read or answered
      def mark_line(line_id, mark, on, by)
        noted = prompter.find(line_id)
        raise Error.new("A line is marked as read or answered.", field: "mark", value: mark) unless PrompterDesk::MARKS.include?(mark)

        prompter.mark(line_id, mark, on)
        deed(on ? mark : "unmark", by, line_id:, about: noted.line.person.login, detail: {"mark" => mark})
      end

      def note_person(feed_id, login, text, by)
        lane(feed_id)
        text = text.to_s.scrub("").strip[0, Store::People::LONGEST_NOTE]
        at_ms = now_ms
        @house.journal.behind(id, :note, feed_id, login, text, by, at_ms)
        deed("note", by, about: login, detail: {"feed" => feed_id, "text" => text[0, 200]})
      end

      # Remembers and tells what somebody did.
      #
      # @return [Store::Deeds::Deed]
      def deed(what, by, line_id: nil, about: nil, detail: {})
        deed = Store::Deeds::Deed.new(id: @house.ids.next(now_ms), at_ms: now_ms, by:, what:, line_id:, about:, detail:)
        kept = deed.dup
        @house.journal.deed(:deeds, :add, id, kept)
        prompter.deed(deed)
        deed
      end

      private

      def take_away(line_id)
        return if prompter[line_id].nil? || prompter[line_id].state == "pulled"

        gatehouse.pull(line_id)
        desks.each_value { |desk| desk.pull_where { |line| line.id == line_id } }
        @reception.take_off(line_id)
        lanes.each_value { |lane| lane.pull_where { |line| line.id == line_id } }
        mark_in_log(:pull_line, line_id)
        prompter.enter(line_id, "pulled")
        enlarge_again(nil) if prompter.large == line_id
        pull_cues { |line| line.id == line_id }
        true
      end

      # At once where it is written already, and behind it where it is not yet.
      def mark_in_log(how, line_id)
        @house.journal.deed(:lines, how, line_id)
        @house.journal.behind(id, how, line_id)
      end

      # Where it was: on hold with the time it had left, or on the picture where its time is not over.
      #
      # @return [Symbol, nil] :held, :aired, :draft or :nowhere; nil where nothing remembers it
      def bring_back(line_id)
        mark_in_log(:put_back, line_id)
        lanes.each_value { |lane| lane.put_back(line_id) }
        return :held if gatehouse.put_back(line_id)

        wheres = desks.each_value.map { |desk| desk.put_back(line_id) }
        StageDesk::PLACES.find { |where| wheres.include?(where) }
      end

      # Somebody lets go what was pulled: it does not wait any more, and what never was on the picture goes there now.
      def send_on_again(noted)
        line_id = noted.line.id
        where = bring_back(line_id)
        return show_now(noted) unless where

        prompter.enter(line_id, where.to_s)
        gatehouse.let_go(line_id) if where == :held
      end

      def enlarge_again(line_id)
        noted = line_id && prompter[line_id]
        prompter.large = noted && line_id
        desks.each_value { |desk| desk.enlarge(noted && large_line(noted)) }
      end

      def large_line(noted) = noted.line.as_shown(noted.verdict.shown, wardrobe.emotes)

      # A rule kept it off, or nobody let it go in time; now somebody does.
      def show_now(noted)
        line = noted.line.as_shown(noted.verdict.shown, wardrobe.emotes).dup
        line.shown_at_ms = now_ms
        where = @reception.show(lane(noted.lane_id), line)
        steps = [["let go", now_ms, nil], ["shown", now_ms, where]]
        outcome = Store::Lines::Outcome.new(line.id, where == :aired, false, steps, now_ms)
        @house.journal.settle(id, outcome)
        prompter.enter(line.id, where.to_s)
      end

      def prompter_lines_of(name, feed_id)
        key = Core::Gate::LeftOut.key(name)
        prompter.lines_where do |line|
          (feed_id.nil? || line.feed_id == feed_id) && [line.person.login, line.person.display_name].any? { |one| Core::Gate::LeftOut.key(one) == key }
        end
      end

      # @raise [Bavard::Error] two acted at once
      def already(line_id, what)
        before = prompter.last_deed(line_id, what)
        raise Error.new(before ? "#{before.by} #{DEEDS[what]} that line a moment ago." : "That line was taken away already.", field: "line")
      end
    end
  end
end
