# frozen_string_literal: true

require "erubi"
require "fileutils"
require "json"
require "sinatra/base"
require "tilt/erubi"
require "tmpdir"
require "rack/protection/authenticity_token"
require_relative "../../../core/rights"
require_relative "../../../error"
require_relative "../../../fair/places"
require_relative "../../../fair/turns"
require_relative "../files/brought_files"
require_relative "../../http/bodies"
require_relative "../../views"
require_relative "help"
require_relative "rooms"
require_relative "station_words"
require_relative "visitor"

module Bavard
  module Web
    # What all stations of the signal line share: the show of whoever is signed in, and how errors are told.
    class Station < Sinatra::Base
      include StationWords
      include Help

      # A stage and a piece on it.
      FROM = /\A(\d{1,18})\.([a-z_]{1,20}\d{1,6})\z/

      # Requests of one show that are being answered: whoever has a slow show, or asks for much, holds only so many of Bavard's threads.
      AT_ONCE = Fair::Places.new(of_all: 1000, of_one: 8)
      # What other servers are asked while somebody waits for it, for as long as they may take: one thing of each show, shows in turn.
      OUTWARD = Fair::Turns.new(at_once: 8, most_waiting: 6, most_of_one: 2)

      # Of the signal line: key, path, label, icon.
      STATIONS = [
        ["feeds", "/feeds", "Feeds", "plug-zap"], ["gate", "/gate", "Gate", "list-filter"],
        ["dress", "/dress", "Dress", "shapes"], ["stage", "/stage", "Stage", "frame"], ["air", "/links", "Air", "radio-tower"]
      ].freeze

      # What the figures of stations count, as lists.
      LISTS = {"feeds" => "/log/", "gate" => "/log/?kind=kept_off", "air" => "/log/?kind=aired"}.freeze

      set :erb, escape_html: true, layout: :layout
      set :show_exceptions, false
      set :raise_errors, false
      set :dump_errors, false
      set :protection, except: %i[session_hijacking remote_token json_csrf frame_options xss_header host_authorization]
      set :host_authorization, permitted_hosts: []
      set :static, false
      # What of Core::Rights a page takes, to be seen and to change something.
      set :needs_to_see, :direct
      set :needs_to_do, :direct

      use Rack::Protection::AuthenticityToken, key: "csrf", authenticity_param: "csrf"

      before do
        account_id = SignIn::Sessions.account(request.env["rodauth"], site)
        halt 413, problem("That is more than fits into one request.") if request.content_length.to_i > Bodies.most(request.path)
        @visitor = Visitor.known(site, account_id, session[Visitor::CHOSEN]) or raise Gone, "You are in no show any more."
        @record = @visitor.record
        take_place
        need(request.get? || request.head? ? settings.needs_to_see : settings.needs_to_do)
        # Nothing is done twice: what runs elsewhere is asked there before anything is changed.
        site.shows.here(@record.id)
        cache_control :no_store
      end

      after { AT_ONCE.leave(@placed) if @placed }

      StationWords.errors(self)

      # What takes longer is followed by whoever brought it.
      set :soon_s, 2

      helpers Views
      helpers do
        # @return [Live::Show] the running show of whoever is signed in
        def show
          site.shows.run(@record.id)
        end

        def ask(&work) = show.ask(&work)

        # Whoever finds none is told so without asking the show, which may be what is slow.
        #
        # @raise [Busy]
        def take_place
          return @placed = @record.id if AT_ONCE.take?(@record.id)

          @record = nil
          raise Busy, "Enough of this show is being answered just now. Try again in a moment."
        end

        # What asks other servers, and waits for them.
        #
        # @raise [Busy] where enough is being asked
        def outward
          begun = false
          OUTWARD.take(@record.id) do
            begun = true
            yield
          end
        rescue Busy
          raise if begun

          raise Busy, "Enough is being asked of other servers just now. Try again in a moment."
        end

        # As the page will be told them: they have their room from the beginning, so that nothing moves away from under a mouse.
        #
        # @return [Hash{String => Hash}]
        def small_leads
          ask { |show| show.small_leads.report(show.now_ms) }
        rescue Busy
          {}
        end

        # @raise [Error] where this show may have no more of it
        def room(what, more = 1) = site.stores.ceilings.room(@record.id, what, more)

        # @param held [Hash{String => Integer}] how much documents hold of what they hold
        # @return [Array<String>] of which of that there is little room left, in words
        def crowded(*whats, **held)
          [*whats.zip, *held.transform_keys(&:to_s)].filter_map { |given| site.stores.ceilings.nearly(@record.id, *given) }
        end

        # @param name [String] as the picture is called, or its address
        # @return [String] the id of a picture of somebody or of a cue, made of what was brought
        def figure(name, bytes) = BroughtFiles.new(site, @record.id).figure(name, bytes)

        # A file that is made anew in its own time: the answer is what came of it where that is soon, else how to follow it.
        #
        # @param given [Hash] of the form: filename, tempfile
        # @yieldparam file [File] the same, which is there as long as it is needed
        # @yieldparam watch [Live::Takings::Taking]
        # @yieldreturn [Hash] for the page
        def taking(given)
          folder = Dir.mktmpdir("bavard-taking")
          path = File.join(folder, "file")
          FileUtils.cp(given[:tempfile].path, path)
          taking = site.takings.begin(@record.id, text(given[:filename])[0, 120]) do |watch|
            File.open(path, "rb") { |file| yield file, watch }
          ensure
            FileUtils.rm_rf(folder)
          end
          return json(taking: taking.id, name: taking.name) unless taking.over?(settings.soon_s)

          raise taking.error if taking.error

          json(taking.result)
        rescue Busy
          FileUtils.rm_rf(folder)
          raise
        end

        # @return [String] who acts, as others see it
        def actor = @visitor.name
        def role = @visitor.role
        def session = env["rack.session"]
        # Whoever is in no show can go.
        def way_out = @visitor ? home_of(role) : ["/account/logout", "Sign out"]

        # @return [Array(String, String)] where somebody with that role begins: a path and the words that lead there
        def home_of(role) = Core::Rights.may?(role, :direct) ? ["/feeds", "Back to the feeds"] : ["/prompter/", "To the prompter"]

        # Ends the request where the role does not allow what is asked for.
        def need(what)
          return if @visitor.may?(what)

          halt 403, problem("Your role here is #{role}: #{Core::Rights::WORDS[role]}. That does not include this.")
        end

        def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])

        # @return [Array<Array(Rooms::Room, Integer)>] of this station, each with its figure
        def rooms_here
          rooms = Rooms.of(@here, @visitor)
          return [] if rooms.empty?

          figures = room_figures(rooms)
          rooms.map { |room| [room, figures[room.key]] }
        end

        # @return [String, nil] the piece on the Stage that somebody came from
        def way_back = params["from"].to_s.match(FROM)&.then { |from| "/stage/#{from[1]}##{from[2]}" }

        # Without any where the show is busy: what stands in the log can be read all the same.
        def room_figures(rooms)
          figures = ask { |show| rooms.to_h { |room| [room.key, Rooms.figure(room.key, show)] } }
          return figures unless figures.key?("files")

          figures.merge("files" => site.stores.files.shelved(@record.id))
        rescue Busy, Sequel::DatabaseError, Sequel::PoolTimeout
          figures || {}
        end

        def station_label
          @label || STATIONS.find { |key, *| key == @here }&.at(2) || Rooms.label(@here)
        end
      end
    end
  end
end
