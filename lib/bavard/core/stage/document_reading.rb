# frozen_string_literal: true

require_relative "document"

module Bavard
  module Core
    module Stage
      # A document of a stage that comes from elsewhere: read piece by piece, so that nothing in it is taken on trust, and
      # what is missing is as it comes.
      module DocumentReading
        # Properties that are pictures which something is drawn from.
        DRAWN_FROM = (%w[plate_frame goal_shape] + Pieces::GoalPiece::FACES).freeze

        module_function

        # @param given [Object]
        # @return [Hash] a document that fits the format
        # @raise [Bavard::Error] naming the first thing that does not fit
        def read(given)
          ours = given.is_a?(Hash) && given["format"] == Document::FORMAT
          raise Error.new("That is no stage of Bavard's: its format is #{Document::FORMAT}.", field: "format") unless ours

          size = Document::SIZE.to_h { |name, property| [name, property.read(given.fetch(name, property.default))] }
          {"format" => Document::FORMAT, **size, "house" => Look::HouseStyle.read(given["house"]), "outfit" => Document.outfit(given["outfit"]),
           "pieces" => pieces(given["pieces"])}
        end

        # @param document [Hash]
        # @return [Array<Array(String, String)>] kind and id of each file that stands on it
        def files(document)
          (document["pieces"].flat_map { |piece| files_of(piece) } + fonts_of(document["house"])).uniq
        end

        # @param values [Hash] of a piece, or as much of them as a look sets
        # @return [Array<Array(String, String)>]
        def files_of(values)
          pictures = Array(values["pictures"]).filter_map { |row| ["picture", row["file"]] if row["file"] }
          drawn = values.values_at(*DRAWN_FROM).compact.map { |file| ["picture", file] }
          film = values["film"] ? [["film", values["film"]]] : []
          pictures + drawn + film + fonts_among(values.values)
        end

        # @param house [Hash] a show's colours and faces
        # @return [Array<Array(String, String)>]
        def fonts_of(house) = fonts_among(house["faces"].values.map { |face| face["value"] })

        # @return [Hash] values of a piece, or of a look, with other ids of their files
        def values_with_files(values, ids)
          values.to_h do |name, value|
            case name
            when "pictures" then [name, value.map { |row| row.merge("file" => ids.fetch(row["file"], row["file"])) }]
            when "film", *DRAWN_FROM then [name, ids.fetch(value, value)]
            else [name, face_with_file(value, ids)]
            end
          end
        end

        # @return [Hash] the house with other ids of its fonts
        def house_with_files(house, ids)
          house.merge("faces" => house["faces"].transform_values { |face| face.merge("value" => face_with_file(face["value"], ids)) })
        end

        # @return [Object] what may be a face, with another id of its font where it is one
        def face_with_file(value, ids)
          value.is_a?(String) && value.match?(Palette::Faces::OWN) ? "file:#{ids.fetch(value[5..], value[5..])}" : value
        end

        # @param ids [Hash{String => String}] by the id there was
        # @return [Hash] the document with other ids of its files
        def with_files(document, ids)
          document.merge("pieces" => document["pieces"].map { |piece| values_with_files(piece, ids) },
            "house" => house_with_files(document["house"], ids))
        end

        # @return [Array<String>] faces that the broadcast computer has to have
        def installed_faces(document)
          faces = document["house"]["faces"].values.map { |face| face["value"] } + document["pieces"].flat_map(&:values).grep(String)
          faces.grep(Palette::Faces::INSTALLED).uniq.map { |face| Palette::Faces.family(face) }
        end

        def pieces(given)
          raise Error.new("A stage has a list of pieces.", field: "pieces", value: given) unless given.is_a?(Array) && given.all?(Hash)
          raise Error.new("A stage holds at most #{Document::MOST_PIECES} pieces.", field: "pieces") if given.size > Document::MOST_PIECES

          ids = given.map { |piece| piece["id"] }
          raise Error.new("Two pieces have the same id.", field: "id") unless ids.uniq.size == ids.size

          given.map { |piece| piece(piece) }
        end

        def piece(given)
          id = given["id"]
          raise Error.new("A piece has an id such as chat1.", field: "id", value: id) unless id.is_a?(String) && id.match?(Document::ID)

          Pieces.kind(given["kind"]).build(id, Pieces::Earlier.values(given.except("id", "kind")))
        end

        def fonts_among(values) = values.grep(String).grep(Palette::Faces::OWN).map { |face| ["font", face.delete_prefix("file:")] }

        private_class_method :pieces, :piece, :fonts_among
      end
    end
  end
end
