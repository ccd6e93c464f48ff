# frozen_string_literal: true

require_relative "../core/stage/link_options"
require_relative "station"

module Bavard
  module Web
    # Links, and the screens that show them.
    class AirApp < Station
      get "/" do
        @here = "air"
        @stages = ask { |show| show.desks.values.map { |desk| desk.stage.dup } }
        erb :air
      end

      post "/:stage/test" do
        stage_id = id(params[:stage])
        count = text(params["count"])[/\A\d{1,3}\z/]&.to_i || 1
        json(sent: ask { |show| show.desk(stage_id).send_test(count, show.now_ms).size })
      end

      post "/:stage/clear" do
        stage_id = id(params[:stage])
        ask { |show| show.clear_air(stage_id) }
        json(done: true)
      end

      post "/:stage/new-link" do
        stage_id = id(params[:stage])
        json(link: link(ask { |show| show.desk(stage_id).renew_link }))
      end

      # What the options in a link mean.
      get "/options" do
        read = Core::Stage::LinkOptions.read(Rack::Utils.parse_query(text(params["options"]).delete_prefix("?")))
        words = read.properties.map { |name, value| Core::Stage::ChatPiece.properties.fetch(name).then { |property| "#{property.label}: #{property.write(value)}" } }
        json(understood: words, not_understood: read.not_understood)
      rescue ArgumentError
        json(understood: [], not_understood: [text(params["options"])[0, 60]])
      end

      helpers do
        def link(token) = "#{request.base_url}/air/#{token}"
      end
    end
  end
end
