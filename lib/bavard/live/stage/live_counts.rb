# frozen_string_literal: true

require_relative "../../core/cues/challenge"
require_relative "../../core/cues/command"

module Bavard
  module Live
    # What is counted in one stage's pieces while the broadcast goes on: counters, challenges, and what cues add to goals.
    # Belongs to its show's thread.
    class LiveCounts
      Challenge = Core::Cues::Challenge
      SLIPPING_EVERY_MS = 1000
      LARGEST = 1_000_000_000
      # Kinds of pieces that are numbers.
      ADDED = %w[counter goal].freeze

      # @param kept [Hash, nil] as {#to_h} gave it
      def initialize(kept)
        read(kept || {})
        @said_ms = {}
        @before = {}
      end

      # @return [Hash] to be kept
      def to_h = {"numbers" => @numbers.dup, "over" => @over.dup, "challenges" => @challenges.transform_values(&:to_h)}

      # @return [Integer] of a counter; of a goal, what was added to it
      def number(piece) = @numbers.fetch(piece["id"], piece["begins_at"].to_i)

      # @return [Numeric] of a goal, what is there besides what was counted: what was added, without what is over
      def besides(piece) = number(piece) - @over.fetch(piece["id"], 0)

      # @param by [Numeric]
      def count(piece, by) = @numbers[piece["id"]] = (number(piece) + by).round.clamp(-LARGEST, LARGEST)

      # @param what [String] begin, end, back (to before it began), or undo: as it was before one of these was pressed
      # @raise [Bavard::Error]
      def run(piece, what, now_ms)
        id = piece["id"]
        before = state(piece)
        after = pressed(piece, what, now_ms)
        raise Error.new("There is nothing to take back.", field: "what") unless after

        @before[id] = before unless what == "undo"
        @challenges[id] = after
      end

      # @return [Core::Cues::Challenge::State]
      def state(piece) = @challenges.fetch(piece["id"], Challenge::WAITING)

      # @param event [Core::Cues::Event]
      # @return [Array(Boolean, Array<Array(Hash, String, Integer)>)] whether anything is another one now, and what challenges came to
      #   with it: the piece, milestone, reached or missed, and which
      def count_event(document, event, now_ms) = each_challenge(document) { |piece, state| Challenge.count_event(piece, state, event, now_ms) }

      # @return [Array(Boolean, Array)] as {#count_event}
      def advance(document, now_ms) = each_challenge(document) { |piece, state| Challenge.advance(piece, state, now_ms) }

      # What a cue adds to a goal, a challenge or a counter of that name.
      #
      # @return [Array(Boolean, Array)] as {#count_event}
      def add(document, called, number)
        document["pieces"].each { |piece| count(piece, number) if ADDED.include?(piece["kind"]) && called?(piece, called) }
        each_challenge(document) { |piece, state| called?(piece, called) ? Challenge.add(piece, state, number) : state }
      end

      # The broadcast is over: goals, challenges and counters that begin anew by themselves do.
      #
      # @yieldparam piece [Hash] a goal
      # @yieldreturn [Numeric] how much of what was counted is over with it
      def begin_anew(document)
        @before_anew = to_h
        document["pieces"].select { |piece| piece["anew"] }.each do |piece|
          [@challenges, @numbers].each { |kept| kept.delete(piece["id"]) }
          over = piece["kind"] == "goal" ? yield(piece) : 0
          @over[piece["id"]] = over unless over.zero?
        end
      end

      # The next broadcast begins: what is counted by it is nothing, so that nothing of it is over.
      def begin_counting = @over.clear

      # The broadcast is not over after all.
      def take_back_anew = @before_anew&.then { |before| read(before) }

      # A line of chat may count.
      #
      # @param roles [Array<String>] of who said it
      # @return [Boolean] whether it did
      def said(document, text, roles, now_ms)
        counted = document["pieces"].select { |piece| piece["kind"] == "counter" && may?(piece, text, roles, now_ms) }
        counted.each do |piece|
          @said_ms[piece["id"]] = now_ms
          count(piece, 1)
        end
        counted.any?
      end

      # @return [Integer, nil] when {#advance} has something to do
      def due_ms(document, now_ms)
        challenges(document).filter_map do |piece|
          next unless (state = state(piece)).running?

          [Challenge.ends_ms(piece, state), piece["slips"].positive? ? now_ms + SLIPPING_EVERY_MS : nil].compact.min
        end.min
      end

      private

      def read(kept)
        @numbers = (kept["numbers"] || {}).transform_values(&:to_i)
        @over = (kept["over"] || {}).select { |_, number| number.is_a?(Numeric) }
        @challenges = (kept["challenges"] || {}).transform_values { |state| Challenge.read(state) }
      end

      # @return [Challenge::State, nil]
      def pressed(piece, what, now_ms)
        now = state(piece)
        case what
        when "begin" then now.running? ? now : Challenge.begin(now_ms)
        when "end" then now.running? ? now.dup.tap { |one| one.state = "missed" } : now
        when "back" then Challenge::WAITING
        when "undo" then @before.delete(piece["id"])
        else raise Error.new("A challenge can begin, end and go back.", field: "what", value: what)
        end
      end

      def called?(piece, called) = piece.values_at("called", "title").include?(called)
      def challenges(document) = document["pieces"].select { |piece| piece["kind"] == "challenge" }

      def may?(piece, text, roles, now_ms)
        Core::Cues::Command.rest(text, piece["command"])&.empty? && Core::Cues::Command.may?(piece, roles) &&
          now_ms - @said_ms.fetch(piece["id"], -LARGEST) >= piece["cool_down_s"] * 1000
      end

      def each_challenge(document)
        changed = false
        told = challenges(document).flat_map do |piece|
          before = state(piece)
          after = yield(piece, before)
          next [] if after == before

          changed = true
          @challenges[piece["id"]] = after
          Challenge.come_to(piece, before, after).map { |how, number| [piece, how, number] }
        end
        [changed, told]
      end
    end
  end
end
