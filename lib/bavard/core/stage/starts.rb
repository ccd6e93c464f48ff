# frozen_string_literal: true

require_relative "document"

module Bavard
  module Core
    module Stage
      # What a new stage can begin with.
      #
      #   Starts.document("side", width: 1920, height: 1080, house:)   # => a document with a chat piece at the side
      module Starts
        SIZES = [
          ["Full HD", 1920, 1080], ["HD", 1280, 720], ["2560 × 1440", 2560, 1440], ["4K", 3840, 2160], ["Upright", 1080, 1920],
          ["Square", 1080, 1080], ["Chat column", 600, 1080], ["Chat strip", 1920, 220]
        ].freeze
        # Key, name, and what it gives: pieces as [kind, x, y, width, height] in parts of the stage, then values.
        LAYOUTS = {
          "nothing" => ["Nothing", []],
          "side" => ["Chat at the side", [["chat", 0.035, 0.40, 0.41, 0.54]]],
          "bottom" => ["Along the bottom", [["chat", 0.02, 0.86, 0.96, 0.10, {"flow" => "ticker", "plate_for" => "all", "plate_width" => "piece"}]]],
          "camera" => ["Around a camera", [["space", 0.70, 0.60, 0.27, 0.34], ["text", 0.70, 0.52, 0.27, 0.06], ["chat", 0.03, 0.46, 0.40, 0.48]]],
          "tall" => ["A tall strip", [["chat", 0.06, 0.04, 0.88, 0.92, {"name_place" => "above"}]]],
          "chat" => ["Chat only", [["chat", 0.02, 0.02, 0.96, 0.96]]]
        }.freeze
        # of the stage's smaller side
        TEXT = 0.026
        # Lines of chat stay as long as they take to read, and the last few until others come.
        BEGINS = {"chat" => {"stay_by" => "reading", "keep_last" => 5}}.freeze
        # Where a piece usually begins, in parts of the stage: an alert has room for a picture and words, what flies has all of it, voices
        # the people of a room, and what is small stands at an edge.
        USUAL = {
          "alerts" => [0.24, 0.06, 0.52, 0.36], "flurry" => [0.0, 0.0, 1.0, 1.0], "voices" => [0.74, 0.05, 0.23, 0.46],
          "portraits" => [0.26, 0.60, 0.48, 0.38], "goal" => [0.60, 0.84, 0.37, 0.12], "challenge" => [0.60, 0.70, 0.37, 0.12],
          "newest" => [0.03, 0.05, 0.30, 0.10], "counter" => [0.03, 0.17, 0.30, 0.08], "clock" => [0.82, 0.05, 0.15, 0.08],
          "captions" => [0.15, 0.84, 0.70, 0.13], "room_card" => [0.70, 0.54, 0.27, 0.13], "shout_out" => [0.28, 0.30, 0.44, 0.34],
          "now_line" => [0.04, 0.92, 0.50, 0.065], "text" => [0.04, 0.06, 0.40, 0.10]
        }.freeze
        LARGE = [0.04, 0.40, 0.40, 0.55].freeze
        # On a stage that is higher than wide, boxes are wider by so much, as far as there is room.
        UPRIGHT = 1.8

        module_function

        # @param layout [String] key of one
        # @return [Hash] a document
        # @raise [Bavard::Error]
        def document(layout, width:, height:, frame_rate: 60, house: Look::HouseStyle::DEFAULT)
          pieces = LAYOUTS.fetch(layout) { raise Error.new("There is no layout called “#{layout}”.", field: "layout", value: layout) }.last
          size = {"width" => width, "height" => height, "frame_rate" => frame_rate}
            .to_h { |name, given| [name.to_sym, Document::SIZE.fetch(name).read(given)] }
          pieces.reduce(Document.empty(**size, house:)) do |document, (kind, *box, values)|
            box += [values] unless values.is_a?(Hash)
            given = {**placed(box, size), **text(kind, size), **BEGINS.fetch(kind, {}), **(values.is_a?(Hash) ? values : {})}
            piece = Pieces.kind(kind).build(Document.free_id(document, kind), given)
            document.merge("pieces" => document["pieces"] + [piece])
          end
        end

        # @param kind [String]
        # @param document [Hash]
        # @return [Hash] values a piece begins with where nobody drew a place for it
        def usual(kind, document)
          size = {width: document["width"], height: document["height"]}
          box = USUAL.fetch(kind, LARGE)
          placed(size[:height] > size[:width] ? upright(*box) : box, size).merge(text(kind, size), BEGINS.fetch(kind, {}))
        end

        # Where its middle was, as far as that has room.
        def upright(left, top, across, down)
          wider = (across * UPRIGHT).clamp(across, [across, 0.92].max)
          [(left + ((across - wider) / 2)).clamp(0, 1 - wider), top, wider, down]
        end

        def placed(box, size)
          left, top, across, down = box
          width, height = [across * size[:width], down * size[:height]].map { |length| [length.round, Pieces::PieceKind::SMALLEST_PX].max }
          {"x" => [(left * size[:width]).round, size[:width] - width].min, "y" => [(top * size[:height]).round, size[:height] - height].min,
           "width" => width, "height" => height}
        end

        def text(kind, size)
          return {} unless %w[chat text].include?(kind)

          {"text_size_px" => ([size[:width], size[:height]].min * TEXT).round.clamp(14, 120)}
        end

        private_class_method :upright, :placed, :text
      end
    end
  end
end
