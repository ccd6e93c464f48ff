# frozen_string_literal: true

require_relative "../../core/cues/goal"
require_relative "../../core/cues/newest"

module Bavard
  module Live
    # The pieces of a document that show what was counted, and what of them is new to the page: goals, and the newest and best.
    class CountedPieces
      KINDS = %w[goal newest].freeze

      attr_reader :told
      # Told of a goal that is reached while it plays; or nil.
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
      def added = counts && @pieces.map { |piece| counts.number(piece) }

      def card(piece)
        return {rows: newest(piece)} if piece["kind"] == "newest"

        Core::Cues::Goal.of(piece, value(piece) + (counts ? counts.number(piece) : 0))
      end

      def value(piece)
        ends_ms = ends_ms(piece)
        now_ms = @clock&.call
        return tallies.value(piece["since"], piece["counted"], piece["unit"]) unless ends_ms && now_ms && now_ms >= ends_ms

        tallies.value_until(piece["since"], piece["counted"], piece["unit"], ends_ms)
      end

      # A time alone is that of the day on which the goal began to be shown.
      def ends_ms(piece)
        year, month, day, hour, minute = Core::Cues::Goal.until(piece["until"]) || return
        today = Time.at((@shown_ms ||= @clock&.call.to_i) / 1000)
        Time.new(year || today.year, month || today.month, day || today.day, hour || 0, minute || 0).to_i * 1000
      rescue ArgumentError # the 31st of February
        nil
      end

      def newest(piece)
        return [["", tallies.value(piece["since"], piece["counted"], piece["unit"]).to_s]] if piece["what"] == "count"

        Core::Cues::Newest.rows(piece, tallies.standings(piece["since"])) { |login, name| seen(login, name) }
      end

      # What the gate lets be seen of a name.
      def seen(login, name) = gate ? gate.called(login, name, @clock&.call.to_i) : name

      def tell(now)
        @pieces.each { |piece| @reached&.call(piece) if now[piece["id"]][:reached] && @told[piece["id"]]&.fetch(:reached, nil) == false }
      end
    end
  end
end
