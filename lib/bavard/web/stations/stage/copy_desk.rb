# frozen_string_literal: true

require "tempfile"
require_relative "../../../copies/reading"
require_relative "../../../copies/show_files"
require_relative "../../../core/stage/difference"
require_relative "../../../core/stage/edit"
require_relative "../files/brought_files"

module Bavard
  module Web
    # Takes in a copy of a stage, a look or a show: first tells what would change and what is missing, then does it.
    class CopyDesk
      OF_SHOWS = ["The stages you have stay as they are.",
        "With its gate and cues too: your rules and your cue sheet become its own, its fellow hosts and its own looks come along."].freeze
      CALLED = {"figure" => "picture"}.freeze

      # @param site [Site]
      # @param show_id [Integer]
      # @param reading [Copies::Reading]
      def initialize(site, show_id, reading)
        @site = site
        @show_id = show_id
        @reading = reading
      end

      # @param draft [Hash] of the stage it would go to
      # @param piece [Hash, nil] the piece a look would go to
      # @return [Hash] for the page, in words
      def report(draft, piece)
        {kind: @reading.kind, name: @reading.document["name"].to_s, holds:, missing:, changes: changes(draft, piece)}
      end

      # @return [Hash] the document, with the files it brings kept as this show's own
      # @raise [Bavard::Error] naming a file that cannot be taken
      def take_in
        ids = @reading.files.select { |sort, id| @reading.brings?(sort, id) }.to_h { |sort, id| [id, keep(sort, id)] }
        case @reading.kind
        when "stage" then Core::Stage::DocumentReading.with_files(@reading.document, ids)
        when "show" then Copies::ShowFiles.with_ids(@reading.document, ids)
        when "look" then Copies::OwnLooks.with_ids(@reading.document, ids)
        end
      end

      private

      def of_show(&block) = @reading.document["stages"].map(&block)

      def holds
        case @reading.kind
        when "stage" then ["A stage of #{size(@reading.document)}", *labels(@reading.document)]
        when "show"
          of_show { |stage| "Stage “#{stage["name"]}”, #{size(stage["document"])}: #{labels(stage["document"]).join(", ")}" } + happenings
        else ["A look for #{Core::Pieces.label(@reading.document).downcase} with #{@reading.document["set"].size} settings"]
        end
      end

      # @return [Array<String>] what it holds besides stages and a gate
      def happenings
        cues = @reading.document.dig("cues", "cues") || []
        fellows, looks = @reading.document.values_at("fellows", "looks")
        [cues.any? && "A cue sheet with #{cues.size} cues", fellows.any? && "#{fellows.size} fellow host#{"s" if fellows.size > 1}",
          looks.any? && "#{looks.size} look#{"s" if looks.size > 1} of their own"].grep(String)
      end

      def size(document) = "#{document["width"]} × #{document["height"]}"
      def labels(document) = document["pieces"].map { |piece| Core::Pieces.label(piece) }

      def missing
        files = @reading.files.reject { |sort, id| @reading.brings?(sort, id) || here?(sort, id) }
        faces = @reading.stages.flat_map { |stage| Core::Stage::DocumentReading.installed_faces(stage) }.uniq
        files.map { |sort, _| "A #{CALLED.fetch(sort, sort)} that is neither in it nor in this show" } +
          faces.map { |face| "The face #{face}, which the broadcast computer has to have" }
      end

      def here?(sort, id)
        return !@site.cabinet.find("#{id}-4.webp").nil? if sort == "figure"

        !@site.stores.files.find(@show_id, sort, id).nil?
      end

      # What it would change where it goes in the place of something.
      def changes(draft, piece)
        case @reading.kind
        when "stage" then Core::Stage::Difference.between(draft, @reading.document)
        when "look" then piece ? look_changes(draft, piece) : ["Choose a piece it can be put on."]
        else of_show { |stage| "New stage “#{stage["name"]}”" } + OF_SHOWS
        end
      end

      def look_changes(draft, piece)
        return ["This look is for another kind of piece."] unless piece["kind"] == @reading.document["kind"]

        after = Core::Stage::Edit.apply(draft, {"do" => "look", "piece" => piece["id"], "set" => @reading.document["set"]}).document
        Core::Stage::Difference.between(draft, after)
      end

      # @return [String] the id it has here
      def keep(sort, id)
        bytes = @reading.bytes(sort, id)
        return BroughtFiles.new(@site, @show_id).figure("A picture", bytes) if sort == "figure"

        Tempfile.create(sort, binmode: true) do |file|
          file.write(bytes)
          file.flush
          file.rewind
          name_again(BroughtFiles.new(@site, @show_id).keep(sort, "From a copy", file), id)
        end
      end

      # As it is called where it comes from.
      def name_again(kept, id)
        about = @reading.document.dig("files", id)
        return kept.id unless about && BroughtFiles::SHELVED.include?(kept.kind)

        @site.stores.files.describe(@show_id, kept.kind, kept.id, name: about["name"].to_s, more: (kept.more || {}).merge(about.slice("shelf")))
        kept.id
      end
    end
  end
end
