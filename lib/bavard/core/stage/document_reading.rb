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
          document["pieces"].flat_map { |piece| files_of(piece) }.uniq
        end

        # @param ids [Hash{String => String}] by the id there was
        # @return [Hash] the document with other ids of its files
        def with_files(document, ids)
          document.merge("pieces" => document["pieces"].map { |piece| renamed(piece, ids) })
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

        def files_of(piece)
          pictures = Array(piece["pictures"]).filter_map { |row| ["picture", row["file"]] if row["file"] }
          drawn = piece.values_at(*DRAWN_FROM).compact.map { |file| ["picture", file] }
          film = piece["film"] ? [["film", piece["film"]]] : []
          fonts = piece.values.grep(String).grep(Palette::Faces::OWN).map { |face| ["font", face.delete_prefix("file:")] }
          pictures + drawn + film + fonts
        end

        def renamed(piece, ids)
          piece.to_h do |name, value|
            case name
            when "pictures" then [name, value.map { |row| row.merge("file" => ids.fetch(row["file"], row["file"])) }]
            when "film", *DRAWN_FROM then [name, ids.fetch(value, value)]
            else [name, value.is_a?(String) && value.start_with?("file:") ? "file:#{ids.fetch(value[5..], value[5..])}" : value]
            end
          end
        end

        private_class_method :pieces, :piece, :files_of, :renamed
      end
    end
  end
end
