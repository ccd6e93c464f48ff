# frozen_string_literal: true

require_relative "../core/gate/left_out"
require_relative "../error"

module Bavard
  module Live
    # How deeds are taken back. Part of {Moderation}.
    module Undoing
      # How each is taken back; run by the show.
      UNDO = {
        "pull" => ->(deed, _by) { undo_pull(deed.line_id, deed.detail["was"]) },
        "let_go" => ->(deed, _by) { undo_let_go(deed.line_id, deed.detail["was"]) },
        "leave_out" => ->(deed, _by) { undo_leave_out(deed) },
        "take_back" => ->(deed, by) { leave_out_again(deed, by) },
        "pin" => ->(deed, _by) { prompter.pin(deed.line_id, false) },
        "unpin" => ->(deed, _by) { prompter.pin(deed.line_id, true) },
        "large" => ->(deed, _by) { enlarge_again(deed.detail["before"]) },
        "small" => ->(deed, _by) { enlarge_again(deed.line_id) },
        "read" => ->(deed, _by) { prompter.mark(deed.line_id, "read", false) },
        "answered" => ->(deed, _by) { prompter.mark(deed.line_id, "answered", false) },
        "unmark" => ->(deed, _by) { prompter.mark(deed.line_id, deed.detail["mark"], true) }
      }.freeze

      # @return [Store::Deeds::Deed] taken back
      # @raise [Bavard::Error] where it was taken back already, or cannot be
      def undo_deed(deed_id, by)
        deed = prompter.find_deed(deed_id) || raise(Error.new("That was too long ago to be taken back here.", field: "deed"))
        raise Error.new("#{deed.undone_by} took that back already.", field: "deed") if deed.undone_ms

        undo(deed, by)
        deed.undone_by = by
        deed.undone_ms = at_ms = now_ms
        @house.journal.deed(:deeds, :undone, deed_id, by, at_ms)
        prompter.deed(deed)
        deed
      end

      private

      def undo(deed, by)
        undoing = UNDO[deed.what] || raise(Error.new("That cannot be taken back here; set it anew where it is set.", field: "deed"))
        instance_exec(deed, by, &undoing)
      end

      def undo_pull(line_id, was)
        prompter.find(line_id)
        held = bring_back(line_id) == :held
        prompter.enter(line_id, held || !%w[held waits].include?(was) ? was : "left")
      end

      # What went on hold goes back there only if it has not gone yet; what is on the picture leaves it.
      def undo_let_go(line_id, was)
        noted = prompter.find(line_id)
        take_away(line_id)
        prompter.enter(line_id, was == "off" ? "off" : "pulled") unless noted.state == "off"
      end

      def undo_leave_out(deed)
        gatehouse.left_out.take_back(deed.about, deed.detail["feed"])
        @house.journal.deed(:left_out, :take_back, id, deed.about, deed.detail["feed"])
        Array(deed.detail["lines"]).each { |line_id, was| undo_pull(line_id, was) if prompter[line_id] }
      end

      def leave_out_again(deed, by)
        entry = Core::Gate::LeftOut::Entry.new(deed.about, deed.detail["feed"], deed.detail["until"])
        gatehouse.left_out.add(entry)
        at_ms = now_ms
        @house.journal.deed(:left_out, :add, id, entry, at_ms, by)
      end
    end
  end
end
