# frozen_string_literal: true

require "sequel"
require "sinatra/base"
require "tilt/erubi"
require_relative "../views"
require_relative "../../core/reading/speech"
require_relative "link_page"
require_relative "../../media/espeak"

module Bavard
  module Web
    # /air/<token>: the page for the broadcast software, with no cookie and nothing but that stage. Whatever is wrong,
    # viewers see an empty transparent page.
    class LinkApp < Sinatra::Base
      helpers Views
      set :erb, escape_html: true
      set :show_exceptions, false
      set :raise_errors, true
      set :dump_errors, false
      set :protection, false
      set :host_authorization, permitted_hosts: []

      # What stands in front of the camera: everything, where nothing stands behind it.
      get("/:token") { answer("front") }

      get("/:token/behind") { answer("behind") }

      # What plays just now, read aloud, and no other.
      get("/:token/said/:playing.wav") do
        show, = env["bavard.site"].shows.by_token(params[:token])
        id = params[:playing].to_s[/\A\d{1,18}\z/]&.to_i
        parts, manner = show && id && show.ask { |one| one.cues.read_aloud(id)&.then { |cue| [cue.spoken(Media::Espeak), cue.manner] } }
        halt 404 unless parts&.any?
        cache_control :no_store
        content_type "audio/wav"
        Media::Espeak.wav(parts.map(&:to_a), **manner) || halt(503)
      end

      helpers do
        def answer(side)
          cache_control :no_store
          known = known?(params[:token])
          status 404 unless known
          LinkPage.new(self, known ? "/air/#{params[:token]}/live" : "", query, edited: false, side:).answer
        end

        # While the database is away, a show that sleeps cannot be told from one that is none: its page waits for it.
        def known?(token)
          !env["bavard.site"].shows.by_token(token).nil?
        rescue Sequel::DatabaseError, Sequel::PoolTimeout
          true
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
