# frozen_string_literal: true

require_relative "../../error"
require_relative "../look/house_style"
require_relative "../pieces/earlier"
require_relative "../pieces/outfit"
require_relative "../pieces/pieces"
require_relative "../fields/property"

module Bavard
  module Core
    module Stage
      # A stage as a document: its size, the show's colours and faces, and its pieces from back to front. Plain hashes and
      # arrays, as JSON has them; nothing here changes one that it is given.
      module Document
        FORMAT = "bavard/stage@1"
        SIZE = [
          Fields::Property.number("width", "width of the stage", 100..7680, 1920, unit: "px"),
          Fields::Property.number("height", "height of the stage", 100..4320, 1080, unit: "px"),
          Fields::Property.number("frame_rate", "frame rate", 1..240, 60, unit: "fps")
        ].to_h { |property| [property.name, property] }.freeze
        MOST_PIECES = 200
        ID = /\A[a-z_]{1,20}\d{1,6}\z/

        module_function

        # @return [Hash] a stage with nothing on it
        def empty(width: 1920, height: 1080, frame_rate: 60, house: Look::HouseStyle::DEFAULT)
          {"format" => FORMAT, "width" => width, "height" => height, "frame_rate" => frame_rate, "house" => house, "outfit" => "", "pieces" => []}
        end

        # @param document [Hash] as it was kept, perhaps by an older Bavard
        # @return [Hash] with every property there is now
        def complete(document)
          document.merge("house" => Look::HouseStyle.read(document["house"]),
            "outfit" => outfit(document["outfit"]), "pieces" => document["pieces"].map { |piece| complete_piece(piece) })
        end

        # @param given [Object]
        # @return [String] the key of what the stage is dressed as; nothing where this Bavard has no such outfit
        def outfit(given) = Pieces::Outfit.shipped.key?(given) ? given : ""

        def complete_piece(piece)
          Pieces.kind(piece["kind"]).complete(Pieces::Earlier.values(piece))
        end

        # @return [Hash, nil]
        def piece(document, id)
          document["pieces"].find { |piece| piece["id"] == id }
        end

        # @return [Array<Hash>] those of one kind, from back to front
        def pieces_of(document, kind)
          document["pieces"].select { |piece| piece["kind"] == kind::KEY }
        end

        # @return [Array<Hash>] the chat pieces that are drawn, from back to front
        def chat_pieces(document) = pieces_of(document, Pieces::ChatPiece).reject { |piece| piece["hidden"] }

        # @return [Boolean] whether some pieces stand behind the camera
        def behind?(document)
          document["pieces"].any? { |piece| piece["side"] == "behind" && !piece["hidden"] }
        end

        # @param form [String, nil] in place of the piece's own
        # @return [Hash] the piece as it is drawn: in its form, with colours and faces in the place of their names
        def drawn(piece, house, form: nil)
          kind = Pieces.kind(piece["kind"])
          Look::HouseStyle.resolve(kind.in_form(piece, form), kind.properties, house)
        end

        # An id that no piece of this document has: "chat1", "chat2" …
        def free_id(document, kind)
          taken = document["pieces"].to_h { |piece| [piece["id"], true] }
          (1..).lazy.map { |number| "#{kind}#{number}" }.find { |id| !taken[id] }
        end

        # @return [Hash] all documents there can be, as JSON Schema
        def schema
          {"$schema" => "https://json-schema.org/draft/2020-12/schema", "$id" => FORMAT, "title" => "A stage",
           "description" => "One frame of a set pixel size with pieces on it, from back to front", "type" => "object",
           "required" => ["format", *SIZE.keys, "house", "pieces"], "additionalProperties" => false,
           "properties" => {
             "format" => {"const" => FORMAT}, **SIZE.transform_values(&:schema), "house" => Look::HouseStyle.schema,
             "outfit" => {"enum" => ["", *Pieces::Outfit.shipped.keys]},
             "pieces" => {"type" => "array", "maxItems" => MOST_PIECES,
                          "items" => {"type" => "object", "required" => ["kind"], "oneOf" => Pieces::KINDS.keys.map { |key| {"$ref" => "#/$defs/#{key}"} }}}
           },
           "$defs" => Pieces::KINDS.transform_values(&:schema)}
        end

        private_class_method :complete_piece
      end
    end
  end
end
