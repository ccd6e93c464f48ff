# frozen_string_literal: true

require_relative "memory"
require_relative "rules"
require_relative "sight"
require_relative "verdict"

module Bavard
  module Core
    module Gate
      # The ordered rules that decide what may go on screen. Each looks at the line as it came; a rule that drops it ends
      # the way, all others go on, and the gravest of what they say counts.
      #
      #   ladder = Ladder.from(RuleSet::DEFAULT["rules"])
      #   ladder.judge(line, memory).action   # => one of Verdict::ACTIONS
      #
      # A line with nothing to see in it stays off whatever the rules are.
      class Ladder
        UNSEEN = "unseen"
        WHY = Finding.new(UNSEEN, UNSEEN, :drop, nil, nil, nil, "there is nothing to see in it").freeze
        NOTHING_TO_SEE = Verdict.new(:drop, UNSEEN, nil, [WHY].freeze, nil).freeze

        attr_reader :rules

        # @param documents [Array<Hash>] rules as a rule set keeps them
        # @return [Ladder]
        def self.from(documents)
          new(documents.select { |rule| rule["on"] }.map { |rule| Rules.kind(rule["kind"]).new(rule) })
        end

        # @param rules [Array<RuleKind>] in their order
        def initialize(rules)
          @rules = rules
        end

        # A pure function of the line, the rules and the memory.
        #
        # @param line [Chat::Line]
        # @param memory [Memory]
        # @return [Verdict]
        def judge(line, memory)
          of(Sight.new(line), memory)
        end

        # Judges a line and remembers that it was said.
        #
        # @param sight [Sight] of the line, where there is one already
        # @return [Verdict]
        def hear(line, memory, sight = Sight.new(line))
          verdict = of(sight, memory)
          memory.note(sight)
          verdict
        end

        # What may be seen of a name that stands on the picture without a line, as in a list of the newest: by the rules that
        # look at names.
        #
        # @param sight [Sight] of a line of that person, with nothing said
        # @return [String, nil] nil: it may not stand there
        def called(sight, memory)
          findings = @rules.select { |rule| rule.class::NAMES }.flat_map { |rule| rule.judge(sight, memory) || [] }
          return if findings.any? { |finding| Verdict::GRAVITY[finding.action] >= Verdict::GRAVITY[:hold] }

          findings.find(&:name)&.name || sight.person.display_name
        end

        private

        def of(sight, memory)
          return NOTHING_TO_SEE if sight.unseen?

          findings = nil
          @rules.each do |rule|
            found = rule.judge(sight, memory) or next
            findings ? findings.concat(found) : findings = found
            break if found.first.action == :drop
          end
          findings ? verdict(sight, findings) : PASS
        end

        # The first of the gravest.
        def verdict(sight, findings)
          decides = findings.first
          findings.each { |finding| decides = finding if Verdict::GRAVITY[finding.action] > Verdict::GRAVITY[decides.action] }
          Verdict.new(decides.action, decides.rule, decides.seen, findings, decides.action == :drop ? nil : shown(sight, findings))
        end

        def shown(sight, findings)
          return if findings.none? { |finding| finding.name || finding.edits }

          name = findings.find(&:name)&.name
          edits = findings.flat_map { |finding| finding.edits || [] }
          placed = sight.line.placed || []
          shown = edits.empty? ? Shown.new(sight.text, placed) : Edits.apply(sight.text, edits, placed)
          shown.tap { shown.name = name } if name || edits.any?
        end
      end
    end
  end
end
