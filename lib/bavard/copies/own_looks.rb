# frozen_string_literal: true

require_relative "../core/pieces/own_outfit"
require_relative "../core/stage/document_reading"
require_relative "../error"

module Bavard
  module Copies
    # Looks of a host's own in the copy of a show: of one kind of piece, or of a whole stage.
    module OwnLooks
      MOST = Core::Pieces::LookDocument::MOST
      READERS = {Core::Pieces::LookDocument::FORMAT => Core::Pieces::LookDocument, Core::Pieces::OwnOutfit::FORMAT => Core::Pieces::OwnOutfit}.freeze
      SCHEMA = {"type" => "array", "maxItems" => MOST, "items" => {
        "type" => "object", "required" => %w[format name],
        "properties" => {"format" => {"enum" => READERS.keys}, "name" => {"type" => "string", "maxLength" => Core::Pieces::LookDocument::LONGEST_NAME}}
      }}.freeze

      module_function

      # @param given [Object]
      # @return [Array<Hash>] documents, each as it was read
      # @raise [Bavard::Error]
      def read(given)
        Array(given).grep(Hash).first(MOST).map do |look|
          reader = READERS[look["format"]] || raise(Error.new("One of its looks cannot be read.", field: "looks"))
          reader.read(look)
        end
      end

      # @param look [Hash] a document
      # @return [Array<Array(String, String)>] kind and id of each file it needs
      def files(look)
        return Core::Stage::DocumentReading.files_of(look["set"]) if look["set"]

        look["kinds"].each_value.flat_map { |set| Core::Stage::DocumentReading.files_of(set) } + Core::Stage::DocumentReading.fonts_of(look["house"])
      end

      # @param ids [Hash{String => String}] by the id there was
      # @return [Hash] the document with other ids of its files
      def with_ids(look, ids)
        return look.merge("set" => Core::Stage::DocumentReading.values_with_files(look["set"], ids)) if look["set"]

        look.merge("kinds" => look["kinds"].transform_values { |set| Core::Stage::DocumentReading.values_with_files(set, ids) },
          "house" => Core::Stage::DocumentReading.house_with_files(look["house"], ids))
      end
    end
  end
end
