# frozen_string_literal: true

require "json"
require "sinatra/base"
require "tilt/erubi"
require_relative "../views"
require_relative "../http/bodies"
require_relative "../stations/all/icon"
require_relative "../stations/all/station_words"
require_relative "microphone_socket"

module Bavard
  module Web
    # /mic/<token>: the page at which somebody's microphone becomes a voice. The link is all there is to know: no cookie is set or read.
    class MicrophoneApp < Sinatra::Base
      helpers Views
      LONGEST_NAME = 60
      # This page may ask for the microphone, which no other may.
      MAY_HEAR = {"permissions-policy" => "camera=(), microphone=(self), geolocation=()"}.freeze

      include StationWords

      before do
        cache_control :no_store
        headers MAY_HEAR
      end

      StationWords.by_link(self)
      not_found { problem("This link is not valid any more. Ask whoever gave it to you for another one.") }

      get "/:token" do
        @link = link
        @room = site.stores.feeds.find(@link.feed_id)&.name || "Microphones"
        erb :microphone_page
      end

      # At the link for anybody: a name is chosen, and becomes a link of one's own.
      post "/:token/name" do
        not_found unless link.anybody?
        name = text(params["name"]).gsub(/[[:space:]]+/, " ").strip[0, LONGEST_NAME]
        raise Error.new("What are you called?", field: "name") if name.empty?

        own = site.stores.microphones.add(link.feed_id, name:)
        json(at: "/mic/#{own.token}")
      end

      helpers do
        def link = @link ||= MicrophoneSocket.link(site, text(params[:token])) || not_found
      end
    end
  end
end
