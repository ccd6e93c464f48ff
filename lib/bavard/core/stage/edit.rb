# frozen_string_literal: true

require_relative "document"

module Bavard
  module Core
    module Stage
      # One named change on a stage's document. Applying it gives the new document and the edit that takes it back.
      #
      #   done = Edit.apply(document, {"do" => "set", "piece" => "chat1", "values" => {"size_px" => 30}})
      #   done.document   # the new one
      #   done.undo       # => {"do" => "set", "piece" => "chat1", "values" => {"size_px" => 25}}
      module Edit
        Done = Struct.new(:document, :edit, :undo)

        module_function

        # @param document [Hash]
        # @param edit [Hash] with "do": add, set, remove, put, size
        # @return [Done] edit is the one given, read: ids and values as they are kept
        # @raise [Bavard::Error]
        def apply(document, edit)
          raise Error.new("An edit names what it does.", field: "do", value: edit) unless edit.is_a?(Hash)

          case edit["do"]
          when "add" then add(document, edit)
          when "put" then put(document, edit)
          when "set" then set(document, edit)
          when "remove" then remove(document, edit)
          when "size" then size(document, edit)
          else raise Error.new("There is no edit called “#{edit["do"]}”.", field: "do", value: edit["do"])
          end
        end

        def add(document, edit)
          kind = Document.kind(edit["kind"])
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

          Document.kind(given["kind"]).build(id, given.except("id", "kind"))
        end

        def set(document, edit)
          piece = existing(document, edit)
          values = Document.kind(piece["kind"]).read(values_of(edit))
          pieces = document["pieces"].map { |other| other.equal?(piece) ? piece.merge(values) : other }
          Done.new(document.merge("pieces" => pieces), edit.merge("values" => values),
            edit.merge("values" => piece.slice(*values.keys)))
        end

        def remove(document, edit)
          piece = existing(document, edit)
          at = document["pieces"].index(piece)
          Done.new(document.merge("pieces" => document["pieces"] - [piece]), edit,
            {"do" => "put", "piece" => piece, "at" => at})
        end

        def size(document, edit)
          values = values_of(edit).to_h do |name, given|
            property = Document::SIZE[name] || raise(Error.new("A stage has no “#{name}”.", field: name, value: given))
            [name, property.read(given)]
          end
          Done.new(document.merge(values), edit.merge("values" => values),
            edit.merge("values" => document.slice(*values.keys)))
        end

        def existing(document, edit)
          Document.piece(document, edit["piece"]) ||
            raise(Error.new("That piece is no longer on the stage.", field: "piece", value: edit["piece"]))
        end

        def values_of(edit)
          values = edit["values"] || {}
          return values if values.is_a?(Hash)

          raise Error.new("An edit's values are named.", field: "values", value: values)
        end

        private_class_method :add, :put, :whole_piece, :set, :remove, :size, :existing, :values_of
      end
    end
  end
end
