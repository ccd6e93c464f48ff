# frozen_string_literal: true

require "json"
require "rack"
require_relative "assets"
require_relative "bare_page"

module Bavard
  module Web
    # What is answered while Bavard is not there yet: by what it waits for. Pages come again by themselves; a screen shows nothing, and
    # keeps what it shows where it shows something already.
    class WaitingRoom
      AGAIN_S = BarePage::AGAIN_S
      # It has no script, and asks for nothing but its style.
      POLICY = "default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self'; frame-ancestors 'self'"
      HEADERS = {"content-type" => "text/html; charset=utf-8", "cache-control" => "no-store", "retry-after" => AGAIN_S.to_s,
                 "content-security-policy" => POLICY, "x-content-type-options" => "nosniff", "referrer-policy" => "no-referrer"}.freeze

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

        [503, HEADERS.dup, [path.match?(BarePage::ON_PICTURE) ? BarePage::EMPTY : page]]
      end

      private

      def words = "Bavard waits for #{waits_for}. What screens show stays there."

      def refusal
        body = {ok: false, waits_for:, error: "#{words} Nothing was changed; try again in a moment."}
        [503, {"content-type" => "application/json", "cache-control" => "no-store", "retry-after" => AGAIN_S.to_s}, ["#{JSON.generate(body)}\n"]]
      end

      def page = BarePage.html("One moment", words, AGAIN_S)
    end
  end
end
