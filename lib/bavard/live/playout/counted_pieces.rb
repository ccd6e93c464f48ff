# frozen_string_literal: true

require_relative "../../core/cues/goal"
require_relative "../../core/cues/newest"
require_relative "../broadcast/goal_count"

module Bavard
  module Live
    # The pieces of a document that show what was counted, and what of them is new to the page: goals, and the newest and best.
    class CountedPieces
      KINDS = %w[goal newest].freeze

      attr_reader :told
      # Told of a goal that is reached, or of which a milestone is, while it plays: piece, reached or milestone, and which; or nil.
      attr_writer :reached

      # @param shared [Playout::Shared] gives the show's Tallies and its Gatehouse, where there are any
      # @param counts [#call] gives the stage's LiveCounts, or nil
      # @param clock [#call, nil] Unix milliseconds
      def initialize(shared, counts, clock = nil)
        @clock = clock
        @shared = shared
        @counts = counts
        @pieces = []
        @told = {}
      end

      def play(document)
        @pieces = document["pieces"].select { |piece| KINDS.include?(piece["kind"]) && !piece["hidden"] }
        @told = {}
        @seen = nil
      end

      def changed? = @pieces.any? && !tallies.nil? && @seen != revision

      # @return [Hash{String => Hash}] by piece
      def changes
        return {} unless changed?

        # Nothing is reached where somebody only says how many there are already.
        told_anew = @seen.nil? || @retold != tallies.retold
        @seen = revision
        @retold = tallies.retold
        now = @pieces.to_h { |piece| [piece["id"], card(piece)] }
        tell(now) unless told_anew
        now.reject { |id, card| @told[id] == card }.tap { @told = now }
      end

      private

      def tallies = @shared.tallies&.call
      def gate = @shared.gate&.call
      def counts = @counts.call
      def revision = [tallies.revision, gate&.names_revision, added]

      # What cues added to goals.
      def added = counts && @pieces.map { |piece| counts.besides(piece) }

      def card(piece)
        return {rows: newest(piece)} if piece["kind"] == "newest"

        Core::Cues::Goal.of(piece, value(piece) + (counts ? counts.besides(piece) : 0))
      end

      def value(piece) = GoalCount.new(piece, tallies, @clock&.call, @shown_ms ||= @clock&.call.to_i).value

      def newest(piece)
        return [["", tallies.value(piece["since"], Tallies::Asked.by(piece)).to_s]] if piece["what"] == "count"

        Core::Cues::Newest.rows(piece, tallies.standings(piece["since"])) { |login, name| seen(login, name) }
      end

      # What the gate lets be seen of a name.
      def seen(login, name) = gate ? gate.called(login, name, @clock&.call.to_i) : name

      def tell(now)
        @pieces.each do |piece|
          before = @told[piece["id"]] or next
          after = now[piece["id"]]
          Core::Cues::Goal.come_to(piece, before, after).each { |how, number| @reached&.call(piece, how, number) } if after.key?(:share)
        end
      end
    end
  end
end
