# frozen_string_literal: true

require_relative "rules"

module Bavard
  module Feeds
    module Described
      # Reads what a platform sends into intakes, by the rules of a description: the first whose condition holds says what it is.
      class Reading
        # What becomes of one item.
        #
        # state:: :begun or :ended, of the broadcast; or nil
        Read = Struct.new(:intake, :rule, :state)
        NOTHING = Read.new(nil, nil, nil).freeze

        # @param rules [Array<Rule>]
        # @param joins [Joins, nil]
        def initialize(rules, joins = nil)
          @rules = rules
          @joins = joins
          @by_word = tables
        end

        # @param frame [Object] that items came in, for what is told beside them
        # @return [Object] the item, with what stands elsewhere in its frame
        def joined(item, frame) = @joins ? @joins.with(item, frame) : item

        # @param item [Object] as it came
        # @param history [Boolean] whether it was said before we came
        # @return [Read] without a rule where no rule reads it; with one and no intake where it cannot be read, or is nothing
        def read(item, feed_id, now_ms, history: false)
          rule = rule_for(item) or return NOTHING
          intake = intake(rule, item, feed_id, now_ms, history)
          Read.new(intake, rule, STATES[rule.is])
        end

        KINDS = {"line" => :line, "edit" => :edit_line, "delete" => :delete_line,
                 "silence" => :clear_person, "clear" => :clear_all, "totals" => :totals,
                 "profile" => :profile, **Voices::KINDS.transform_values { :voice }}.freeze
        STATES = {"begun" => :begun, "ended" => :ended}.freeze
        EVENTS = Core::EVENTS.to_h { |what| [what.to_s, what] }.freeze

        private

        # Most platforms say in one field what something is: those rules are found by it, in their order among the others.
        #
        # @return [Hash{Path => Hash{String => Array<Integer>}}]
        def tables
          worded = @rules.each_with_index.select { |rule, _| rule.condition&.word }
          worded.group_by { |rule, _| rule.condition.path.text }.map do |_, all|
            [all.first.first.condition.path, all.group_by { |rule, _| rule.condition.word }.transform_values { |same| same.first.last }]
          end
        end

        def rule_for(item)
          at = by_word(item)
          others.each do |index|
            break if at && index > at

            rule = @rules[index]
            return rule if rule.condition.nil? || rule.condition.holds?(item)
          end
          at && @rules[at]
        end

        # @return [Integer, nil] the first of those whose word is there
        def by_word(item)
          first = nil
          @by_word.each do |path, table|
            at = table[path.of(item)]
            first = at if at && (first.nil? || at < first)
          end
          first
        end

        # Rules whose condition is more than one word.
        def others = @others ||= @rules.each_index.reject { |index| @rules[index].condition&.word }

        def intake(rule, item, feed_id, now_ms, history)
          body = body(rule, item, history)
          return if body.nil? && !%w[delete clear].include?(rule.is)

          id = rule.value("id", item)
          return if id.nil? && %w[delete edit].include?(rule.is)

          Core::Intake.new(KINDS.fetch(rule.is, :event), feed_id, id, rule.value("time", item), now_ms, body)
        end

        def body(rule, item, history)
          case rule.is
          when "line" then rule.said(item, history)
          when "edit" then rule.edited(item)
          when "silence" then rule.value("login", item)
          when "totals" then rule.totals(item).then { |told| told unless told.empty? }
          when "profile" then rule.profile(item)
          when "delete", "clear", "begun", "ended", "nothing" then nil
          when *Voices::KINDS.keys then rule.happening(item)
          else rule.said(item, history)&.then { |said| Core::Happened.new(EVENTS.fetch(rule.is), said, rule.value("number", item)) }
          end
        end
      end

      # Items that name others of the same frame: {"author": {"in": "users", "by": "id", "key": "author_id"}} puts the user whose id is
      # the item's author_id into the item, as its author.
      class Joins
        Join = Struct.new(:name, :list, :by, :key)
        MOST = 6
        NAME = /\A[a-z]\w{0,39}\z/

        # @param given [Hash]
        # @yieldparam name [String]
        # @yieldparam words [String]
        def initialize(given)
          @joins = given.first(MOST).filter_map do |name, one|
            unless name.match?(NAME) && one.is_a?(Hash) && one.keys.sort == %w[
              by in key
            ]
              raise ArgumentError,
                "a join has “in”, “by” and “key”, and a plain name"
            end

            Join.new(name, Path.read(one["in"]), Path.read(one["by"]), Path.read(one["key"]))
          rescue ArgumentError => error
            yield name, error.message
            nil
          end
        end

        # Each list is gone through once a frame.
        def with(item, frame)
          return item unless item.is_a?(Hash)

          item.merge(@joins.to_h { |join| [join.name, table(join, frame)[join.key.of(item)]] }.compact)
        end

        private

        def table(join, frame)
          @tables = {} unless @frame.equal?(frame)
          @frame = frame
          @tables[join.name] ||= begin
            all = join.list.of(frame)
            all = all.values if all.is_a?(Hash)
            Given.list(all).to_h { |one| [join.by.of(one), one] }
          end
        end
      end
    end
  end
end
