# frozen_string_literal: true

require_relative "../../../core/stage/difference"
require_relative "../../../live/pictures/backdrops"
require_relative "../../links/link_page"
require_relative "../../../core/chat/cleaning"
require_relative "../../../core/pieces/own_outfit"
require_relative "../all/lately_removed"
require_relative "look_gallery"
require_relative "stage_copying"
require_relative "../files/brought_files"
require_relative "stage_measures"
require_relative "stage_making"
require_relative "stage_playing"
require_relative "stage_sheet"
require_relative "../all/station"

module Bavard
  module Web
    # The stage: its draft over a backdrop, edits, Put on air, revisions. More of its routes are in stage_making.rb,
    # stage_copying.rb and stage_playing.rb.
    class StageApp < Station
      REMOVED = LatelyRemoved.new

      BACKDROPS = {**Live::Backdrops::SHIPPED, "none" => "Nothing"}.freeze
      LONGEST_NAME = 60

      get "/" do
        first = ask { |show| show.desks.keys.first }
        first ? redirect("/stage/#{first}") : erb_stage(nil)
      end

      # What can be set about each kind of piece.
      get("/kinds") { json(StageSheet.kinds) }

      # What is wanted of a stage that is not there is not looked at.
      before(%r{/(?<stage>\d+)/.+}) { on_desk(&:id) unless request.path_info.end_with?("/put-back") }

      get "/:stage" do
        erb_stage(on_desk(&:stage))
      end

      # The draft as its screens will draw it; also says what in the link's options is not understood.
      get "/:stage/draft" do
        stage = on_desk(&:stage)
        LinkPage.new(self, "/stage/#{stage.id}/live", request.GET, edited: true).answer
      end

      post "/:stage/edits" do
        edit = body_json
        raise Error.new("A document is taken over as a revision or an import.", field: "do") if whole_document?(edit)

        by = actor
        json(on_editor { |editor| {edit: editor.edit(edit, by:), at: editor.at} })
      end

      post("/:stage/undo") { json(done: !on_editor(&:undo).nil?) }
      post("/:stage/redo") { json(done: !on_editor(&:redo).nil?) }

      # Checked whole here, so that the show does not wait for it.
      post "/:stage/put-on-air" do
        stage_id = id(params[:stage])
        document = Store::Stages.checked(ask { |show| show.desk(stage_id).stage.draft })
        by = actor
        json(revision: ask { |show| show.put_on_air(stage_id, document, by) })
      end

      post "/:stage/set-back" do
        by = actor
        json(done: on_editor { |editor| editor.set_back(by:) && true })
      end

      # Every edit on air at once, or no longer.
      post "/:stage/at-once" do
        wanted = params["on"] == "1"
        document = Store::Stages.checked(on_desk { |desk| desk.stage.draft })
        stage_id = id(params[:stage])
        by = actor
        ask do |show|
          desk = show.desk(stage_id)
          show.put_on_air(stage_id, document, by) if wanted && desk.editor.changes.any?
          desk.editor.air_at_once = wanted
        end
        json(done: true)
      end

      # What a piece's settings do, measured.
      get "/:stage/measures" do
        stage = on_desk { |desk| desk.stage.dup }
        piece = Core::Stage::Document.piece(stage.draft, text(params["piece"])) || raise(Error.new("Which piece?", field: "piece"))
        stage_id = stage.id
        told = ask do |show|
          desk = show.desk(stage_id)
          counted = show.pace_of(piece, desk.live.counts.number(piece)) if piece["kind"] == "goal"
          StageMeasures::Told.new(desk.recent(piece["id"], show.now_ms), desk.names_in(piece["id"]), counted)
        end
        json(StageMeasures.new(site, stage, piece, told).report)
      end

      # What there is to wear, as it would stand on this piece, or on all of the stage.
      get "/:stage/looks" do
        draft, cues = on_desk { |desk| [desk.stage.draft, desk.cues] }
        piece = Core::Stage::Document.piece(draft, text(params["piece"]))
        raise Error.new("Which piece?", field: "piece") unless piece || text(params["piece"]).empty?

        form = text(params["form"]) == "bright" ? "bright" : "dark"
        json(LookGallery.new(site, draft, piece:, form:, cues:, kept: site.stores.looks.of_show(@record.id)).report)
      end

      # The look of a piece, or of the whole stage, is kept among the host's own.
      post "/:stage/looks" do
        draft = on_desk { |desk| desk.stage.draft }
        name = Core::Chat::Cleaning.text(text(params["name"]))[0, Core::Pieces::LookDocument::LONGEST_NAME].to_s
        raise Error.new("A look of your own has a name.", field: "name") if name.empty?

        piece = Core::Stage::Document.piece(draft, text(params["piece"]))
        document = piece ? Core::Pieces::LookDocument.of(piece, name) : Core::Pieces::OwnOutfit.of(draft, name)
        json(id: site.stores.looks.add(@record.id, name, document))
      end

      post "/looks/:look/remove" do
        removed = site.stores.looks.remove(@record.id, id(params[:look])) || not_found
        REMOVED.remember([@record.id, removed.id], removed)
        json(done: true)
      end

      post "/looks/:look/put-back" do
        kept = REMOVED.recall([@record.id, id(params[:look])]) || not_found
        json(id: site.stores.looks.add(@record.id, kept.name, kept.document))
      end

      get "/:stage/revisions" do
        stage = on_desk(&:stage)
        json(revisions: site.stores.stages.revisions(stage.id).map do |revision|
          {number: revision.number, at: revision.made_at_ms, by: revision.by, on_air: revision.number == stage.revision}
        end)
      end

      # What restoring it would change.
      get "/:stage/revisions/:number" do
        document = revision
        json(changes: Core::Stage::Difference.between(on_desk { |desk| desk.stage.draft }, document))
      end

      # Its document becomes the draft; nothing goes on air by that.
      post "/:stage/revisions/:number/restore" do
        document = revision
        number = id(params[:number])
        by = actor
        stage_id = id(params[:stage])
        ask { |show| show.restore(stage_id, document, number, by) }
        json(done: true)
      end

      # A picture, a film or a backdrop that somebody brings.
      post "/:stage/files" do
        given = params["file"]
        raise Error.new("Which file?", field: "file") unless given.is_a?(Hash) && given[:tempfile]

        kind = text(params["kind"])
        name = text(given[:filename])
        taking(given) do |file, watch|
          kept = BroughtFiles.new(site, @record.id, watch:).keep(kind, name, file)
          {file: {id: kept.id, name: kept.name, width: kept.width, height: kept.height}}
        end
      end

      helpers do
        def on_desk
          stage_id = id(params[:stage])
          ask { |show| yield show.desk(stage_id) }
        end

        def on_editor = on_desk { |desk| yield desk.editor }

        def revision
          number = id(params[:number])
          site.stores.stages.document_of(on_desk(&:id), number) || raise(Error.new("There is no revision #{number}.", field: "number"))
        end

        # Those come from elsewhere whole, and are checked whole.
        def whole_document?(edit)
          edit["do"] == "replace" || (edit["edits"].is_a?(Array) && edit["edits"].any? { |one| one.is_a?(Hash) && whole_document?(one) })
        end

        # @return [Array<Array(String, String)>] as documents name them, and what they are called
        def own_files(kind) = site.stores.files.of_show(@record.id, kind).map { |file| ["file:#{file.id}", file.name] }

        # What a piece's room, person and feeds are chosen from.
        def choices(feeds)
          @shelves = ask { |show| show.wardrobe.contents.shelves.map { |shelf| {id: shelf.id.to_s, name: shelf.name} } }
          cast_choices
          @rooms = feeds.select { |feed| Live::ROOMS.include?(feed.kind) }.map { |feed| [feed.id.to_s, feed.name] }
          @feeds = feeds.map { |feed| {id: feed.id.to_s, name: feed.name} }
        end

        def cast_choices
          members = site.stores.cast.of_show(@record.id)
          @cast = members.map { |member| [member.id.to_s, member.short || member.name] }
          @keys = members.first(9).map { |member| [member.key, member.short || member.name] }
        end

        def erb_stage(stage)
          @here = "stage"
          @stage = stage
          @stages, @feeds = ask { |show| [show.desks.values.map { |desk| desk.stage.dup }, show.lanes.values.map(&:feed)] }
          choices(@feeds)
          @faces = own_files("font")
          @backdrops = own_files("backdrop")
          erb :stage
        end
      end
    end
  end
end
