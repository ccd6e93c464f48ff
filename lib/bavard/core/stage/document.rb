# frozen_string_literal: true

require_relative "../../error"
require_relative "chat_piece"
require_relative "property"

module Bavard
  module Core
    module Stage
      # A stage as a document: its size and its pieces from back to front. Plain hashes and arrays, as JSON has them;
      # nothing here changes one that it is given.
      module Document
        FORMAT = "bavard/stage@1"
        SIZE = [
          Property.number("width", "width of the stage", 100..7680, 1920, unit: "px"),
          Property.number("height", "height of the stage", 100..4320, 1080, unit: "px"),
          Property.number("frame_rate", "frame rate", 1..240, 60, unit: "fps")
        ].to_h { |property| [property.name, property] }.freeze
        KINDS = {ChatPiece::KIND => ChatPiece}.freeze
        MOST_PIECES = 200
        ID = /\A[a-z]{1,20}\d{1,6}\z/

        module_function

        # @return [Hash] a stage with nothing on it
        def empty(width: 1920, height: 1080, frame_rate: 60)
          {"format" => FORMAT, "width" => width, "height" => height, "frame_rate" => frame_rate, "pieces" => []}
        end

        # @return [Hash, nil]
        def piece(document, id)
          document["pieces"].find { |piece| piece["id"] == id }
        end

        # @return [Module] what knows pieces of this kind
        def kind(name)
          KINDS[name] || raise(Error.new("There is no piece of the kind “#{name}”.", field: "kind", value: name))
        end

        # @return [Array<Hash>] the chat pieces, from back to front
        def chat_pieces(document)
          document["pieces"].select { |piece| piece["kind"] == ChatPiece::KIND }
        end

        # An id that no piece of this document has: "chat1", "chat2" …
        def free_id(document, kind)
          taken = document["pieces"].map { |piece| piece["id"] }
          (1..).lazy.map { |number| "#{kind}#{number}" }.find { |id| !taken.include?(id) }
        end
      end
    end
  end
end
