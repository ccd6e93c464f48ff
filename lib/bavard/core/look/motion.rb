# frozen_string_literal: true

require_relative "../fields/property"

module Bavard
  module Core
    module Look
      # How lines come in, make room for each other and go out: keyframes as the Web Animations API takes them, with
      # lengths in em so that they suit any size of text.
      #
      #   Motion.keyframes("rise")   # => [{"opacity" => 0, "transform" => "translateY(0.9em)"}, {…}]
      module Motion
        # A frame on the way, wholly seen.
        def self.seen(transform, offset) = {"opacity" => 1, "transform" => transform, "offset" => offset}
        private_class_method :seen

        SHOWN = {"opacity" => 1, "transform" => "none"}.freeze
        # By name: the frames that lead to the line as it stands. Out is the same way back.
        WAYS = {
          "none" => [],
          "dawn" => [{"opacity" => 0}, {"opacity" => 1}],
          "rise" => [{"opacity" => 0, "transform" => "translateY(0.9em)"}, SHOWN],
          "settle" => [{"opacity" => 0, "transform" => "translateY(-1.1em)"}, seen("translateY(0.12em)", 0.7), SHOWN],
          "wade" => [{"opacity" => 0, "transform" => "translateX(-2.2em)"}, SHOWN],
          "glide" => [{"opacity" => 0, "transform" => "translateX(2.2em)"}, SHOWN],
          "hatch" => [{"opacity" => 0, "transform" => "scale(0.4)"}, seen("scale(1.06)", 0.65), SHOWN],
          "unfold" => [{"opacity" => 0, "transform" => "perspective(20em) rotateX(-80deg)"}, seen("perspective(20em) rotateX(0deg)", 1)],
          "door" => [{"opacity" => 0, "transform" => "perspective(24em) rotateY(70deg)"}, seen("perspective(24em) rotateY(0deg)", 1)],
          "tumble" => [{"opacity" => 0, "transform" => "translateY(1.4em) rotate(7deg)"}, seen("translateY(-0.1em) rotate(-1.2deg)", 0.7), SHOWN],
          "mist" => [{"opacity" => 0, "filter" => "blur(0.6em)"}, {"opacity" => 1, "filter" => "blur(0)"}],
          "curtain" => [{"clipPath" => "inset(0 100% 0 0)"}, {"clipPath" => "inset(0 0 0 0)"}],
          "ink" => [{"clipPath" => "inset(50% 0 50% 0)", "opacity" => 0}, {"clipPath" => "inset(0 0 0 0)", "opacity" => 1}],
          "perch" => [{"opacity" => 0, "transform" => "translateY(-0.7em) scaleY(0.6)"}, seen("translateY(0) scaleY(1.07)", 0.6), SHOWN],
          # Letter by letter, in the page's hand: its frames are those of the cursor.
          "typed" => [{"opacity" => 1}, {"opacity" => 1}]
        }.freeze
        EASINGS = {
          "even" => "linear", "soft" => "cubic-bezier(0.22, 0.7, 0.3, 1)", "brisk" => "cubic-bezier(0.1, 0.9, 0.2, 1)",
          "swing" => "cubic-bezier(0.3, 1.5, 0.5, 1)", "slow start" => "cubic-bezier(0.5, 0, 0.7, 0.4)"
        }.freeze
        ROOM = %w[slide jump].freeze
        LENGTHS_MS = (0..2000)
        # Lines a second above which motion grows calmer, and above which there is none.
        CALMER_FROM = 4
        STILL_FROM = 12

        module_function

        # @return [Array<Fields::Property>]
        def properties
          [Fields::Property.choice("motion_in", "lines come in", WAYS.keys, "rise"),
            Fields::Property.number("motion_in_ms", "coming in takes", LENGTHS_MS, 260),
            Fields::Property.choice("motion_out", "lines go out", WAYS.keys - %w[typed], "dawn"),
            Fields::Property.number("motion_out_ms", "going out takes", LENGTHS_MS, 220),
            Fields::Property.choice("motion_room", "others make room", ROOM, "slide"),
            Fields::Property.number("motion_room_ms", "making room takes", LENGTHS_MS, 200),
            Fields::Property.choice("motion_easing", "easing", EASINGS.keys, "soft")]
        end

        # @return [Array<Hash>] from not there to there
        def keyframes(name) = WAYS.fetch(name)

        # @param piece [Hash]
        # @return [Hash] what the page plays
        def of(piece)
          {in: keyframes(piece["motion_in"]), in_ms: piece["motion_in_ms"], typed: piece["motion_in"] == "typed",
           out: way_out(piece["motion_out"]), out_ms: piece["motion_out_ms"],
           room_ms: piece["motion_room"] == "slide" ? piece["motion_room_ms"] : 0, easing: EASINGS.fetch(piece["motion_easing"])}
        end

        # @param name [String]
        # @return [Array<Hash>] from there to not there
        def way_out(name) = keyframes(name).reverse.map { |frame| back(frame) }

        # @param rate [Numeric] lines a second just now
        # @return [Float] by how much motion is shortened: 1.0 as set, 0.0 none
        def liveliness(rate)
          return 1.0 if rate <= CALMER_FROM
          return 0.0 if rate >= STILL_FROM

          ((STILL_FROM - rate) / (STILL_FROM - CALMER_FROM).to_f).round(2)
        end

        def back(frame)
          frame.key?("offset") ? frame.merge("offset" => (1 - frame["offset"]).round(3)) : frame
        end
        private_class_method :back
      end
    end
  end
end
