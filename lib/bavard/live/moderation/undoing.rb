# frozen_string_literal: true

require_relative "../../core/gate/left_out"
require_relative "../../error"
require_relative "../part"

module Bavard
  module Live
    # How deeds are taken back.
    class Undoing < Part
      # @return [Core::Moderation::Deed] taken back
      # @raise [Bavard::Error] where it was taken back already, or cannot be: {Conflict}, {Gone}
      def undo_deed(deed_id, by)
        deed = prompter.find_deed(deed_id) || raise(Gone.new("That was too long ago to be taken back here.", field: "deed"))
        raise Conflict.new("#{deed.undone_by} took that back already.", field: "deed") if deed.undone_ms

        undo(deed, by)
        deed.undone_by = by
        deed.undone_ms = at_ms = now_ms
        journal.deed(:deeds, :undone, deed_id, by, at_ms)
        prompter.deed(deed)
        deed
      end

      private

      # @raise [Bavard::Error] where that cannot be
      def undo(deed, by)
        change, *with = deed.way_back || raise(Error.new("That cannot be taken back here; set it anew where it is set.", field: "deed"))
        case change
        when :put_back then put_back_line(*with, by)
        when :take_again then take_again(*with, by)
        when :let_in then let_in_again(*with, by)
        when :leave_out then @show.moderation.keep_out(Core::Gate::LeftOut::Entry.new(*with), by)
        when :pin then prompter.pin(*with)
        when :enlarge then @show.moderation.enlarge_again(*with)
        when :mark then prompter.mark(*with)
        end
      end

      def put_back_line(line_id, by)
        kept = lines.find(line_id)
        lines.put_back(kept, by, now_ms) || kept.state.name != :deleted or
          raise Conflict.new("Its platform deleted that line since. Let it go if viewers are to see it all the same.", field: "deed")
      end

      # What went on hold goes back there only if it has not gone yet; what is on the picture leaves it.
      def take_again(line_id, was, by) = lines.take_again(lines.find(line_id), by, now_ms, off: was == "off")

      def let_in_again(name, feed_id, line_ids, by)
        @show.moderation.let_in(name, feed_id)
        line_ids.filter_map { |line_id| lines[line_id] }.each { |kept| lines.put_back(kept, by, now_ms) }
      end
    end
  end
end
