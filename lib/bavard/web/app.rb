# frozen_string_literal: true

require "rack"
require "roda/session_middleware"
require_relative "stations/air/air_app"
require_relative "http/at_once"
require_relative "http/assets"
require_relative "stations/cast/cast_app"
require_relative "stations/cues/cues_app"
require_relative "stations/dress/dress_app"
require_relative "stations/describe/describe_app"
require_relative "stations/feeds/feeds_app"
require_relative "stations/fellows/fellows_app"
require_relative "stations/find/find_app"
require_relative "stations/files/files_app"
require_relative "http/outflow"
require_relative "stations/gate/gate_app"
require_relative "http/handed_out"
require_relative "http/headers"
require_relative "stations/all/icon"
require_relative "links/inbox_app"
require_relative "http/last_resort"
require_relative "http/limits"
require_relative "links/link_app"
require_relative "links/live_sockets"
require_relative "stations/lead/home_app"
require_relative "stations/lead/lead_app"
require_relative "stations/log/log_app"
require_relative "stations/people/join_app"
require_relative "links/microphone_app"
require_relative "links/now_app"
require_relative "http/operations"
require_relative "stations/operator/operator_app"
require_relative "stations/people/people_app"
require_relative "http/pictures"
require_relative "links/relay_calls"
require_relative "http/request_ids"
require_relative "stations/prompter/prompter_app"
require_relative "stations/prompter/prompter_link_app"
require_relative "accounts/sign_in"
require_relative "site"
require_relative "http/stands_back"
require_relative "stations/stage/stage_app"
require_relative "accounts/stay"
require_relative "http/true_client"

module Bavard
  module Web
    # The whole of the web side as one Rack application.
    module App
      NOTHING_HERE = ->(_env) { [404, {"content-type" => "text/plain"}, ["There is nothing at this address.\n"]] }

      # What is handed out as it lies there.
      FILES = {
        "/pictures" => Pictures, "/films" => HandedOut.new(:films, "webm", "film"), "/favicon.ico" => NOTHING_HERE,
        "/sounds" => HandedOut.new(:sounds, "ogg", "sound", "content-type" => "audio/ogg"),
        "/fonts" => HandedOut.new(:faces, "woff2", "face", "content-type" => "font/woff2", "access-control-allow-origin" => "*")
      }.freeze

      # The host's own pages; the more exact path first.
      STATIONS = {
        "/feeds/describe" => DescribeApp, "/feeds" => FeedsApp, "/log" => LogApp, "/people/join" => JoinApp,
        "/people" => PeopleApp, "/gate" => GateApp, "/dress/cast" => CastApp,
        "/dress/cues" => CuesApp, "/dress/files" => FilesApp,
        "/dress/fellows" => FellowsApp, "/dress" => DressApp, "/stage" => StageApp, "/links" => AirApp, "/lead" => LeadApp, "/find" => FindApp,
        "/operator" => OperatorApp
      }.freeze

      module_function

      # @param site [Site]
      def build(site)
        sign_in = SignIn.for(site)
        session = {secret: site.session_secret, key: site.cookie, max_seconds: 30 * 86_400, max_idle_seconds: 14 * 86_400,
                   cookie_options: {path: "/", httponly: true, same_site: :lax, secure: site.address.start_with?("https://")}}
        site.in(TrueClient.new(builder(session, sign_in).to_app, proxies: site.proxies || [], hosts: site.hosts || []))
      end

      def builder(session, sign_in)
        Rack::Builder.new do
          use Headers
          use RequestIds
          use LastResort
          use Outflow::Middleware
          use Operations
          use StandsBack
          use Limits.middleware
          FILES.each { |path, files| map(path) { run files } }
          map("/assets") { run Rack::ConditionalGet.new(Assets.new) }
          map("/now") { run NowApp }
          map("/relay") { run RelayCalls.new }
          App.by_link(self)
          map("/prompter") { run App.prompter(App.stations(session, sign_in, PrompterApp)) }
          map("/") { run App.stations(session, sign_in) }
        end
      end

      # What is reached by a link alone, each with a WebSocket of its own.
      def by_link(builder)
        {"/air" => LinkApp, "/mic" => MicrophoneApp, "/in" => InboxApp}.each do |path, app|
          builder.map(path) do
            use LiveSockets
            run app
          end
        end
      end

      # Somebody who looks for a page is told in one that there is none.
      def somewhere?(env) = env["PATH_INFO"] == "/" || (env["REQUEST_METHOD"] == "GET" && env["HTTP_ACCEPT"].to_s.include?("text/html"))

      # By a link of its own, or signed in.
      def prompter(signed_in)
        by_link = Rack::Builder.app do
          use LiveSockets
          run PrompterLinkApp
        end
        ->(env) { (env["PATH_INFO"].match?(PrompterLinkApp::TOKEN) ? by_link : signed_in).call(env) }
      end

      # Everything that needs sign-in.
      #
      # @param only [Class, nil] one app in the place of all
      def stations(session, sign_in, only = nil)
        Rack::Builder.app do
          use AtOnce
          use Stay, session[:key]
          use RodaSessionMiddleware, session
          use sign_in
          use LiveSockets
          next run(only) if only

          STATIONS.each { |path, app| map(path) { run app } }
          run ->(env) { App.somewhere?(env) ? HomeApp.call(env) : NOTHING_HERE.call(env) }
        end
      end
    end
  end
end
