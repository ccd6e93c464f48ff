# frozen_string_literal: true

require_relative "../../../core/chat/line"
require_relative "../../../core/gate/ladder"
require_relative "../../../core/gate/rules"

module Bavard
  module Web
    # One line tried at the gate as somebody on some feed, with the reasoning spelled out. Nobody else sees it.
    class GateTrial
      LONGEST = 500
      ACTIONS = {pass: "Through", calm: "Calm", mask: "Mask", hold: "Hold", drop: "Drop"}.freeze

      # @param rules [Array<Hash>]
      # @param left_out [Array<Core::Gate::LeftOut::Entry>]
      # @param given [Hash] text, role, feed, name, again (how often it was said before)
      def initialize(rules, left_out, given)
        @rules = rules
        @given = given
        @text = given["text"].to_s.scrub("")[0, LONGEST]
        @memory = Core::Gate::Memory.new(left_out: Core::Gate::LeftOut.new(left_out))
      end

      # @return [Hash]
      def report
        ladder = Core::Gate::Ladder.from(@rules)
        line = line(@text)
        return {empty: true} if line.text.empty?

        before.times { ladder.hear(line(@text), @memory) }
        verdict = ladder.judge(line, @memory)
        {read_as: read_as(line.text, verdict.findings), looked: ladder.rules.size, found: verdict.findings.map { |one| finding(one) },
         action: verdict.action, words: ACTIONS.fetch(verdict.action), shown: verdict.drop? ? nil : verdict.shown&.text || line.text, text: line.text}
      end

      private

      # As the gate reads it: in plain letters, with stopped words as they stand in the list.
      def read_as(text, findings)
        words = findings.select { |one| one.kind == Core::Gate::StoppedWords::KEY }
        edits = words.map { |one| Core::Gate::Edit.new(one.from, one.to, one.why[/“(.*?)”/, 1]) }
        Core::Gate::Words::Fold.text(Core::Gate::Edits.apply(text, edits).text).gsub(/[[:cntrl:]]/, "◌")
      end

      def finding(one)
        {rule: one.rule, label: Core::Gate::Rules.label(one.rule), action: one.action, words: ACTIONS.fetch(one.action), why: one.why, from: one.from, to: one.to}
      end

      def line(text)
        role = @given["role"].to_s
        badges = role.empty? || role == Core::Gate::Sight::VIEWER ? [] : [role[0, 20]]
        name = @given["name"].to_s.strip[0, 40].then { |given| given.empty? ? "a viewer" : given }
        feed_id = @given["feed"].to_s[/\A\d{1,18}\z/]&.to_i
        said = Core::Said.new(name, name, nil, badges, text, false, false)
        Core::Chat::Line.from(Core::Intake.new(:line, feed_id, nil, nil, 0, said), id: 1)
      end

      def before = @given["again"].to_s[/\A\d{1,2}\z/].to_i
    end
  end
end
