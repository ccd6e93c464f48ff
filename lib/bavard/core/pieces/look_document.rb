# frozen_string_literal: true

require "json"
require_relative "../../error"
require_relative "earlier"
require_relative "pieces"

module Bavard
  module Core
    module Pieces
      # The style of a piece as a document: what of its look is not as it comes. Saved, shared and read back; made only of
      # properties that anybody can set.
      #
      #   look = LookDocument.shipped.fetch("quiet")
      #   LookDocument.values(piece, look["set"])    # => what to set so that the piece looks like that
      module LookDocument
        FORMAT = "bavard/look@1"
        FOLDER = File.expand_path("looks", __dir__)
        # How large, how many and how long stay as the host has them: those go with the stage, not with the look.
        KEPT = %w[text_size_px at_most stay_by stay_ms reading_speed keep_last].freeze
        LONGEST_NAME = 60
        # Of a host's own, in one show.
        MOST = 60
        LONGEST_WORDS = 200

        module_function

        # @return [Hash{String => Hash}] the looks that ship, by key, in their order
        def shipped
          @shipped ||= Dir[File.join(FOLDER, "*.json")].to_h do |file|
            [File.basename(file, ".json").sub(/\A\d+_/, ""), read(JSON.parse(File.read(file)))]
          end.freeze
        end

        # @param given [Object] a document from anywhere
        # @return [Hash] the same, read
        # @raise [Bavard::Error] naming what does not fit
        def read(given)
          ours = given.is_a?(Hash) && given["format"] == FORMAT
          raise Error.new("That is no look of Bavard's: its format is #{FORMAT}.", field: "format") unless ours

          kind = Pieces.kind(given["kind"])
          words = {"name" => LONGEST_NAME, "about" => LONGEST_WORDS, "behind" => 20}.to_h { |name, most| [name, given[name].to_s.scrub("")[0, most]] }
          {"format" => FORMAT, "kind" => kind::KEY, **words, "set" => kind.read(known(kind, given["set"]))}
        end

        def known(kind, set)
          raise Error.new("A look sets something.", field: "set") unless set.is_a?(Hash)

          set = Earlier.values(set)
          foreign = (set.keys - names(kind)).first
          foreign ? raise(Error.new("A look of #{kind::LABEL} has no “#{foreign}”.", field: foreign)) : set
        end

        # @param piece [Hash]
        # @return [Hash] the look it has, as a document
        def of(piece, name)
          kind = Pieces.kind(piece["kind"])
          set = names(kind).to_h { |property| [property, piece[property]] }.reject { |property, value| kind.properties[property].default == value }
          {"format" => FORMAT, "kind" => piece["kind"], "name" => name, "about" => "", "behind" => "", "set" => set}
        end

        # @param set [Hash] of a look
        # @return [Hash] all values to set, so that nothing of the look before is left
        # @raise [Bavard::Error] where the look is for another kind
        def values(piece, set)
          kind = Pieces.kind(piece["kind"])
          defaults = (names(kind) - KEPT).to_h { |name| [name, kind.properties[name].default] }
          # Named with its form, so that the values go where the look has them.
          values = defaults.merge(kind.read(set))
          kind.properties.key?("form") ? values.merge("form" => piece["form"]) : values
        end

        # @return [Hash] as JSON Schema: a look of each kind of piece that has one
        def schema
          {"$schema" => "https://json-schema.org/draft/2020-12/schema", "$id" => FORMAT, "title" => "The look of a piece",
           "type" => "object", "required" => %w[format kind set],
           "oneOf" => Pieces::KINDS.each_value.map { |kind| kind_schema(kind) }}
        end

        def kind_schema(kind)
          text = {"type" => "string"}
          set = names(kind).to_h { |name| [name, kind.properties[name].schema] }
          {"additionalProperties" => false,
           "properties" => {"format" => {"const" => FORMAT}, "kind" => {"const" => kind::KEY}, "name" => text, "about" => text, "behind" => text,
                            "set" => {"type" => "object", "additionalProperties" => false, "properties" => set}}}
        end

        def names(kind)
          kind.look_names + (kind.properties.key?("bright") ? ["bright"] : [])
        end
        private_class_method :kind_schema, :names, :known
      end
    end
  end
end
