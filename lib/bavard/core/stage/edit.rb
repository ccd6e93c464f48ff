# frozen_string_literal: true

require_relative "document"
require_relative "larger_edits"

module Bavard
  module Core
    module Stage
      # One named change on a stage's document. Applying it gives the new document and the edit that takes it back.
      #
      #   done = Edit.apply(document, {"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 30}})
      #   done.document   # the new one
      #   done.undo       # => {"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 25}}
      #
      # Small ones are written here; {LargerEdits} are made of them.
      module Edit
        Done = Struct.new(:document, :edit, :undo)
        # By name, the methods that do them.
        SMALL = %w[add put set remove order size house wear replace many].freeze
        MOST_AT_ONCE = 1000

        module_function

        # @param document [Hash]
        # @param edit [Hash] with "do": one of SMALL or of LargerEdits
        # @return [Done] edit is the one given, read: ids and values as they are kept
        # @raise [Bavard::Error]
        def apply(document, edit)
          raise Error.new("An edit names what it does.", field: "do", value: edit) unless edit.is_a?(Hash)
          return send(edit["do"], document, edit) if SMALL.include?(edit["do"])

          larger = LargerEdits.small(document, edit)
          raise Error.new("There is no edit called “#{edit["do"]}”.", field: "do", value: edit["do"]) unless larger

          many(document, larger)
        end

        # @param older [Hash] an edit that takes back
        # @param newer [Hash] one that takes back what came after, in the same gesture
        # @return [Hash] one edit that takes both back
        def joined(older, newer)
          return newer.merge("values" => newer["values"].merge(older["values"])) if same_set?(older, newer)

          pairs = older["do"] == "many" && newer["do"] == "many" ? older["edits"].reverse.zip(newer["edits"].reverse) : []
          if pairs.any? && older["edits"].size == newer["edits"].size && pairs.all? { |pair| same_set?(*pair) }
            return {"do" => "many", "edits" => pairs.map { |pair| joined(*pair) }.reverse}
          end

          {"do" => "many", "edits" => [newer, older]}
        end

        def same_set?(one, other)
          one["do"] == "set" && other["do"] == "set" && one["piece"] == other["piece"]
        end

        # Several edits, one after the other.
        def many(document, edit)
          edits = edit["edits"]
          unless edits.is_a?(Array) && edits.size <= MOST_AT_ONCE
            raise Error.new("Many edits come as a list of at most #{MOST_AT_ONCE}.", field: "edits")
          end

          done = edits.map { |one| apply(document, one).tap { |result| document = result.document } }
          Done.new(document, {"do" => "many", "edits" => done.map(&:edit)}, {"do" => "many", "edits" => done.map(&:undo).reverse})
        end

        # A piece that is new.
        def add(document, edit)
          kind = Pieces.kind(edit["kind"])
          if document["pieces"].size >= Document::MOST_PIECES
            raise Error.new("A stage holds at most #{Document::MOST_PIECES} pieces.", field: "pieces")
          end

          piece = kind.build(Document.free_id(document, edit["kind"]), values_of(edit))
          put(document, {"do" => "put", "piece" => piece, "at" => document["pieces"].size})
        end

        # Puts a whole piece at its place in the order; how a removed one comes back.
        def put(document, edit)
          piece = whole_piece(document, edit["piece"])
          at = edit["at"].is_a?(Integer) ? edit["at"].clamp(0, document["pieces"].size) : document["pieces"].size
          Done.new(document.merge("pieces" => document["pieces"].dup.insert(at, piece)), edit.merge("piece" => piece),
            {"do" => "remove", "piece" => piece["id"]})
        end

        # @raise [Bavard::Error] where it is none, or its id is no id or taken
        def whole_piece(document, given)
          raise Error.new("A piece to put names its kind and id.", field: "piece", value: given) unless given.is_a?(Hash)

          id = given["id"]
          unless id.is_a?(String) && id.match?(Document::ID) && Document.piece(document, id).nil?
            raise Error.new("That id is taken, or none.", field: "id", value: id)
          end

          Pieces.kind(given["kind"]).build(id, given.except("id", "kind"))
        end

        # Some properties of a piece.
        def set(document, edit)
          piece = existing(document, edit)
          kind = Pieces.kind(piece["kind"])
          values = kind.read(values_of(edit))
          kept = kind.placed(piece, values)
          Done.new(changed(document, piece, piece.merge(kept)), edit.merge("values" => kept), edit.merge("values" => piece.slice(*kept.keys)))
        end

        # A piece goes.
        def remove(document, edit)
          piece = existing(document, edit)
          at = document["pieces"].index(piece)
          Done.new(document.merge("pieces" => document["pieces"] - [piece]), edit,
            {"do" => "put", "piece" => piece, "at" => at})
        end

        # Moves a piece to another place from back to front.
        def order(document, edit)
          piece = existing(document, edit)
          before = document["pieces"].index(piece)
          at = edit["at"].is_a?(Integer) ? edit["at"].clamp(0, document["pieces"].size - 1) : document["pieces"].size - 1
          pieces = document["pieces"].dup.tap { |list| list.insert(at, list.delete_at(before)) }
          Done.new(document.merge("pieces" => pieces), edit.merge("at" => at), edit.merge("at" => before))
        end

        # The stage is larger or smaller.
        def size(document, edit)
          values = values_of(edit).to_h do |name, given|
            property = Document::SIZE[name] || raise(Error.new("A stage has no “#{name}”.", field: name, value: given))
            [name, property.read(given)]
          end
          Done.new(document.merge(values), edit.merge("values" => values),
            edit.merge("values" => document.slice(*values.keys)))
        end

        # One of the show's colours or faces.
        def house(document, edit)
          before = document["house"].dig(edit["sort"], edit["key"])
          house = Look::HouseStyle.set(document["house"], edit["sort"], edit["key"], edit["value"])
          Done.new(document.merge("house" => house), edit, edit.merge("value" => before))
        end

        # What pieces wear that come onto it later; none: as they come.
        def wear(document, edit)
          before = document["outfit"].to_s
          key = edit["outfit"].to_s
          Pieces::Outfit.find(key) unless key.empty?
          Done.new(document.merge("outfit" => key), edit.merge("outfit" => key), edit.merge("outfit" => before))
        end

        # Another document in the place of this one, as when a revision is restored.
        def replace(document, edit)
          Done.new(edit["document"], edit, {"do" => "replace", "document" => document})
        end

        def existing(document, edit)
          Document.piece(document, edit["piece"]) ||
            raise(Error.new("That piece is no longer on the stage.", field: "piece", value: edit["piece"]))
        end

        def changed(document, piece, now)
          document.merge("pieces" => document["pieces"].map { |other| other.equal?(piece) ? now : other })
        end

        def values_of(edit)
          values = edit["values"] || {}
          return values if values.is_a?(Hash)

          raise Error.new("An edit's values are named.", field: "values", value: values)
        end

        private_class_method :same_set?, :whole_piece, :existing, :changed, :values_of, *SMALL.map(&:to_sym)
      end
    end
  end
end
