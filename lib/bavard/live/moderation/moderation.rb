# frozen_string_literal: true

require_relative "../../core/gate/left_out"
require_relative "../../core/moderation/deed"
require_relative "../../error"
require_relative "../part"

module Bavard
  module Live
    # What people with a role do about lines and people while the broadcast goes on. Each is a deed that everybody with a role
    # sees at once, with who and when, and that can be taken back. For use inside {Show#ask} only.
    class Moderation < Part
      # Takes a line away, or keeps it from coming.
      def pull_line(line_id, by)
        kept = lines.find(line_id)
        was = kept.state.name
        already(line_id, "pull") unless lines.pull(kept, by, now_ms)
        deed("pull", by, line_id:, about: kept.line.person.login, detail: {"was" => was.name})
      end

      # Sends a held line on at once, brings a pulled one back, and shows one that a rule kept off.
      def let_line_go(line_id, by)
        kept = lines.find(line_id)
        @show.lane(kept.lane_id)
        was = kept.state.name
        lines.let_go(kept, by, now_ms)
        deed("let_go", by, line_id:, about: kept.line.person.login, detail: {"was" => was.name})
      end

      # @param until_ms [Integer, nil] nil: until taken back
      def leave_out(name, by, feed_id: nil, until_ms: nil)
        name = name.to_s.strip.delete_prefix("@")[0, 120]
        raise Error.new("Somebody to be left out has a name.", field: "name") if Core::Gate::LeftOut.key(name).empty?

        entry = Core::Gate::LeftOut::Entry.new(name, feed_id, until_ms)
        keep_out(entry, by)
        gone = lines.standing_where { |kept| entry.is?(kept.line.person) }.map do |kept|
          [kept.id, kept.state.name.name].tap do
            lines.pull(kept, by, now_ms)
          end
        end
        deed("leave_out", by, about: name, detail: {"feed" => feed_id, "until" => until_ms, "lines" => gone})
      end

      # Somebody is left out no more.
      #
      # @raise [Bavard::Error] where they are not
      def take_back(name, by, feed_id: nil)
        entry = let_in(name, feed_id) or raise Error.new("“#{name}” is not left out.", field: "name", value: name)
        deed("take_back", by, about: entry.name, detail: {"feed" => entry.feed_id, "until" => entry.until_ms})
      end

      # @param on [Boolean] whether it is pinned from now on
      # @raise [Bavard::Conflict] where it is so already
      def pin_line(line_id, on, by)
        kept = lines.find(line_id)
        already(line_id, "pin") unless prompter.pin(line_id, on)
        deed(on ? "pin" : "unpin", by, line_id:, about: kept.line.person.login)
      end

      # A line that stands large does so no more: it was taken away.
      def small_again(line_id) = (enlarge_again(nil) if prompter.large == line_id)

      # The line that is being answered stands on the stages large until it is taken off.
      #
      # @param line_id [Integer, nil]
      def enlarge(line_id, by)
        before = prompter.large
        lines.find(line_id) if line_id
        enlarge_again(line_id)
        about = lines[line_id || before]
        deed(line_id ? "large" : "small", by, line_id: line_id || before, about: about && about.line.person.login, detail: {"before" => before})
      end

      # @param mark [String] read or answered
      def mark_line(line_id, mark, on, by)
        kept = lines.find(line_id)
        raise Error.new("A line is marked as read or answered.", field: "mark", value: mark) unless Core::Moderation::Deed::MARKS.include?(mark)

        prompter.mark(line_id, mark, on)
        deed(on ? mark : "unmark", by, line_id:, about: kept.line.person.login, detail: {"mark" => mark})
      end

      # @param text [String] what moderators should know of somebody of that feed
      # @raise [Bavard::Gone] where the feed is gone
      def note_person(feed_id, login, text, by)
        @show.lane(feed_id)
        text = text.to_s.scrub("").strip[0, Store::People::LONGEST_NOTE]
        at_ms = now_ms
        journal.behind(id, :note, feed_id, login, text, by, at_ms)
        deed("note", by, about: login, detail: {"feed" => feed_id, "text" => text[0, 200]})
      end

      # A viewer is to be forgotten: nothing of what they wrote is left in what runs. See {Store::Erasing} for what is kept.
      def erase(feed_id, login, by)
        prompter.erase(lines.erase(feed_id, login, by, now_ms), login)
        gatehouse.forget(Core::Chat::Person.new(feed_id, login, login))
      end

      # Remembers and tells what somebody did.
      #
      # @return [Core::Moderation::Deed]
      def deed(what, by, line_id: nil, about: nil, detail: {})
        deed = Core::Moderation::Deed.new(id: ids.next(now_ms), at_ms: now_ms, by:, what:, line_id:, about:, detail:)
        kept = deed.dup
        journal.deed(:deeds, :add, id, kept)
        prompter.deed(deed)
        @show.small_leads.deed(deed)
        deed
      end

      def enlarge_again(line_id)
        kept = line_id && lines[line_id]
        prompter.large = kept && line_id
        desks.each_value { |desk| desk.enlarge(kept&.line&.as_shown(kept.verdict.shown, wardrobe.emotes)) }
      end

      # @param entry [Core::Gate::LeftOut::Entry] of somebody who is left out from now on
      def keep_out(entry, by)
        gatehouse.left_out.add(entry)
        journal.deed(:left_out, :add, id, entry, now_ms, by)
      end

      # @return [Core::Gate::LeftOut::Entry, nil] of somebody who is left out no more
      def let_in(name, feed_id)
        gatehouse.left_out.take_back(name, feed_id)&.tap { |entry| journal.deed(:left_out, :take_back, id, entry.name, entry.feed_id) }
      end

      private

      # @raise [Bavard::Conflict] two acted at once
      def already(line_id, what)
        before = prompter.last_deed(line_id, what)
        raise Conflict.new(before ? "#{before.by} #{before.words} that line a moment ago." : "That line was taken away already.", field: "line")
      end
    end
  end
end
