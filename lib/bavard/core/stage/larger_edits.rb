# frozen_string_literal: true

require_relative "../pieces/look_document"
require_relative "../pieces/outfit"
require_relative "../pieces/own_outfit"
require_relative "arrange"
require_relative "document"
require_relative "fitting"
require_relative "resizing"
require_relative "starts"

module Bavard
  module Core
    module Stage
      # Edits that are made of several small ones, and undone as one.
      #
      #   LargerEdits.small(document, {"do" => "fit", "piece" => "chat1", "to" => "space1", "how" => "beside"})
      #   # => {"do" => "many", "edits" => [{"do" => "set", "piece" => "chat1", "values" => {…}}]}
      module LargerEdits
        ALL = %w[place arrange fit look outfit dress resize duplicate paste group ungroup off].freeze
        # A copy stands this much beside what it was made of.
        BESIDE_PX = 24

        module_function

        # @return [Hash, nil] nil where there is no such edit
        # @raise [Bavard::Error]
        def small(document, edit)
          {"do" => "many", "edits" => send(edit["do"], document, edit)} if ALL.include?(edit["do"])
        end

        # A new piece where such pieces usually stand, or in the box that was drawn for it; dressed as the stage is.
        def place(document, edit)
          kind = Pieces.kind(edit["kind"])
          values = edit["values"] || Starts.usual(kind::KEY, document)
          raise Error.new("An edit's values are named.", field: "values", value: values) unless values.is_a?(Hash)

          worn = Pieces::Outfit.shipped[document["outfit"]]&.values(kind.build("#{kind::KEY}1")) || {}
          [{"do" => "add", "kind" => kind::KEY, "values" => worn.merge(values)}]
        end

        # Aligns or distributes.
        def arrange(document, edit)
          boxes = Arrange.boxes(pieces(document, edit), edit["how"], document)
          boxes.map { |id, values| {"do" => "set", "piece" => id, "values" => values} }
        end

        # A piece takes the size, or the place, that another one or the stage gives it.
        def fit(document, edit)
          piece = piece(document, edit["piece"])
          values = Fitting.values(piece, piece(document, edit["to"]), edit["how"], document)
          [{"do" => "set", "piece" => piece["id"], "values" => values}]
        end

        # Another look; "set" as a Pieces::LookDocument has it.
        def look(document, edit)
          piece = piece(document, edit["piece"])
          raise Error.new("A look sets something.", field: "set") unless edit["set"].is_a?(Hash)

          [{"do" => "set", "piece" => piece["id"], "values" => Core::Pieces::LookDocument.values(piece, edit["set"])}]
        end

        # Dresses everything on the stage, and what comes onto it from now on; or some pieces alone.
        def outfit(document, edit)
          outfit = Pieces::Outfit.find(edit["outfit"])
          some = edit.key?("pieces") ? pieces(document, edit) : document["pieces"]
          edits = some.map { |piece| {"do" => "set", "piece" => piece["id"], "values" => outfit.values(piece)} }.reject { |one| one["values"].empty? }
          edit.key?("pieces") ? edits : edits.push(*named(document, outfit.house), {"do" => "wear", "outfit" => outfit.key})
        end

        # Dresses everything on the stage in a look of the host's own; "set" as a Pieces::OwnOutfit has it.
        def dress(document, edit)
          outfit = Pieces::OwnOutfit.read(edit["set"])
          dressed = document["pieces"].select { |piece| outfit["kinds"].key?(piece["kind"]) }
          edits = dressed.map { |piece| {"do" => "set", "piece" => piece["id"], "values" => worn(piece, outfit["kinds"][piece["kind"]])} }
          edits + named(document, outfit["house"].transform_values { |sort| sort.transform_values { |one| one["value"] } })
        end

        # Sizes stay as the host has them on each piece.
        def worn(piece, set) = Pieces::LookDocument.values(piece, set.except(*Pieces::LookDocument::KEPT))

        # The show's colours and faces; what the host has named besides stays.
        def named(document, house)
          house.flat_map do |sort, values|
            values.filter_map do |key, value|
              before = document["house"][sort][key] || {"name" => key.capitalize}
              {"do" => "house", "sort" => sort, "key" => key, "value" => before.merge("value" => value)} unless before["value"] == value
            end
          end
        end

        # Another size of the stage, by scaling what is on it or by keeping it where it is anchored.
        def resize(document, edit)
          values = edit["values"].is_a?(Hash) ? edit["values"] : {}
          size = values.to_h { |name, given| [name, (Document::SIZE[name] || raise(unknown(name))).read(given)] }
          Resizing.edits(document, size, edit["how"]) + [{"do" => "size", "values" => size}]
        end

        # Pieces like those, a little beside them.
        def duplicate(document, edit)
          paste(document, "pieces" => pieces(document, edit), "beside" => true)
        end

        # Copies of pieces, of this stage or another.
        def paste(document, edit)
          given = edit["pieces"]
          raise Error.new("What is put down are pieces.", field: "pieces") unless given.is_a?(Array) && given.all?(Hash)

          groups = {}
          given.map do |piece|
            values = piece.except("id", "kind").merge(beside(document, piece, edit["beside"]))
            values["group"] = groups[piece["group"]] ||= free_group(document, groups.size) unless piece["group"].to_s.empty?
            {"do" => "add", "kind" => piece["kind"], "values" => values}
          end
        end

        # Pieces move together from now on.
        def group(document, edit)
          name = free_group(document, 0)
          pieces(document, edit).map { |piece| {"do" => "set", "piece" => piece["id"], "values" => {"group" => name}} }
        end

        # Pieces move by themselves again.
        def ungroup(document, edit)
          names = pieces(document, edit).map { |piece| piece["group"] } - [""]
          document["pieces"].select { |piece| names.include?(piece["group"]) }
            .map { |piece| {"do" => "set", "piece" => piece["id"], "values" => {"group" => ""}} }
        end

        # Takes several pieces off.
        def off(document, edit)
          pieces(document, edit).map { |piece| {"do" => "remove", "piece" => piece["id"]} }
        end

        def piece(document, id)
          Document.piece(document, id) || raise(Error.new("That piece is no longer on the stage.", field: "piece", value: id))
        end

        # From back to front, whatever order they are named in.
        def pieces(document, edit)
          ids = edit["pieces"]
          raise Error.new("Which pieces?", field: "pieces", value: ids) unless ids.is_a?(Array) && ids.any?

          ids.each { |id| piece(document, id) }
          document["pieces"].select { |piece| ids.include?(piece["id"]) }
        end

        def beside(document, piece, wanted)
          return {} unless wanted

          {"x" => piece["x"] + BESIDE_PX, "y" => piece["y"] + BESIDE_PX,
           "called" => piece["called"].empty? ? "" : "#{piece["called"]} again"[0, Pieces::PieceKind::LONGEST_NAME]}
            .merge(piece["x"] + BESIDE_PX < document["width"] ? {} : {"x" => piece["x"]})
        end

        def free_group(document, after)
          taken = document["pieces"].map { |piece| piece["group"] }
          (1..).lazy.map { |number| "group#{number}" }.reject { |name| taken.include?(name) }.first(after + 1).last
        end

        def unknown(name) = Error.new("A stage has no “#{name}”.", field: name)

        private_class_method :piece, :pieces, :beside, :free_group, :unknown, *ALL.map(&:to_sym)
      end
    end
  end
end
