# frozen_string_literal: true

module Bavard
  module Core
    module Cues
      # What an event must be for a cue: ranges of amount, months and number; feeds, people, roles; the first of its person.
      # What depends on chance and on what was played before is not here.
      class Condition
        # What of an event is asked by many cues. worth:: in whole units of its currency or of the platform's own
        Facts = Struct.new(:feed, :login, :name, :worth, :unit) do
          # @param event [Event]
          # @return [Facts] what conditions ask of it
          def self.of(event)
            amount = event.amount
            worth = amount && (amount.currency ? amount.number.fdiv(10**Amount::EXPONENTS.fetch(amount.currency, 2)) : amount.number)
            new(event.feed_id.to_s, event.login.downcase(:fold), event.name.downcase(:fold), worth, amount && (amount.currency || amount.unit))
          end
        end

        RANGES = %w[amount months number].freeze
        # The more of an event somebody named, the more they meant just that: a person before a role, an exact number before a range.
        PERSON = 64
        FIRST = 16
        ROLE = 8
        FEED = 4
        RANGE = 32

        # @param given [Hash] amount, months, number as [least, most] with nil for open ends; currency; feeds; people; roles; first
        def initialize(given)
          @ranges = RANGES.to_h { |name| [name, range(given[name])] }.compact
          @currency = given["currency"].to_s
          @feeds = Array(given["feeds"]).map(&:to_s)
          @people = Array(given["people"]).to_h { |name| [name.downcase(:fold), true] }
          @roles = Array(given["roles"])
          @first = given["first"]
          @amount = @ranges["amount"]
          @least, @most = @amount
          @others = @ranges.except("amount")
        end

        # @return [Array<String>] names it is meant for, folded; none: everybody
        def people = @people.keys

        # @param event [Event]
        # @param facts [Facts] of the same event, worked out once for all cues
        def fits?(event, facts = Facts.of(event))
          return false if @amount && !amount?(facts)
          return false if @first && !event.first_ever
          return false unless @feeds.empty? || @feeds.include?(facts.feed)
          return false unless @roles.empty? || @roles.intersect?(event.roles)
          return false unless @people.empty? || @people.key?(facts.login) || @people.key?(facts.name)

          @others.empty? || @others.all? { |name, (least, most)| (value = event[name]) && value >= least && value <= most }
        end

        # @return [Integer] the more, the more specific
        def specific
          @specific ||= (@people.empty? ? 0 : PERSON) + (@first ? FIRST : 0) + (@roles.empty? ? 0 : ROLE) + (@feeds.empty? ? 0 : FEED) +
            @ranges.sum { |_, (least, most)| RANGE + narrow(least, most) }
        end

        # @return [String, nil] why it can never be met
        def never
          name, (least, most) = @ranges.find { |_, (from, to)| to < from }
          "#{name} cannot be at least #{least} and at most #{most}" if name
        end

        # @return [Boolean] whether all that fits the other fits this one as well
        def covers?(other)
          subset?(@feeds, other.feeds) && subset?(@roles, other.roles) && subset?(@people.keys, other.people) && (!@first || other.first) &&
            (@currency.empty? || @currency == other.currency) && @ranges.all? { |name, range| within?(other.ranges[name], range) }
        end

        # @return [Boolean] whether some event can fit both
        def meets?(other)
          lists = [[@feeds, other.feeds], [@roles, other.roles], [people, other.people]]
          apart = lists.any? { |ours, theirs| ours.any? && theirs.any? && !ours.intersect?(theirs) }
          !apart && RANGES.all? { |name| crossing?(@ranges[name], other.ranges[name]) }
        end

        protected

        attr_reader :feeds, :roles, :first, :currency, :ranges

        private

        def range(given)
          least, most = given
          [least || 0, most || Float::INFINITY] if least || most
        end

        # Another currency is another thing.
        def amount?(facts)
          worth = facts.worth
          !worth.nil? && worth >= @least && worth <= @most && (@currency.empty? || @currency == facts.unit)
        end

        # An exact number is narrower than a range, a range than an open one.
        def narrow(least, most)
          return 2 if least == most

          most == Float::INFINITY ? 0 : 1
        end

        def subset?(ours, theirs) = ours.empty? || (theirs.any? && (theirs - ours).empty?)
        def within?(inner, outer) = inner && inner[0] >= outer[0] && inner[1] <= outer[1]
        def crossing?(one, other) = one.nil? || other.nil? || (one[0] <= other[1] && other[0] <= one[1])
      end
    end
  end
end
