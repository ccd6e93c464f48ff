# frozen_string_literal: true

module Bavard
  module Core
    module Moderation
      # Something that somebody with a role did.
      #
      # id:: grows with time; by:: the name of whoever did it; what:: one of WORDS; line_id:: a line's, or nil; about:: somebody's login, or
      # what it was done to, or nil; detail:: Hash; undone_by, undone_ms:: who took it back, or nil
      Deed = Struct.new(:id, :at_ms, :by, :what, :line_id, :about, :detail, :undone_by, :undone_ms, keyword_init: true) do
        # @return [Array, nil] the change that takes it back, one of CHANGES with what it needs; nil where it is set anew where it is set
        def way_back
          case what
          when "pull" then [:put_back, line_id]
          when "let_go" then [:take_again, line_id, detail["was"]]
          when "leave_out" then [:let_in, about, detail["feed"], Array(detail["lines"]).map(&:first)]
          when "take_back" then [:leave_out, about, detail["feed"], detail["until"]]
          when "pin", "unpin" then [:pin, line_id, what == "unpin"]
          when "large" then [:enlarge, detail["before"]]
          when "small" then [:enlarge, line_id]
          when "read", "answered" then [:mark, line_id, what, false]
          when "unmark" then [:mark, line_id, detail["mark"], true]
          end
        end

        def way_back? = self.class::TAKEN_BACK.include?(what)

        # @return [String] what was done, in a sentence about whoever did it
        def words = self.class.words(what)
      end

      # See above.
      class Deed
        # What {#way_back} may ask for.
        CHANGES = %i[put_back take_again let_in leave_out pin enlarge mark].freeze
        # Deeds that can be taken back.
        TAKEN_BACK = %w[pull let_go leave_out take_back pin unpin large small read answered unmark].freeze
        # Deeds that last until another takes them back.
        LASTING = %w[pin unpin large small read answered unmark].freeze
        # Deeds about somebody as the writer of lines. That somebody is left out says who, for as long as it counts.
        OF_WRITERS = %w[pull let_go pin unpin large small read answered unmark note shout_out cue_again].freeze
        MARKS = %w[read answered].freeze
        WORDS = {
          "pull" => "pulled", "let_go" => "let go", "leave_out" => "left out", "take_back" => "took back", "pin" => "pinned", "unpin" => "unpinned",
          "large" => "put on the stage large", "small" => "took off the stage", "read" => "marked as read", "answered" => "marked as answered",
          "unmark" => "unmarked", "note" => "noted about", "erase" => "erased what a viewer wrote:", "keep" => "chose how long the log is kept:",
          "uninvite" => "took back the invitation of", "rules" => "changed the rules", "brake" => "used the brake", "hold" => "changed the hold",
          "role" => "changed the role of", "rename" => "named the show", "invite" => "invited", "join" => "joined", "remove" => "removed",
          "cue_skip" => "skipped an alert", "cue_pause" => "paused alerts", "cue_go_on" => "let alerts go on", "cue_play" => "let an alert play",
          "cue_off" => "took an alert out", "cue_clear" => "emptied the queue of alerts", "cue_again" => "played an alert again",
          "cue_own" => "played a cue", "shout_out" => "introduced", "air" => "put on air", "restore" => "brought back",
          "answer" => "answered in chat:", "begin" => "began the broadcast", "end" => "ended the broadcast"
        }.freeze

        # @param what [String]
        # @return [String] also of one that only a later version knows
        def self.words(what) = WORDS.fetch(what, what)
      end
    end
  end
end
