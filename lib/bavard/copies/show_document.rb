# frozen_string_literal: true

require_relative "../core/gate/settings"
require_relative "../core/stage/document_reading"
require_relative "../error"

module Bavard
  module Copies
    # A whole show as a document: its stages, with their colours and faces, and its gate. Feeds and their secrets stay where
    # they are; shelves travel as packs.
    module ShowDocument
      FORMAT = "bavard/show@1"
      MOST_STAGES = 40
      LONGEST_NAME = 60

      module_function

      # @param stages [Array<#name, #backdrop, #draft>]
      # @param gate [Hash] of Core::Gate::Settings
      # @return [Hash]
      def of(name, stages, gate)
        {"format" => FORMAT, "name" => name, "gate" => gate,
         "stages" => stages.map { |stage| {"name" => stage.name, "backdrop" => stage.backdrop, "document" => stage.draft} }}
      end

      # @param given [Object]
      # @return [Hash]
      # @raise [Bavard::Error] naming what does not fit
      def read(given)
        ours = given.is_a?(Hash) && given["format"] == FORMAT
        raise Error.new("That is no show of Bavard's: its format is #{FORMAT}.", field: "format") unless ours

        stages = given["stages"]
        fits = stages.is_a?(Array) && stages.size.between?(1, MOST_STAGES) && stages.all?(Hash)
        raise Error.new("A show has one to #{MOST_STAGES} stages.", field: "stages") unless fits

        {"format" => FORMAT, "name" => given["name"].to_s.scrub("")[0, LONGEST_NAME], "gate" => gate(given["gate"]),
         "stages" => stages.map { |stage| stage(stage) }}
      end

      # @return [Hash] as JSON Schema
      def schema
        stage = {"type" => "object", "required" => %w[name document], "additionalProperties" => false,
                 "properties" => {"name" => {"type" => "string", "maxLength" => LONGEST_NAME}, "backdrop" => {"type" => "string"},
                                  "document" => {"$ref" => Core::Stage::Document::FORMAT}}}
        {"$schema" => "https://json-schema.org/draft/2020-12/schema", "$id" => FORMAT, "title" => "A show: its stages and its gate",
         "type" => "object", "required" => %w[format stages], "additionalProperties" => false,
         "properties" => {"format" => {"const" => FORMAT}, "name" => {"type" => "string"}, "gate" => {"type" => %w[object null]},
                          "stages" => {"type" => "array", "minItems" => 1, "maxItems" => MOST_STAGES, "items" => stage}}}
      end

      # @return [Hash, nil] as it is given, once it has been a gate
      def gate(given)
        return unless given

        Core::Gate::Settings.read(given).merge("brake" => nil)
      rescue KeyError, TypeError, NoMethodError, ArgumentError
        raise Error.new("Its gate cannot be read.", field: "gate")
      end

      def stage(given)
        name = given["name"].to_s.scrub("").strip[0, LONGEST_NAME]
        {"name" => name.empty? ? "Stage" : name, "backdrop" => given["backdrop"].to_s[0, 40],
         "document" => Core::Stage::DocumentReading.read(given["document"])}
      end
      private_class_method :gate, :stage
    end
  end
end
