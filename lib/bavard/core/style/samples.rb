# frozen_string_literal: true

require_relative "../cues/challenge"
require_relative "../cues/cue"
require_relative "../cues/event"
require_relative "../cues/goal"
require_relative "../cues/made_up"
require_relative "../cues/sample"
require_relative "../cues/score"
require_relative "../cues/words"
require_relative "../pieces/pieces"

module Bavard
  module Core
    module Style
      # What a piece shows while there is nothing yet that it could show: made-up, and never on air.
      #
      #   Samples.of(piece)   # => ["counted", {value: 37, to: 60, share: 0.62, reached: false}]
      #
      # The first is what a page is told by, as its frames name it; the second as those frames have it.
      module Samples
        # As good as for ever.
        LONG_MS = 86_400_000
        NAME = "kestrel_ann"
        MESSAGE = "best hour of my day, thank you"
        SHARE = 0.62
        # Key, name and colour.
        PEOPLE = [%w[odalys Odalys #f3b634], %w[ibrahim Ibrahim #5fb8d6], %w[sunniva Sunniva #9ccc65], %w[teo Teo #ff8a70]].freeze
        # Those that stand empty until something comes.
        EMPTY_AT_FIRST = %w[alerts portraits shout_out goal captions flurry].freeze
        FIGURE = "/assets/figure.svg"
        FIGURE_TALKING = "/assets/figure-talking.svg"

        module_function

        # @param piece [Hash]
        # @return [String] how it is called where somebody edits it
        def called(piece) = "#{Pieces.label(piece)}: #{piece["kind"] == "flurry" ? "emotes fly here" : "a sample"}"

        # @param piece [Hash]
        # @param cues [Array<Hash>] of the show's cue sheet
        # @return [Array(String, Object), nil] nothing of kinds that always show something of their own
        def of(piece, cues: [])
          case piece["kind"]
          when "alerts" then ["alert", alert(piece, cues)]
          when "shout_out" then ["shout", shout]
          when "goal" then ["counted", goal(piece)]
          when "challenge" then ["live",
            Cues::Challenge.card(piece, Cues::Challenge::State.new("running", (piece["total"] * SHARE).round.to_f, 0, 0))]
          when "newest" then ["counted", {rows: rows(piece)}]
          when "captions" then ["live", {lines: [["sample", "what you say is written here"]]}]
          when "portraits" then ["voices", {p: PEOPLE.first(piece["person"].empty? ? 3 : 1).each_with_index.map { |one, at| figure(*one, at) }}]
          when "flurry" then ["rest", {}]
          else small(piece)
          end
        end

        def small(piece)
          case piece["kind"]
          when "voices" then ["voices", {p: PEOPLE.first(piece["at_most"]).each_with_index.map { |person, at| seat(*person, at) }}]
          when "room_card" then ["voices", {n: "The hides", w: "4 are here", o: "12 on the service"}]
          when "counter" then ["live", {count: 7}]
          when "clock" then ["live", {value_ms: 41_640_000, goes: "stands"}]
          when "now_line" then ["live", {lines: ["The light is coming up over the east bank"]}]
          end
        end

        # Well on its way, however it is counted.
        def goal(piece)
          from, to = piece.values_at("from", "to")
          way = ((to - from) * SHARE).round
          counted = if piece["falls"] then -way
          else piece["since"] == "ever" ? from + way : way
          end
          Cues::Goal.of(piece, counted - piece["already"].to_i)
        end

        # What the sheet would play there, as far as it can be said beforehand.
        def alert(piece, cues)
          kind = piece["kinds"].first || "tip"
          cued(shown(piece["kinds"], cues) || Cues::Cue.build("sample", "kind" => kind, "words" => Cues::Cue::DEFAULT_WORDS[kind]))
        end

        # @param kinds [Array<String>] of events that an alerts piece plays; none: all
        # @param cues [Array<Hash>]
        # @return [Hash, nil] the cue that it shows while nothing plays
        def shown(kinds, cues)
          wanted = cues.select { |cue| kinds.empty? || kinds.include?(cue["kind"]) }
          wanted.find { |cue| cue["picture"] || cue["film"] } || wanted.first
        end

        # @param cue [Hash]
        # @param given [Hash] what happens, as it is typed; one that fits where nothing is given
        # @return [Hash] as pages draw it
        def cued(cue, given = Cues::Sample.for(cue))
          given = {"name" => NAME, "message" => MESSAGE}.merge(given)
          message = [["text", given["message"]]] if cue["message"] && !given["message"].empty?
          words = Cues::Words.of(cue["words"], event(given))
          {i: "sample", k: cue["kind"], w: words, g: message, ms: LONG_MS, p: cue["picture_place"], s: cue["apart"],
           f: cue["picture"], film: cue["film"], **Cues::Score.moved(cue)}.compact
        end

        # @param given [Hash] as it is typed
        # @return [Cues::Event] of nobody's
        def event(given) = Cues::Event.of(Cues::MadeUp.line(given, id: 0, now_ms: 0), roles: [])

        def shout
          {i: "sample", n: "Tern Watch", w: "Two hours of terns, every morning", s: "Counting the colony", c: 1204, clips: [], r: 0, ms: LONG_MS}
        end

        def rows(piece)
          many = piece["what"] == "list" ? piece["rows"] : 1
          PEOPLE.cycle.first(many).map { |_, name, _| [name, piece["figures"] ? "5" : ""] }
        end

        def seat(key, name, colour, at) = {i: key, n: name, a: name[0], c: colour, t: at == 1 ? 1 : nil}.compact

        def figure(key, name, _, at)
          states = {"silent" => FIGURE, "talking" => FIGURE_TALKING}
          {i: key, n: name, s: states, w: at == 1 ? "talking" : "silent", t: at == 1 ? 1 : nil, l: 4}.compact
        end

        private_class_method :small, :goal, :alert, :shout, :rows, :seat, :figure
      end
    end
  end
end
