# frozen_string_literal: true

require_relative "../lists"
require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Lines that talk to a program, such as "!ring K41207": a prefix with a word right behind it.
      # "!!!" and "? what" are somebody's feelings, not commands, and pass.
      class CommandLines < RuleKind
        KEY = "command_lines"
        LABEL = "Command lines"
        ICON = "terminal"
        ABOUT = "Lines that talk to a program, such as “!ring K41207”."
        ACTIONS = %i[drop hold].freeze
        MOST_PREFIXES = 12
        LONGEST_PREFIX = 8
        OWN = [
          Fields::Property.text("prefixes", "they begin with, separated by spaces", 120, "!"),
          Fields::Property.text("except", "these commands may be shown, one a line", 2000)
        ].freeze

        def look(sight, _memory)
          return if @pattern.nil? || sight.line.kind == :action

          seen = sight.text[@pattern] or return
          one(seen, "a command", from: 0, to: seen.length) unless @except[seen.downcase] || @except[seen.sub(@prefix, "").downcase]
        end

        def words = @prefixes.empty? ? "No prefix is set" : "Lines that begin with #{@prefixes.join(" or ")}"

        private

        def prepare
          @prefixes = settings["prefixes"].split.uniq
          Lists.room(@prefixes, MOST_PREFIXES, LONGEST_PREFIX, "prefixes")
          @except = Lists.lines(settings["except"], most: 200, field: "except").to_h { |command| [command.downcase, true] }
          return if @prefixes.empty?

          @prefix = /\A(?:#{Regexp.union(@prefixes)})/
          @pattern = /#{@prefix}[\p{L}\p{N}]\S*/
        end
      end
    end
  end
end
