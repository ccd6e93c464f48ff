# frozen_string_literal: true

require_relative "../all/station"

module Bavard
  module Web
    # /people/join/<token>: whoever is signed in takes an invitation up, once.
    class JoinApp < Station
      GONE = "This invitation was used or taken back, or is older than a week. Ask for another one."
      set :needs_to_see, :read
      set :needs_to_do, :read

      get "/:token" do
        @here = "join"
        @label = "Invitation"
        @invitation = invitation
        @to = site.stores.shows.brief(@invitation.show_id)
        erb :join
      end

      post "/:token" do
        site.shows.here(invitation.show_id)
        member = site.stores.team.join(invitation, @visitor.account_id, site.clock.call) or raise Gone, GONE
        session[Visitor::CHOSEN] = member.show_id
        joined(member)
        redirect home_of(member.role).first
      end

      helpers do
        def joined(member)
          show = site.shows.run(member.show_id)
          show.ask { |running| running.deed("join", member.name, detail: {"role" => member.role}) }
        end

        def invitation
          site.stores.team.invitation(text(params[:token]), site.clock.call) or raise Gone, GONE
        end
      end
    end
  end
end
