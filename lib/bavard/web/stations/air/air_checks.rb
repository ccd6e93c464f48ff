# frozen_string_literal: true

require_relative "../../../core/checks/sheet"
require_relative "../../../core/stage/document_reading"
require_relative "../files/files_there"
require_relative "../stage/stage_measures"

module Bavard
  module Web
    # What is looked at before a broadcast: what the running show knows of itself, and what has to be measured or looked for on the disk.
    class AirChecks
      Facts = Core::Checks::Facts

      # @param site [Site]
      # @param facts [Core::Checks::Facts] as the running show gives them
      # @param aired [Array<Live::Checking::Aired>]
      # @param used [Hash{String => Array}] files that cues and the cast use
      def initialize(site, facts, aired, used)
        @site = site
        @facts = facts
        @aired = aired
        @used = used
      end

      # @return [Array<Hash>] Core::Checks::Finding as hashes; first what is not well
      def report
        measured = @aired.flat_map { |aired| measured(aired) }
        facts = @facts.dup
        facts.texts = measured.filter_map { |aired, piece, report| text(aired, piece, report[:legibility]) if report[:legibility] }
        facts.chats = measured.filter_map { |aired, piece, report| chat(aired, piece, report[:pace]) if report[:pace] }
        facts.files = files
        Core::Checks::Sheet.of(facts).map { |finding| finding.to_h.compact.merge(mend: finding.mend&.to_h).compact }
      end

      private

      def measured(aired)
        aired.document["pieces"].reject { |piece| piece["hidden"] }.map do |piece|
          told = StageMeasures::Told.new(aired.recent[piece["id"]])
          [aired, piece, StageMeasures.new(@site, aired.stage, piece, told, document: aired.document).report]
        end
      end

      def text(aired, piece, found)
        Facts::Text.new(stage: aired.stage.id, piece: piece["id"], label: Core::Pieces.label(piece), ratio: found[:worst], part: found[:part],
          over: found[:over], ways: found[:ways])
      end

      def chat(aired, piece, pace)
        Facts::Chat.new(stage: aired.stage.id, piece: piece["id"], label: Core::Pieces.label(piece), pace:, by: piece["stay_by"])
      end

      def files
        all = used.uniq { |kind, id, _| [kind, id] }
        there = FilesThere.new(@site)
        missing = all.reject { |kind, id, _| there.path(kind, id) }
        Facts::Files.new(many: all.group_by(&:first).transform_values(&:size), missing: missing.map { |kind, _, where| [kind, where] })
      end

      # @return [Array<Array(String, String, String)>] kind, id, and where it is used
      def used
        on_stages = @aired.flat_map { |aired| Core::Stage::DocumentReading.files(aired.document).map { |kind, id| [kind, id, aired.stage.name] } }
        on_stages + @used.flat_map { |kind, ids| ids.map { |id, where| [kind, id, where] } }
      end
    end
  end
end
