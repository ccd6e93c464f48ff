# frozen_string_literal: true

require "rack"
require "websocket/driver"
require_relative "inbox_socket"
require_relative "microphone_socket"
require_relative "../stations/all/visitor"

module Bavard
  module Web
    # Where pages open their WebSocket: /air/<token>/live for screens, /stage/<id>/live for a draft, /live for the
    # host's own pages; /mic/<token>/live for microphones; and where others send to:
    # /in/<token>/live. Taken off the web server at once and handed to the relay; or, where a relay in front asks for a page, that is told
    # which channels the page follows.
    class LiveSockets
      AIR = %r{\A/air/([\w-]{16,64})/live\z}
      DRAFT = %r{\A/stage/(\d{1,18})/live\z}
      MICROPHONE = %r{\A/mic/([\w-]{32})/live\z}
      INBOX = %r{\A/in/([\w-]{16,64})/live\z}
      SHOW = "/live"
      PROMPTER = "/prompter/live"
      PROMPTER_LINK = %r{\A/prompter/([\w-]{32})/live\z}
      NOTHING_HERE = [404, {"content-type" => "text/plain"}, ["There is nothing here.\n"]].freeze

      FULL = [503, {"content-type" => "text/plain", "retry-after" => "30"}, ["As many as may be are here already.\n"]].freeze
      NO_RELAY = [503, {"content-type" => "text/plain", "retry-after" => "1"}, ["The relay is not there just now.\n"]].freeze
      # Somebody was cut off while it was looked up who that is.
      AGAIN = [503, {"content-type" => "text/plain", "retry-after" => "1"}, ["Ask again.\n"]].freeze
      # With it nginx says that it holds the line itself.
      RELAYED = "HTTP_X_BAVARD_RELAY"
      # What is known of a page whose line another holds.
      KEPT = %w[REMOTE_ADDR HTTP_HOST bavard.prompter bavard.account bavard.session bavard.show].freeze

      # Told of what comes from a page that only listens.
      module Listener
        module_function

        def opened(_connection) = nil
        def heard(_connection, _text) = nil
        def closed(_connection) = nil
      end

      # Told of what a screen of an air link does.
      Watcher = Struct.new(:show, :desk) do
        def opened(connection) = show.screen(desk, :opened, connection)
        def heard(connection, text) = show.screen(desk, :heard, connection, text)
        def closed(connection) = show.screen(desk, :closed, connection)
      end

      def initialize(app)
        @app = app
      end

      def call(env)
        path = env["SCRIPT_NAME"] + env["PATH_INFO"]
        return @app.call(env) unless path.end_with?("/live") && (relayed?(env) || WebSocket::Driver.websocket?(env))
        return NOTHING_HERE unless same_origin?(env)

        # Before it is looked up who that is, and what may be heard there.
        env["bavard.cuts"] = env["bavard.site"].hub.cuts
        topic, follower, show_id = find(env, path)
        return NOTHING_HERE unless topic
        return FULL unless room?(env["bavard.site"], topic, show_id)

        relayed?(env) ? hand_over(env, topic, follower) : take_over(env, topic, follower)
      end

      private

      def relayed?(env) = env.key?(RELAYED) && env["bavard.by_proxy"]

      # What others send of their own (:timed is not) comes here, and over no relay.
      def hand_over(env, topic, follower)
        hub = env["bavard.site"].hub
        return NOTHING_HERE unless topic.timed?
        return NO_RELAY unless hub.respond_to?(:follow) && hub.there?

        at = hub.follow(env.slice(*KEPT), topic, follower:, last: last(env), cuts: env["bavard.cuts"]) or return AGAIN
        [200, {"x-accel-redirect" => at}, []]
      end

      # For one more page on that topic.
      def room?(site, topic, show_id)
        site.hub.size(topic) < site.stores.ceilings.most(show_id, topic.name.start_with?("air:") ? "screens" : "prompters")
      end

      def find(env, path)
        site = env["bavard.site"]
        if (match = AIR.match(path))
          show, desk = site.shows.by_token(match[1])
          return desk && [desk.air_topic, Watcher.new(show, desk), show.id]
        end
        if (match = INBOX.match(path))
          inbox = InboxSocket.open(site, match[1], Rack::Utils.parse_query(env["QUERY_STRING"]))
          env.update("bavard.show" => inbox.show_id, "bavard.inbox" => true) if inbox
          return inbox && [inbox.topic, inbox]
        end
        if (match = MICROPHONE.match(path))
          return microphone(env, site, match[1])
        end
        return prompter_link(env, site, match[1]) if (match = PROMPTER_LINK.match(path))

        signed_in(env, site, path)
      end

      def microphone(env, site, token)
        link = MicrophoneSocket.link(site, token) or return
        return if link.anybody?

        site.shows.here(link.show_id)
        env.update("bavard.show" => link.show_id, "bavard.microphone" => link.id)
        MicrophoneSocket.new(site, link).then { |socket| [socket.topic, socket] }
      end

      def prompter_link(env, site, token)
        link = site.remembered.of(:prompter, token) { site.stores.team.prompter(token) } or return
        env["bavard.prompter"] = link.id
        show = site.shows.run(link.show_id)
        [show.prompter_opened, Listener, show.id]
      end

      def signed_in(env, site, path)
        show, visitor = own_show(env, site)
        return unless show
        return [show.topic, Listener, show.id] if path == SHOW
        return [show.prompter_opened, Listener, show.id] if path == PROMPTER
        return unless visitor.may?(:direct)

        desk = (match = DRAFT.match(path)) && show.desks[match[1].to_i]
        desk && [desk.draft_topic, Listener, show.id]
      end

      def own_show(env, site)
        rodauth = env["rodauth"] or return
        unless rodauth.logged_in? && site.remembered.of(:factors, SignIn::Sessions.id(rodauth)) { !rodauth.two_factor_partially_authenticated? }
          return
        end

        visitor = Visitor.known(site, rodauth.session_value, env["rack.session"][Visitor::CHOSEN]) or return
        env["bavard.account"] = rodauth.session_value
        env["bavard.session"] = SignIn::Sessions.id(rodauth)
        env["bavard.show"] = visitor.record.id
        [site.shows.run(visitor.record.id), visitor]
      end

      # A page of another site must not listen in with the host's cookie.
      def same_origin?(env)
        origin = env["HTTP_ORIGIN"]
        origin.nil? || origin.sub(%r{\Ahttps?://}, "") == env["HTTP_HOST"]
      end

      def take_over(env, topic, follower)
        io = env["rack.hijack"].call
        env["bavard.site"].hub.join(io, env, topic, follower:, last: last(env), cuts: env["bavard.cuts"])
        [-1, {}, []]
      end

      def last(env) = Rack::Utils.parse_query(env["QUERY_STRING"])["last"]
    end
  end
end
