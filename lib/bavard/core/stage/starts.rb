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
        # Where a piece usually begins: large ones below, those of a few words above.
        LARGE = [0.04, 0.40, 0.40, 0.55].freeze
        SMALL = [0.04, 0.06, 0.40, 0.10].freeze
        LARGE_KINDS = %w[chat space picture video].freeze

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
            given = {**placed(box, size), **text(kind, size), **(values.is_a?(Hash) ? values : {})}
            piece = Pieces.kind(kind).build(Document.free_id(document, kind), given)
            document.merge("pieces" => document["pieces"] + [piece])
          end
        end

        # @param kind [String]
        # @param document [Hash]
        # @return [Hash] values a piece begins with where nobody drew a place for it
        def usual(kind, document)
          size = {width: document["width"], height: document["height"]}
          placed(LARGE_KINDS.include?(kind) ? LARGE : SMALL, size).merge(text(kind, size))
        end

        def placed(box, size)
          left, top, across, down = box
          {"x" => (left * size[:width]).round, "y" => (top * size[:height]).round,
           "width" => [(across * size[:width]).round, Pieces::PieceKind::SMALLEST_PX].max,
           "height" => [(down * size[:height]).round, Pieces::PieceKind::SMALLEST_PX].max}
        end

        def text(kind, size)
          return {} unless %w[chat text].include?(kind)

          {"text_size_px" => ([size[:width], size[:height]].min * TEXT).round.clamp(14, 120)}
        end

        private_class_method :placed, :text
      end
    end
  end
end
