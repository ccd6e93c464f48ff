# frozen_string_literal: true

require "sinatra/base"
require "tilt/erubi"
require_relative "../../views"
require_relative "../../http/bodies"
require_relative "../all/icon"
require_relative "prompter_door"
require_relative "../all/station_words"

module Bavard
  module Web
    # /prompter/<token>: the reading column where signing in is awkward. The link is all there is to know: no cookie is set or
    # read, so no other site can act in its name.
    class PrompterLinkApp < Sinatra::Base
      TOKEN = %r{\A/([\w-]{32})(?:/|\z)}

      helpers Views

      include StationWords

      # The link in front of every path.
      before do
        token = request.path_info[TOKEN, 1]
        @link = token && site.remembered.of(:prompter, token) { site.stores.team.prompter(token) }
        halt 404 unless @link
        halt 413, problem("That is more than fits into one request.") if request.content_length.to_i > Bodies.most(request.path)
        redirect to("/#{token}/") if request.path_info == "/#{token}"
        request.path_info = request.path_info.delete_prefix("/#{token}")
        cache_control :no_store
        site.shows.here(@link.show_id)
      end

      StationWords.by_link(self)
      not_found { problem("There is nothing at this address. The link may have been taken back.") }
      helpers PrompterDoor::Helpers

      get("/") { prompter_page(base: "/prompter/#{@link.token}", signed_in: false) }

      register PrompterDoor

      helpers do
        def show_id = @link.show_id
        def show = site.shows.run(show_id)
        def ask(&work) = show.ask(&work)
        def role = @link.acts ? "moderator" : "reader"
        def actor = @link.name
        def need(what) = Core::Rights.may?(role, what) || halt(403, problem("This link is for reading only."))
      end
    end
  end
end
