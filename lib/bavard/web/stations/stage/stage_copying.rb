# frozen_string_literal: true

require_relative "../../../copies/reading"
require_relative "../../../copies/show_files"
require_relative "../../../copies/writing"
require_relative "../../../error"
require_relative "../files/brought_files"
require_relative "../files/files_there"
require_relative "copy_desk"
require_relative "../all/station"

module Bavard
  module Web
    # Copies of stages, looks and shows, handed on and taken in: routes of the Stage.
    class StageApp < Station
      # A copy to hand on: of this stage, of a piece's look, or of the whole show; as JSON, or as a ZIP with its files.
      get "/:stage/copy" do
        stages = ask { |show| show.desks.values.map { |desk| desk.stage.dup } }
        stage = on_desk(&:stage)
        name, document, files = copy_of(text(params["what"]), stage, stages)
        zipped = params["as"] == "zip"
        attachment "#{name.gsub(/[^\p{L}\p{N} _-]/, "")[0, 50]}.#{text(params["what"])}.#{zipped ? "zip" : "json"}"
        content_type zipped ? "application/zip" : :json
        zipped ? Copies::Writing.zip(text(params["what"]), document, files) { |sort, file| bytes_of(sort, file) } : Copies::Writing.json(document)
      end

      # What a copy that somebody brings would change, and what it lacks.
      post "/:stage/copy-in/tell" do
        stage = on_desk(&:stage)
        Copies::Reading.of(brought) { |reading| json(CopyDesk.new(site, @record.id, reading).report(stage.draft, piece_of(stage))) }
      end

      # Takes it in: a stage in the place of this draft or as another one, a look onto a piece, a show as more stages.
      post "/:stage/copy-in" do
        kind, document = Copies::Reading.of(brought) { |reading| [reading.kind, CopyDesk.new(site, @record.id, reading).take_in] }
        case kind
        when "look" then take_look(document, text(params["piece"]))
        when "show" then take_show(document)
        else take_stage(document)
        end
        json(kind:)
      end

      helpers do
        def copy_of(what, stage, stages)
          case what
          when "stage" then [stage.name, stage.draft, Core::Stage::DocumentReading.files(stage.draft)]
          when "show" then show_document(stages).then { |document| [@record.name, document, Copies::ShowFiles.of(document)] }
          when "look"
            piece = piece_of(stage) || raise(Error.new("Which piece?", field: "piece"))
            label = Core::Pieces.label(piece)
            Core::Pieces::LookDocument.of(piece, label).then { |look| [label, look, Copies::OwnLooks.files(look)] }
          else raise Error.new("There are copies of a stage, a look and a show.", field: "what")
          end
        end

        def show_document(stages)
          gate, cues = ask { |show| [show.record.gate, show.cues.document] }
          files = BroughtFiles::SHELVED.flat_map { |kind| site.stores.files.of_show(@record.id, kind) }
          Copies::ShowDocument.of(@record.name, stages, gate, cues:, fellows: site.stores.fellows.of_show(@record.id),
            looks: site.stores.looks.of_show(@record.id), files:)
        end

        def piece_of(stage) = Core::Stage::Document.piece(stage.draft, text(params["piece"]))

        def bytes_of(sort, file) = FilesThere.new(site).path(sort, file)&.then { |path| File.binread(path) }

        # A file, or text that was pasted.
        def brought
          file = params["file"]
          bytes = file.is_a?(Hash) ? file[:tempfile].read(Copies::Reading::LARGEST_BYTES + 1) : text(params["text"])
          bytes.to_s.empty? ? raise(Error.new("Which copy? A file, or text.", field: "file")) : bytes
        end

        def add_stage(name, document, backdrop)
          room_for([document])
          stage = site.stores.stages.create(@record.id, name:, document:, backdrop: BACKDROPS.key?(backdrop) ? backdrop : "none")
          ask { |show| show.add_stage(stage) }
        end

        # @param documents [Array<Hash>] of stages to come
        def room_for(documents)
          room("stages", documents.size)
          documents.each { |document| site.stores.ceilings.room_within(@record.id, "pieces", 0, document["pieces"].size) }
        end

        # More than its stages only where that is wanted.
        def take_show(document)
          room_for(document["stages"].map { |stage| stage["document"] })
          if params["into"] == "all"
            looks = looks_to_come(document["looks"])
            site.stores.looks.room_for(@record.id, looks.size)
            take_sheets(document)
            looks.reverse_each { |look| site.stores.looks.add(@record.id, look["name"], look) }
          end
          document["stages"].each { |stage| add_stage(stage["name"], stage["document"], stage["backdrop"]) }
        end

        def take_sheets(document)
          gate, cues = document.values_at("gate", "cues")
          ask do |show|
            show.use_gate(gate.merge("brake" => show.record.gate["brake"])) if gate
            show.use_cues(show.cues.document.merge(Core::Cues::Settings.at_home(cues, show.lanes.keys.map(&:to_s)))) if cues
          end
          take_fellows(document["fellows"])
        end

        # Those that are here already do not come twice.
        def looks_to_come(looks)
          looks - site.stores.looks.of_show(@record.id).map { |kept| kept.document.merge("name" => kept.name) }
        end

        def take_fellows(fellows)
          fellows.each do |fellow|
            values = fellow.transform_keys(&:to_sym)
            fellow_id = site.stores.fellows.add(@record.id, name: values[:name])
            site.stores.fellows.keep(@record.id, fellow_id, **values)
          end
          cards = site.stores.fellows.of_show(@record.id)
          ask { |show| show.shout_outs.fellows = cards }
        end

        def take_look(document, piece)
          by = actor
          on_editor { |editor| editor.edit({"do" => "look", "piece" => piece, "set" => document["set"]}, by:) }
        end

        def take_stage(document)
          Store::Stages.checked(document)
          return add_stage(name_or("Taken in"), document, "none") if params["into"] == "new"

          by = actor
          on_editor { |editor| editor.edit({"do" => "replace", "document" => document}, by:) }
        end
      end
    end
  end
end
