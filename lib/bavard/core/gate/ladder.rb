# frozen_string_literal: true

require_relative "../../error"
require_relative "command_lines"
require_relative "left_out"
require_relative "verdict"

module Bavard
  module Core
    module Gate
      # The ordered rules that decide what may go on screen. The first that speaks decides.
      #
      #   ladder = Ladder.from(document)   # the show's gate as it is kept
      #   ladder.judge(line).action        # => :pass or :drop
      class Ladder
        DEFAULT = {
          "command_lines" => {"on" => true, "prefixes" => ["!"]},
          "left_out" => {"on" => true, "names" => []}
        }.freeze
        # What a line that a rule kept off is called, by the rule's name.
        LABELS = [CommandLines, LeftOut].to_h { |rule| [rule::NAME, rule::LABEL] }.freeze
        MOST_PREFIXES = 12
        LONGEST_PREFIX = 8
        MOST_NAMES = 5000
        LONGEST_NAME = 80

        # @param document [Hash] as in DEFAULT
        # @return [Ladder]
        def self.from(document)
          rules = []
          commands = document.fetch("command_lines")
          left_out = document.fetch("left_out")
          rules << CommandLines.new(commands.fetch("prefixes")) if commands["on"]
          rules << LeftOut.new(left_out.fetch("names")) if left_out["on"]
          new(rules)
        end

        # What a form says about the gate, made into a document.
        #
        # @param prefixes [String] separated by spaces
        # @param names [String] one a line, or separated by commas
        # @raise [Bavard::Error] naming the field
        def self.document(commands_on:, prefixes:, left_out_on:, names:)
          prefixes = prefixes.split(/\s+/).reject(&:empty?).uniq
          names = names.split(/[\n,]+/).map(&:strip).reject(&:empty?).uniq
          refuse("prefixes", prefixes, MOST_PREFIXES, LONGEST_PREFIX)
          refuse("names", names, MOST_NAMES, LONGEST_NAME)
          {"command_lines" => {"on" => commands_on, "prefixes" => prefixes},
           "left_out" => {"on" => left_out_on, "names" => names}}
        end

        def self.refuse(field, list, most, longest)
          raise Error.new("There is room for #{most} #{field}; these are #{list.size}.", field:, value: list.size) if list.size > most

          long = list.find { |entry| entry.length > longest }
          raise Error.new("“#{long[0, 24]}…” is longer than #{longest} characters.", field:, value: long) if long
        end
        private_class_method :refuse

        def initialize(rules)
          @rules = rules
        end

        # @param line [Chat::Line]
        # @return [Verdict]
        def judge(line)
          @rules.each do |rule|
            verdict = rule.judge(line)
            return verdict if verdict
          end
          PASS
        end
      end
    end
  end
end
