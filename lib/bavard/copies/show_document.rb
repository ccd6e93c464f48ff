# frozen_string_literal: true

require_relative "../core/cues/fellow"
require_relative "../core/cues/settings"
require_relative "../core/gate/settings"
require_relative "../core/stage/document_reading"
require_relative "../error"
require_relative "own_looks"

module Bavard
  module Copies
    # A whole show as a document: its stages, with their colours and faces, its gate, its cue sheet, the cards of its fellow hosts
    # and the looks its host made. Feeds and their secrets stay where they are; shelves travel as packs.
    module ShowDocument
      FORMAT = "bavard/show@1"
      MOST_STAGES = 40
      LONGEST_NAME = 60
      MOST_FELLOWS = 2000
      FILE = /\A[0-9a-f]{32}\z/
      # Of a fellow host of whom nothing is said.
      CARD = {"name" => "", "words" => "", "last_shown" => "", "followers" => nil}.freeze
      # What of a cue sheet belongs to the show and not to one of its broadcasts.
      SHEET = %w[cues queue].freeze

      module_function

      # @param stages [Array<#name, #backdrop, #draft>]
      # @param gate [Hash] of Core::Gate::Settings
      # @param cues [Hash] of Core::Cues::Settings
      # @param fellows [Array<Core::Cues::Fellow>]
      # @param looks [Array<Store::Looks::Kept>] the newest first
      # @param files [Array<Store::Files::Kept>] sounds and films, for what they are called
      # @return [Hash]
      def of(name, stages, gate, cues:, fellows:, looks:, files:)
        {"format" => FORMAT, "name" => name, "gate" => gate, "cues" => cues.slice(*SHEET),
         "fellows" => fellows.map { |fellow| fellow.to_h.except(:id, :key).transform_keys(&:to_s) },
         "looks" => looks.map { |look| look.document.merge("name" => look.name) },
         "files" => files.to_h { |file| [file.id, {"name" => file.name, "shelf" => file.more["shelf"].to_s}] },
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
         "cues" => cues(given["cues"]), "fellows" => fellows(given["fellows"]), "looks" => OwnLooks.read(given["looks"]),
         "files" => files(given["files"]),
         "stages" => stages.map { |stage| stage(stage) }}
      end

      # @return [Hash] as JSON Schema
      def schema
        stage = {"type" => "object", "required" => %w[name document], "additionalProperties" => false,
                 "properties" => {"name" => {"type" => "string", "maxLength" => LONGEST_NAME}, "backdrop" => {"type" => "string"},
                                  "document" => {"$ref" => Core::Stage::Document::FORMAT}}}
        {"$schema" => "https://json-schema.org/draft/2020-12/schema", "$id" => FORMAT,
         "title" => "A show: its stages, its gate, its cue sheet, its fellow hosts and its own looks",
         "type" => "object", "required" => %w[format stages], "additionalProperties" => false,
         "properties" => {"format" => {"const" => FORMAT}, "name" => {"type" => "string"}, "gate" => {"type" => %w[object null]},
                          "cues" => {"type" => %w[object null], "description" => "the cue sheet"}, "fellows" => fellows_schema,
                          "looks" => OwnLooks::SCHEMA,
                          "files" => {"type" => "object", "description" => "what sounds and films are called, by their hash"},
                          "stages" => {"type" => "array", "minItems" => 1, "maxItems" => MOST_STAGES, "items" => stage}}}
      end

      def fellows_schema
        text = {"type" => "string"}
        file = {"type" => "string", "pattern" => "^[0-9a-f]{32}$"}
        {"type" => "array", "maxItems" => MOST_FELLOWS, "items" => {
          "type" => "object", "required" => %w[name], "additionalProperties" => false,
          "properties" => {"name" => text, "words" => text, "last_shown" => text, "followers" => {"type" => %w[integer null]},
                           "picture" => {"type" => %w[string null]}, "clips" => {"type" => "array", "items" => file}}
        }}
      end

      # @return [Hash, nil] cues and queue
      def cues(given)
        return unless given.is_a?(Hash)
        raise TypeError unless given["cues"].is_a?(Array) && given["cues"].all?(Hash)

        Core::Cues::Settings.read(given).slice(*SHEET)
      rescue KeyError, TypeError, NoMethodError, ArgumentError
        raise Error.new("Its cue sheet cannot be read.", field: "cues")
      end

      def fellows(given)
        Array(given).grep(Hash).first(MOST_FELLOWS).map do |fellow|
          read = Core::Cues::Fellow.read(CARD.merge(fellow))
          read.transform_keys(&:to_s).merge("picture" => fellow["picture"].to_s[FILE],
            "clips" => Array(fellow["clips"]).grep(FILE).first(Core::Cues::Fellow::MOST_CLIPS))
        end
      end

      def files(given)
        return {} unless given.is_a?(Hash)

        given.select { |id, about| id.match?(FILE) && about.is_a?(Hash) }
          .transform_values { |about| about.slice("name", "shelf").transform_values { |text| text.to_s.scrub("")[0, LONGEST_NAME] } }
      end

      # @return [Hash, nil] as it is given, once it has been a gate
      def gate(given)
        return unless given
        raise TypeError unless given.is_a?(Hash) && given["sets"].is_a?(Array)

        Core::Gate::Settings.read(given).merge("brake" => nil)
      rescue KeyError, TypeError, NoMethodError, ArgumentError
        raise Error.new("Its gate cannot be read.", field: "gate")
      end

      def stage(given)
        name = given["name"].to_s.scrub("").strip[0, LONGEST_NAME]
        {"name" => name.empty? ? "Stage" : name, "backdrop" => given["backdrop"].to_s[0, 40],
         "document" => Core::Stage::DocumentReading.read(given["document"])}
      end
      private_class_method :gate, :stage, :cues, :fellows, :files, :fellows_schema
    end
  end
end
