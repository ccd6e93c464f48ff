# frozen_string_literal: true

require "sequel"
require "sinatra/base"
require "tilt/erubi"
require_relative "../views"
require_relative "../../core/reading/speech"
require_relative "asking"
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
      # Also with a slash behind it.
      set :strict_paths, false

      # Options that cannot be read are none: the stage is shown all the same.
      def call(env) = super(query?(env) ? env : env.merge("QUERY_STRING" => ""))

      # What stands in front of the camera: everything, where nothing stands behind it.
      get("/:token") { answer("front") }

      get("/:token/behind") { answer("behind") }

      # What plays just now, read aloud, and no other.
      get("/:token/said/:playing.wav") do
        show, = env["bavard.site"].shows.by_token(params[:token])
        id = params[:playing].to_s[/\A\d{1,18}\z/]&.to_i
        halt 404 unless show && id
        parts, manner = Asking.of(show) { |one| one.cues.read_aloud(id)&.then { |cue| [cue.spoken(Media::Espeak), cue.manner] } }
        halt 404 unless parts&.any?
        cache_control :no_store
        content_type "audio/wav"
        Media::Espeak.wav(parts.map(&:to_a), of: show.id, **manner) || halt(503)
      rescue Busy
        halt 503
      end

      # A part of a link, or more than one.
      get(/.*/) { nothing }

      helpers do
        def answer(side) = known?(params[:token]) ? page("/air/#{params[:token]}/live", request.GET, side) : nothing(side)

        def nothing(side = nil)
          status 404
          page("", {}, side)
        end

        def page(socket, options, side)
          cache_control :no_store
          content_type :html
          LinkPage.new(self, socket, options, edited: false, side:).answer
        end

        # While the database is away, a show that sleeps cannot be told from one that is none: its page waits for it.
        def known?(token)
          !env["bavard.site"].shows.by_token(token).nil?
        rescue Sequel::DatabaseError, Sequel::PoolTimeout
          true
        end
      end

      private

      def query?(env)
        Rack::Utils.parse_nested_query(env["QUERY_STRING"])
        true
      rescue Rack::BadRequest
        false
      end
    end
  end
end
