# frozen_string_literal: true

require "json"
require "rack"
require_relative "assets"

module Bavard
  module Web
    # What is answered while Bavard is not there yet: by what it waits for. Pages come again by themselves; a screen shows nothing, and
    # keeps what it shows where it shows something already.
    class WaitingRoom
      AGAIN_S = 2
      SCREENS = %r{\A/air/}
      # It has no script, and asks for nothing but its style.
      POLICY = "default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self'; frame-ancestors 'self'"
      HEADERS = {"content-type" => "text/html; charset=utf-8", "cache-control" => "no-store", "retry-after" => AGAIN_S.to_s,
                 "content-security-policy" => POLICY, "x-content-type-options" => "nosniff", "referrer-policy" => "no-referrer"}.freeze
      # Transparent, as a stage without anything on it.
      SCREEN = "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>bavard</title>" \
               "<meta http-equiv=\"refresh\" content=\"#{AGAIN_S}\"></head><body></body></html>\n".freeze

      # @return [String] in words that go on after "waits for"
      attr_accessor :waits_for

      def initialize(waits_for)
        @waits_for = waits_for
        @assets = Rack::URLMap.new("/assets" => Assets.new)
      end

      def call(env)
        path = env["PATH_INFO"]
        return @assets.call(env) if path.start_with?("/assets/")
        return refusal if path == "/healthz" || env["REQUEST_METHOD"] != "GET" || env["HTTP_X_REQUESTED_WITH"] || env["HTTP_UPGRADE"]

        [503, HEADERS.dup, [path.match?(SCREENS) ? SCREEN : page]]
      end

      private

      def words = "Bavard waits for #{waits_for}. What screens show stays there."

      def refusal
        body = {ok: false, waits_for:, error: "#{words} Nothing was changed; try again in a moment."}
        [503, {"content-type" => "application/json", "cache-control" => "no-store", "retry-after" => AGAIN_S.to_s}, ["#{JSON.generate(body)}\n"]]
      end

      def page
        <<~HTML
          <!doctype html>
          <html lang="en">
          <head>
          <meta charset="utf-8">
          <meta name="viewport" content="width=device-width">
          <meta http-equiv="refresh" content="#{AGAIN_S}">
          <title>Waiting · bavard</title>
          <link rel="icon" href="#{Assets.at("mark.svg")}">
          <link rel="stylesheet" href="#{Assets.at("css/base.css")}">
          <link rel="stylesheet" href="#{Assets.at("css/sign_in.css")}">
          </head>
          <body class="door">
          <main class="door-words" role="status">
            <p class="logo"><i>«</i>bavard<i>»</i></p>
            <h1>One moment</h1>
            <p>#{Rack::Utils.escape_html(words)}</p>
            <p class="said">This page goes on by itself.</p>
          </main>
          <aside class="door-view" aria-hidden="true"></aside>
          </body>
          </html>
        HTML
      end
    end
  end
end
