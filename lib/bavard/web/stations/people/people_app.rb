# frozen_string_literal: true

require "csv"
require_relative "../../../core/rights"
require_relative "../../../live/moderation/prompter_desk"
require_relative "../../../live/moderation/moderation"
require_relative "../all/station"

module Bavard
  module Web
    # Who helps with the show, who is invited, and what everybody did.
    class PeopleApp < Station
      set :needs_to_see, :read
      set :needs_to_do, :read
      CHOOSES = "/show"

      before { need(:own) if request.post? && request.path_info != CHOOSES }

      PAGE = 200
      INVITED = Core::Rights::ROLES.drop(1).freeze
      FIELDS = %w[by what about].freeze

      get "/" do
        @here = "people"
        @given = fields(*FIELDS)
        @deeds = deeds(PAGE)
        @members = site.stores.team.of_show(@record.id)
        @invitations = @visitor.may?(:own) ? site.stores.team.invitations(@record.id, site.clock.call) : []
        @emails = @visitor.may?(:own) ? emails(@members) : {}
        @names = site.stores.deeds.names(@record.id)
        erb :people
      end

      get "/deeds.:format" do
        found = deeds(nil)
        headers "content-disposition" => %(attachment; filename="deeds.#{params[:format]}")
        case params[:format]
        when "csv"
          content_type "text/csv"
          CSV.generate { |csv| [%w[at by what about line undone_by undone_at], *found.map { |deed| row(deed) }].each { |row| csv << row } }
        when "jsonl"
          content_type "application/jsonl"
          found.map { |deed| "#{JSON.generate(Live::PrompterDesk.deed_card(deed))}\n" }.join
        else not_found
        end
      end

      # How the show and its host are called.
      post "/names" do
        name, host = %w[name host_name].map { |field| text(params[field]).strip[0, 80] }
        raise Error.new("A show has a name.", field: "name") if name.empty?
        raise Error.new("Its host has a name, by which lines address them.", field: "host_name") if host.empty?

        ask do |show|
          show.rename(name, host)
          show.deed("rename", host, about: name)
        end
        site.remembered.forget
        json(name:, host:)
      end

      post "/invite" do
        role = known_role(text(params["role"]))
        name = text(params["name"]).strip[0, 60]
        raise Error.new("Whoever is invited has a name, by which others know them.", field: "name") if name.empty?

        room("invitations")
        invitation = site.stores.team.invite(@record.id, role:, name:, at_ms: ask(&:now_ms))
        by = actor
        ask { |show| show.deed("invite", by, about: name, detail: {"role" => role}) }
        json(link: "#{request.base_url}/people/join/#{invitation.token}")
      end

      post "/invitations/:id/back" do
        name = site.stores.team.take_invitation_back(@record.id, id(params[:id])) || not_found
        by = actor
        ask { |show| show.deed("uninvite", by, about: name) }
        json(done: true)
      end

      post "/:account/role" do
        role = known_role(text(params["role"]))
        member = member_of(params[:account])
        site.stores.team.change_role(@record.id, member.account_id, role)
        cut_links(site.stores.team.take_prompters_back(@record.id, member.account_id)) unless Core::Rights.may?(role, :direct)
        record("role", member, "role" => role, "before" => member.role)
      end

      # At once, everywhere: whatever they have open is cut off.
      post "/:account/remove" do
        member = member_of(params[:account])
        cut_links(site.stores.team.remove(@record.id, member.account_id))
        record("remove", member, "role" => member.role)
      end

      # Another of the shows somebody is in.
      post "/show" do
        chosen = id(params["id"])
        not_found unless @visitor.shows.any? { |show, _| show.id == chosen }
        session[Visitor::CHOSEN] = chosen
        json(done: true)
      end

      helpers do
        def deeds(most)
          given = fields(*FIELDS)
          site.stores.deeds.search(@record.id, by: present(given["by"]), what: present(given["what"]), about: present(given["about"]), most:)
        end

        def present(words) = words.strip.then { |trimmed| trimmed.empty? ? nil : trimmed[0, 100] }
        def known_role(role) = INVITED.include?(role) ? role : raise(Error.new("A role is one of #{INVITED.join(", ")}.", field: "role", value: role))
        def member_of(account) = site.stores.team.find(@record.id, id(account)) || not_found
        def emails(members) = site.db[:accounts].where(id: members.map(&:account_id)).select_hash(:id, :email)

        def row(deed)
          [Time.at(deed.at_ms/1000r).utc.strftime("%Y-%m-%dT%H:%M:%S.%LZ"), deed.by, deed.what, deed.about, deed.line_id, deed.undone_by,
            deed.undone_ms]
        end

        # The links somebody made end with their role.
        def cut_links(ids)
          site.remembered.forget
          site.hub.cut_where { |env| ids.include?(env["bavard.prompter"]) } if ids.any?
        end

        def record(what, member, detail)
          by = actor
          ask { |show| show.deed(what, by, about: member.name, detail:) }
          show_id = @record.id
          site.remembered.forget
          site.hub.cut_where { |env| env["bavard.account"] == member.account_id && env["bavard.show"] == show_id }
          json(done: true)
        end

        def sentence(deed)
          "#{deed.words}#{" #{deed.about}" if deed.about}"
        end
      end
    end
  end
end
