# frozen_string_literal: true

require "sinatra/base"
require "tilt/erubi"
require_relative "link_page"

module Bavard
  module Web
    # /air/<token>: the page for the broadcast software, with no cookie and nothing but that stage. Whatever is wrong,
    # viewers see an empty transparent page.
    class LinkApp < Sinatra::Base
      set :views, File.join(__dir__, "views")
      set :erb, escape_html: true
      set :show_exceptions, false
      set :raise_errors, true
      set :protection, false
      set :host_authorization, permitted_hosts: []

      # What stands in front of the camera: everything, where nothing stands behind it.
      get("/:token") { answer("front") }

      get("/:token/behind") { answer("behind") }

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
