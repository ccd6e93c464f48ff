# frozen_string_literal: true

require_relative "../../core/gate/ladder"
require_relative "../../core/gate/sets"
require_relative "rule_counts"

module Bavard
  module Live
    # Where a show's lines are judged: its sets of rules, what they remember, and the brake. Belongs to its show's thread.
    class Gatehouse
      # People whose first line is remembered; beyond it the database knows, at the next start.
      MOST_KNOWN = 200_000

      attr_reader :document, :ladder, :memory, :brake, :left_out

      # @param document [Hash] as Core::Gate::Settings reads it
      # @param left_out [Array<Core::Gate::LeftOut::Entry>]
      # @param first_seen [Hash{String => Integer}] by person's key
      def initialize(document, left_out: [], first_seen: {})
        @left_out = Core::Gate::LeftOut.new(left_out)
        @first_seen = first_seen
        @memory = Core::Gate::Memory.new(left_out: @left_out, first_seen: ->(key) { @first_seen[key] })
        @counts = RuleCounts.new
        @uses = 0
        use(document)
      end

      # @param ladder [Core::Gate::Ladder, nil] of the set in force, where it is made already
      def use(document, ladder = nil)
        @version = nil unless @document && Core::Gate::Settings.in_force(@document).equal?(Core::Gate::Settings.in_force(document))
        @document = document
        @uses += 1
        @brake = Core::Gate::Brake.from(document["brake"])
        @ladder = ladder || Core::Gate::Ladder.from(Core::Gate::Settings.in_force(document)["rules"])
        @rehearsed = Core::Gate::Memory.new(left_out: @left_out, first_seen: ->(key) { @first_seen[key] })
      end

      # @return [Core::Chat::Hold::Settings] how lines are held by the document and the brake
      def hold_settings = Core::Gate::Settings.hold_settings(document, brake)

      # @return [Boolean] whether everything waits for somebody
      def holds_all? = brake&.kind == "hold_all"

      # @return [Boolean] whether the brake takes chat off the picture
      def off_picture? = brake&.off_picture? || false

      # Judges a line that came in, and remembers it.
      #
      # @return [Core::Gate::Verdict]
      def hear(line)
        verdict = @ladder.hear(line, @memory)
        know(line) unless line.event?
        verdict = brake.on(verdict, line.person.roles) if brake
        @counts.count(line.arrived_at_ms, verdict.findings.map(&:rule).uniq) if verdict.findings.any?
        verdict
      end

      # Judges a line that was changed: by what it says now, and not by what was said before it, which it would repeat.
      #
      # @return [Core::Gate::Verdict]
      def hear_again(line)
        memory = Core::Gate::Memory.new(left_out: @left_out, first_seen: ->(key) { @first_seen[key] })
        verdict = @ladder.judge(line, memory)
        brake ? brake.on(verdict, line.person.roles) : verdict
      end

      # @return [Core::Gate::Verdict] of a made-up line, by what made-up lines came before it
      def rehearse(line) = @ladder.hear(line, @rehearsed)

      # A name that stands on the picture without a line.
      #
      # @return [String, nil] what may be seen of it; nil: nothing
      def called(login, name, now_ms)
        person = Core::Chat::Person.new(nil, login, name, nil, [])
        line = Core::Chat::Line.new(0, nil, nil, person, :said, "", [], now_ms)
        @ladder.called(Core::Gate::Sight.new(line), @memory)
      end

      # Words that stand on the picture without a line, and come from elsewhere.
      #
      # @return [String] what may be seen of them, perhaps nothing
      def shown_words(text, now_ms)
        return "" if text.to_s.empty?

        said = Core::Said.new("somebody", nil, nil, [], text, false, false)
        line = Core::Chat::Line.from(Core::Intake.new(:line, nil, nil, nil, now_ms, said), id: 0)
        verdict = @ladder.judge(line, @rehearsed)
        verdict.pass? ? verdict.shown&.text || line.text : ""
      end

      # @return [Object] another one whenever other names may be seen
      def names_revision = [@uses, left_out.changes]

      # @return [String] of the rules in force
      def version = @version ||= Core::Gate::Sets.version(document)

      # What rules did before this process began.
      def recount(at_ms, rule, times) = rule && @counts.count(at_ms, [rule], times)

      # @return [Integer, nil] when the brake is over
      def due_ms = brake&.until_ms
      def brake_over?(now_ms) = brake&.over?(now_ms) || false

      # @return [Hash] for the host's pages
      def report(now_ms)
        {rules: @counts.at(now_ms), in_force: document["in_force"], version:, sets: document["sets"].map { |set| set["name"] },
         left_out: left_out.size, hold: document["hold"], brake: brake_report(now_ms)}
      end

      # @param person [Core::Chat::Person] whoever comes by that name from now on was never here
      def forget(person)
        @first_seen.delete(person.key)
        [@memory, @rehearsed].each { |memory| memory.forget_person(person) }
      end

      private

      def know(line)
        key = line.person.key
        return if @first_seen.key?(key)

        @first_seen.shift if @first_seen.size >= MOST_KNOWN
        @first_seen[key] = line.arrived_at_ms
      end

      def brake_report(now_ms)
        brake && {kind: brake.kind, words: Core::Gate::Brake::KINDS[brake.kind], roles: brake.roles, per_minute: brake.per_minute, by: brake.by,
                  left: brake.until_ms && [brake.until_ms - now_ms, 0].max}
      end
    end
  end
end
