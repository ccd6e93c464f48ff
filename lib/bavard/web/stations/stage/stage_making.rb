# frozen_string_literal: true

require_relative "../../../core/stage/starts"
require_relative "../../../error"
require_relative "../all/station"

module Bavard
  module Web
    # Stages made, named, copied, put in order and taken away: routes of the Stage.
    class StageApp < Station
      post "/" do
        room("stages")
        stage = site.stores.stages.create(@record.id, name: name_or("Stage"), document: new_document)
        ask { |show| show.add_stage(stage) }
        request.xhr? ? json(stage: stage.id) : redirect("/stage/#{stage.id}")
      end

      post "/order" do
        ids = text(params["ids"]).split(",").map { |one| id(one) }
        ask { |show| show.order_stages(ids) }
        json(done: true)
      end

      post "/:stage/name" do
        name = name_or(nil) or raise Error.new("What is it to be called?", field: "name")
        on_desk { |desk| desk.name = name }
        json(done: true)
      end

      # Another stage like this one.
      post "/:stage/copy" do
        room("stages")
        like = on_desk(&:stage)
        stage = site.stores.stages.create(@record.id, name: name_or("#{like.name} again"[0, LONGEST_NAME]), document: like.draft,
          backdrop: like.backdrop)
        ask { |show| show.add_stage(stage) }
        json(stage: stage.id)
      end

      post "/:stage/remove" do
        stage_id = id(params[:stage])
        json(next: ask { |show| show.remove_stage(stage_id) })
      end

      post "/:stage/put-back" do
        stage_id = id(params[:stage])
        ask { |show| show.removed_stage(stage_id) }
        room("stages")
        ask { |show| show.put_back_stage(stage_id) }
        json(done: true)
      end

      helpers do
        def name_or(otherwise)
          name = text(params["name"]).strip[0, LONGEST_NAME]
          name.empty? ? otherwise : name
        end

        # From a layout, at the size that is wanted, in the show's colours.
        def new_document
          style = ask { |show| show.desks.each_value.first&.then { |desk| desk.stage.draft["house"] } } || Core::Look::HouseStyle::DEFAULT
          size = {width: 1920, height: 1080, frame_rate: 60}.to_h { |name, usual| [name, text(params[name.to_s]).empty? ? usual : params[name.to_s]] }
          Core::Stage::Starts.document(text(params["layout"]).empty? ? "nothing" : text(params["layout"]), **size, house: style)
        end
      end
    end
  end
end
