# frozen_string_literal: true

require "sinatra/base"
require "tilt/erubi"
require_relative "../views"
require_relative "../../core/reading/speech"
require_relative "link_page"
require_relative "../stations/prompter/spoken"

module Bavard
  module Web
    # /air/<token>: the page for the broadcast software, with no cookie and nothing but that stage. Whatever is wrong,
    # viewers see an empty transparent page.
    class LinkApp < Sinatra::Base
      helpers Views
      set :erb, escape_html: true
      set :show_exceptions, false
      set :raise_errors, true
      set :protection, false
      set :host_authorization, permitted_hosts: []

      # What stands in front of the camera: everything, where nothing stands behind it.
      get("/:token") { answer("front") }

      get("/:token/behind") { answer("behind") }

      # The message of what plays just now, read aloud, and no other.
      get("/:token/said/:line.wav") do
        show, = env["bavard.site"].shows.by_token(params[:token])
        line_id = params[:line].to_s[/\A\d{1,18}\z/]&.to_i
        words = show && line_id && show.ask { |one| one.cues.read_aloud(line_id)&.then { |line| Core::Reading::Speech.message(line) } }
        halt 404 unless words
        cache_control :no_store
        content_type "audio/wav"
        Spoken.wav(words) || halt(503)
      end

      helpers do
        def answer(side)
          cache_control :no_store
          known = env["bavard.site"].shows.by_token(params[:token])
          status 404 unless known
          LinkPage.new(self, known ? "/air/#{params[:token]}/live" : "", query, edited: false, side:).answer
        end

        def query
          request.GET
        rescue ArgumentError # a query that is no query
          {}
        end
      end
    end
  end
end
