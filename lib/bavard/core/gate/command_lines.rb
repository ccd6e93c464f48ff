# frozen_string_literal: true

require_relative "verdict"

module Bavard
  module Core
    module Gate
      # Drops lines that talk to a program, such as "!ring K41207": a prefix with a word right behind it.
      # "!!!" and "? what" are somebody's feelings, not commands, and pass.
      class CommandLines
        NAME = "command_lines"
        LABEL = "command line"

        # @param prefixes [Array<String>] such as ["!"]
        def initialize(prefixes)
          @pattern = /\A(?:#{Regexp.union(prefixes)})[\p{L}\p{N}]\S*/ unless prefixes.empty?
        end

        # @param line [Chat::Line]
        # @return [Verdict, nil] nil where the rule has nothing to say
        def judge(line)
          return if @pattern.nil? || line.kind == :action

          seen = line.text[@pattern]
          Verdict.new(:drop, NAME, seen) if seen
        end
      end
    end
  end
end
