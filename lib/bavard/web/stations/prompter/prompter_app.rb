# frozen_string_literal: true

require_relative "prompter_door"
require_relative "../all/station"

module Bavard
  module Web
    # The host's private reading column, for whoever is signed in.
    class PrompterApp < Station
      set :needs_to_see, :read
      set :needs_to_do, :read
      helpers PrompterDoor::Helpers

      get("/") { prompter_page(base: "/prompter", signed_in: true) }

      register PrompterDoor

      # Prompters that open without signing in: theirs to make and to take back.
      get "/links" do
        need(:direct)
        json(links: links, told: crowded("links").first)
      end

      post "/links" do
        need(:direct)
        given = body_json
        name = text(given["name"]).strip[0, 60]
        raise Error.new("A prompter’s link has a name, by which its deeds are told.", field: "name") if name.empty?

        room("links")
        site.stores.team.add_prompter(show_id, name:, acts: given["acts"] == true, at_ms: ask(&:now_ms), made_by: @visitor.account_id)
        json(links: links, told: crowded("links").first)
      end

      # In one press: whoever has it open is cut off.
      post "/links/:id/back" do
        need(:direct)
        link_id = id(params[:id])
        not_found if site.stores.team.take_prompter_back(show_id, link_id).zero?
        site.remembered.forget
        site.hub.cut_where { |env| env["bavard.prompter"] == link_id }
        json(links: links, told: crowded("links").first)
      end

      helpers do
        def show_id = @record.id

        def links
          site.stores.team.prompters(show_id).map do |link|
            {id: link.id, name: link.name, acts: link.acts, since: link.made_at_ms, link: "#{request.base_url}/prompter/#{link.token}/"}
          end
        end
      end
    end
  end
end
