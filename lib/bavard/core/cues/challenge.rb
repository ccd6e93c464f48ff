# frozen_string_literal: true

require_relative "goal"
require_relative "tally"

module Bavard
  module Core
    module Cues
      # A shared amount that everybody works up or down: what each event counts, what slips back, when it is reached or missed.
      # A pure function of what was before and what came.
      module Challenge
        MINUTE_MS = 60_000
        # Of a total below it, parts are told as well.
        SMALL = 20
        # state:: waiting, running, reached or missed; done:: of the piece's total; at_ms:: how far slipping is worked out
        State = Struct.new(:state, :done, :at_ms, :began_ms) do
          def running? = state == "running"
          def to_h = {"state" => state, "done" => done, "at_ms" => at_ms, "began_ms" => began_ms}
        end
        WAITING = State.new("waiting", 0.0, nil, nil).freeze
        # What counts where nobody has set anything.
        USUAL = [{"kind" => "follow", "each" => 1, "per_unit" => 0}, {"kind" => "subscription", "each" => 5, "per_unit" => 0},
          {"kind" => "gift", "each" => 5, "per_unit" => 0}, {"kind" => "tip", "each" => 0, "per_unit" => 1}].freeze
        STATES = %w[waiting running reached missed].freeze

        module_function

        # @param kept [Hash, nil] as State#to_h gave it
        def read(kept)
          return WAITING unless kept.is_a?(Hash) && STATES.include?(kept["state"]) && kept["done"].is_a?(Numeric)

          State.new(kept["state"], kept["done"].to_f, *kept.values_at("at_ms", "began_ms").map { |ms| ms.is_a?(Integer) ? ms : nil })
        end

        # @return [State] that runs, from nothing done
        def begin(now_ms) = State.new("running", 0.0, now_ms, now_ms)

        # What slips back with time, and whether its time is up.
        #
        # @param piece [Hash]
        # @return [State]
        def advance(piece, state, now_ms)
          return state unless state.running?

          ends_ms = ends_ms(piece, state)
          until_ms = [now_ms, ends_ms].compact.min
          slipped = piece["slips"] * [until_ms - state.at_ms, 0].max / MINUTE_MS.to_f
          missed = !ends_ms.nil? && now_ms >= ends_ms
          State.new(missed ? "missed" : "running", [state.done - slipped, 0.0].max, until_ms, state.began_ms)
        end

        # @param event [Event]
        # @return [State]
        def count_event(piece, state, event, now_ms)
          state = self.begin(now_ms) if piece["begins"] == event.kind && state.state == "waiting"
          after = add(piece, advance(piece, state, now_ms), worth(piece, event))
          after.running? && piece["ends_with"] == event.kind ? State.new("missed", after.done, after.at_ms, after.began_ms) : after
        end

        # @param number [Numeric] less than nothing: it slips back
        def add(piece, state, number)
          return state unless state.running?

          done = [state.done + number, 0.0].max
          State.new(done >= piece["total"] ? "reached" : "running", [done, piece["total"].to_f].min, state.at_ms, state.began_ms)
        end

        # @return [Float] how much it counts
        def worth(piece, event)
          row = (piece["counts"].empty? ? USUAL : piece["counts"]).find { |one| one["kind"] == event.kind } or return 0.0
          units = event.amount ? Tally.whole_units(event.amount.number, event.amount.currency) : 0
          (row["each"] * Tally.times(event.kind, event.number)) + (row["per_unit"] * units).to_f
        end

        # @return [Hash] as a page draws it: as a goal's, with its state, stages, and when it is missed
        def card(piece, state)
          total = piece["total"]
          share = state.done / total
          value = piece["runs"] == "down" ? total - state.done : state.done
          card = {value: value.round(total < SMALL ? 1 : 0), to: total, share: share.round(4), reached: state.state == "reached"}
          Goal.dressed(piece, card, piece["stages"]).merge(state: state.state, stages: stages(piece), ends: ends_ms(piece, state))
        end

        # What it has come to between two states: stages it passed, and its end.
        #
        # @return [Array<Array(String, Integer)>] milestone and in hundredths which; reached, missed
        def come_to(piece, before, after)
          return [] unless before.running?

          shares = [before, after].map { |state| 100 * state.done / piece["total"] }
          passed = stages(piece).select { |stage| stage > shares[0] && stage <= shares[1] }.map { |stage| ["milestone", stage] }
          after.running? ? passed : passed.push([after.state, nil])
        end

        # @return [Integer, nil] when it is missed
        def ends_ms(piece, state)
          state.began_ms + (piece["minutes"] * MINUTE_MS).round if state.running? && piece["minutes"].positive?
        end

        # @return [Array<Integer>] in hundredths of the way
        def stages(piece) = Goal.milestones(piece["stages"])
      end
    end
  end
end
