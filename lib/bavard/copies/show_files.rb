# frozen_string_literal: true

require_relative "../core/cues/cue"
require_relative "../core/stage/document_reading"
require_relative "own_looks"

module Bavard
  module Copies
    # The files a whole show needs: those of its stages, of its cues, of its fellow hosts' cards and of its own looks. Pictures beside words are made
    # smaller than those that stand on a stage, and called figures here.
    module ShowFiles
      module_function

      # @param document [Hash] of a show
      # @return [Array<Array(String, String)>] kind and id of each
      def of(document)
        stages = document["stages"].flat_map { |stage| Core::Stage::DocumentReading.files(stage["document"]) }
        (stages + cues(document).flat_map { |cue| of_cue(cue) } + fellows(document).flat_map { |fellow| of_fellow(fellow) } +
          looks(document).flat_map { |look| OwnLooks.files(look) }).uniq
      end

      # @param ids [Hash{String => String}] by the id there was
      # @return [Hash] the document with other ids of its files
      def with_ids(document, ids)
        stages = document["stages"].map { |stage| stage.merge("document" => Core::Stage::DocumentReading.with_files(stage["document"], ids)) }
        sheet = document["cues"]&.merge("cues" => cues(document).map { |cue| renamed(cue, %w[picture film sound], ids) })
        fellows = fellows(document).map do |fellow|
          renamed(fellow, %w[picture], ids).merge("clips" => fellow["clips"].map { |id| ids.fetch(id, id) })
        end
        document.merge("stages" => stages, "cues" => sheet, "fellows" => fellows,
          "looks" => looks(document).map { |look| OwnLooks.with_ids(look, ids) })
      end

      def cues(document) = document.dig("cues", "cues") || []
      def fellows(document) = document["fellows"] || []
      def looks(document) = document["looks"] || []

      def of_cue(cue)
        {"figure" => cue["picture"], "film" => cue["film"], "sound" => cue["sound"]}.select { |_, id| id }.to_a
      end

      def of_fellow(fellow)
        [["figure", fellow["picture"]], *fellow["clips"].map { |id| ["film", id] }].select(&:last)
      end

      def renamed(hash, names, ids) = hash.merge(hash.slice(*names).transform_values { |id| ids.fetch(id, id) })
      private_class_method :cues, :fellows, :looks, :of_cue, :of_fellow, :renamed
    end
  end
end
