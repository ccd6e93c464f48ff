# frozen_string_literal: true

require_relative "../core/stage/chat_piece"
require_relative "../live/rehearsal"
require_relative "link_page"
require_relative "station"

module Bavard
  module Web
    # The stage: its draft over a backdrop, edits, rehearsal, Put on air.
    class StageApp < Station
      BACKDROPS = {"dawn" => "Dawn over the reeds", "white" => "A white sky", "thermal" => "Night, thermal", "table" => "Ringing table",
                   "none" => "Nothing"}.freeze
      LONGEST_NAME = 60

      get "/" do
        first = ask { |show| show.desks.keys.first }
        first ? redirect("/stage/#{first}") : erb_stage(nil)
      end

      post "/" do
        name = text(params["name"]).strip[0, LONGEST_NAME]
        stage = site.house.stages.create(@record.id, name: name.empty? ? "Stage" : name)
        ask { |show| show.add_stage(stage) }
        redirect "/stage/#{stage.id}"
      end

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
        json(edit: on_desk { |desk| desk.edit(edit) })
      end

      post("/:stage/undo") { json(done: on_desk { |desk| desk.undo && true }) }
      post("/:stage/redo") { json(done: on_desk { |desk| desk.redo && true }) }

      post "/:stage/put-on-air" do
        stage_id = id(params[:stage])
        json(revision: ask { |show| show.desk(stage_id).put_on_air(show.now_ms) })
      end

      post "/:stage/rehearse" do
        stage_id = id(params[:stage])
        script = site.house.scripts[text(params["script"])]
        ask { |show| show.desk(stage_id).rehearse(script, show.now_ms) }
        json(done: true)
      end

      post "/:stage/clear" do
        on_desk(&:clear_draft)
        json(done: true)
      end

      post "/:stage/backdrop" do
        name = BACKDROPS.key?(params["backdrop"]) ? params["backdrop"] : "none"
        on_desk { |desk| desk.backdrop = name }
        json(done: true)
      end

      helpers do
        def on_desk
          stage_id = id(params[:stage])
          ask { |show| yield show.desk(stage_id) }
        end

        def erb_stage(stage)
          @here = "stage"
          @stage = stage
          @stages = ask { |show| show.desks.values.map { |desk| desk.stage.dup } }
          erb :stage
        end
      end
    end
  end
end
