# frozen_string_literal: true

require "tempfile"
require_relative "../copies/reading"
require_relative "../core/stage/difference"
require_relative "../core/stage/edit"
require_relative "../media/film"
require_relative "../pictures/typeface"
require_relative "../store/files"

module Bavard
  module Web
    # Takes in a copy of a stage, a look or a show: first tells what would change and what is missing, then does it.
    class CopyDesk
      OF_SHOWS = ["The stages you have stay as they are.", "With its gate: your rules become its rules."].freeze

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
      def told(draft, piece)
        {kind: @reading.kind, name: @reading.document["name"].to_s, holds:, missing:, changes: changes(draft, piece)}
      end

      # @return [Hash] the document, with the files it brings kept as this show's own
      # @raise [Bavard::Error] naming a file that cannot be taken
      def take_in
        ids = @reading.files.select { |sort, id| @reading.brings?(sort, id) }.to_h { |sort, id| [id, keep(sort, id)] }
        with = ->(document) { Core::Stage::DocumentReading.with_files(document, ids) }
        case @reading.kind
        when "stage" then with.call(@reading.document)
        when "show" then @reading.document.merge("stages" => of_show { |stage| stage.merge("document" => with.call(stage["document"])) })
        else @reading.document
        end
      end

      private

      def of_show(&block) = @reading.document["stages"].map(&block)

      def holds
        case @reading.kind
        when "stage" then ["A stage of #{size(@reading.document)}", *labels(@reading.document)]
        when "show" then of_show { |stage| "Stage “#{stage["name"]}”, #{size(stage["document"])}: #{labels(stage["document"]).join(", ")}" }
        else ["A look for #{Core::Stage::Pieces.label(@reading.document).downcase} with #{@reading.document["set"].size} settings"]
        end
      end

      def size(document) = "#{document["width"]} × #{document["height"]}"
      def labels(document) = document["pieces"].map { |piece| Core::Stage::Pieces.label(piece) }

      def missing
        files = @reading.files.reject { |sort, id| @reading.brings?(sort, id) || @site.house.files.find(@show_id, sort, id) }
        faces = @reading.stages.flat_map { |stage| Core::Stage::DocumentReading.installed_faces(stage) }.uniq
        files.map { |sort, _| "A #{sort} that is neither in it nor in this show" } +
          faces.map { |face| "The face #{face}, which the broadcast computer has to have" }
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
        kept = made(sort, bytes)
        @site.house.files.keep(@show_id, Store::Files::Kept.new(kind: sort, name: "From a copy", bytes: bytes.bytesize, **kept),
          @site.house.clock.call)
        kept[:id]
      end

      def made(sort, bytes)
        case sort
        when "film" then film(bytes)
        when "font" then {id: Bavard::Pictures::Typeface.new.make(bytes, into: @site.faces).id}
        else picture(bytes)
        end
      end

      def picture(bytes)
        made = @site.house.pictures.make(bytes, "stage")
        {id: made.id, width: made.width, height: made.height}
      end

      def film(bytes)
        Tempfile.create("film", binmode: true) do |file|
          file.write(bytes)
          file.flush
          made = Bavard::Media::Film.new.make(file.path, into: @site.films)
          {id: made.id, width: made.width, height: made.height}
        end
      end
    end
  end
end
