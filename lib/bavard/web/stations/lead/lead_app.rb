# frozen_string_literal: true

require_relative "../../../core/pieces/outfit"
require_relative "../../../core/stage/starts"
require_relative "../../../feeds/described"
require_relative "../../../live/pictures/backdrops"
require_relative "../all/station"

module Bavard
  module Web
    # From chat to air: leads the host of a new show to the first line on the broadcast picture. What is done there is done by the routes of
    # the stations that it belongs to.
    class LeadApp < Station
      set :needs_to_see, :own
      set :needs_to_do, :own

      # Where a new show's chat stands.
      LAYOUT = "side"
      BEHIND = Live::Backdrops::SHIPPED

      # Where a chat is read with one thing to say. field, label, example:: of what is said; along:: what goes along; consent:: address, or nil
      Place = Struct.new(:name, :field, :label, :example, :along, :consent)

      get "/" do
        redirect("/feeds") unless lead
        @here = "lead"
        @label = "From chat to air"
        @places = places
        erb :lead
      end

      # The stage it is about; made where there is none yet.
      post "/stage" do
        stage_id = ask { |show| show.desks.keys.first } || make_stage
        stage = ask { |show| show.desk(stage_id).stage }
        document = stage.draft
        json(stage: stage_id, name: stage.name, link: "#{request.base_url}/air/#{stage.token}",
          size: document.slice("width", "height", "frame_rate"))
      end

      post("/leave") { set { |lead| lead.left = true } }
      post("/take-up") { set { |lead| lead.left = false } }
      post("/finish") { set(&:finish) }

      # One of those that come after it, seen to be over.
      post "/small/:key/over" do
        ask { |show| show.small_leads.finish(params[:key]) }
        json(done: true)
      end

      helpers do
        def lead = ask { |show| show.record.lead }

        def set
          ask { |show| yield show.lead }
          json(done: true)
        end

        def make_stage
          room("stages")
          document = Core::Stage::Starts.document(LAYOUT, width: 1920, height: 1080)
          stage = site.stores.stages.create(@record.id, name: "Main", document:, backdrop: "none")
          ask { |show| show.add_stage(stage) }
          stage.id
        end

        # @return [Array<Place>]
        def places
          show.platforms.all.each_value.filter_map { |platform| place(platform) } +
            [Place.new("Any IRC server", "paste", "Address and channel, in one piece", "irc://irc.reedmere.example:6667/#dawn", {kind: "irc"}, nil)]
        end

        # @return [Place, nil] nil where there is more to say, which has its form on Feeds
        def place(platform)
          described = platform.description
          consent = platform.consent && "/feeds/permission?platform=#{platform.key}"
          values = {platform: platform.key}
          return Place.new(platform.name, "channel", "Channel", "reedmere", values, consent) if described.nil? || described.irc?
          return if described.rooms || described.secrets.any? || (described.asks - described.asks_aside).size != 1

          wanted = (described.asks - described.asks_aside).first
          Place.new(platform.name, Feeds::Described.field(platform, wanted), wanted.label, wanted.example, values, consent)
        end
      end
    end
  end
end
