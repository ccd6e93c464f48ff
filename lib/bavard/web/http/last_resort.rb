# frozen_string_literal: true

require "json"
require "rack"
require "sequel"
require_relative "../../live/show/elsewhere"
require_relative "bare_page"
require_relative "not_kept"
require_relative "there"

module Bavard
  module Web
    # What is answered when everything in front of a page has failed: plainly, logged and counted.
    class LastResort
      FAULT = "Something went wrong on our side. It is in the log; what is on air goes on.\n"

      def initialize(app)
        @app = app
      end

      def call(env)
        @app.call(env)
      rescue *NotKept::KINDS => error
        answer(env, 503, "#{NotKept.words(env["bavard.site"], error)}\n", error)
      rescue Live::Elsewhere => error
        There.answer(env, error.address)
      rescue Rack::BadRequest, ArgumentError => error
        answer(env, 400, "#{BarePage::UNREAD}\n", error)
      rescue StandardError => error
        answer(env, 500, FAULT, error)
      end

      private

      # What a page's script asked for it can say where it stands.
      def script?(env) = env["HTTP_X_REQUESTED_WITH"] == "XMLHttpRequest"

      def answer(env, status, words, error)
        tell(env["bavard.site"], status, error)
        return [status, {"content-type" => "application/json"}, [JSON.generate(error: words.strip)]] if script?(env)

        BarePage.answer(env, status, words)
      end

      def tell(site, status, error)
        case status
        when 400 then site.mishaps.rejected(:web, error.class.name)
        when 500 then site.mishaps.fault(:web, "a page failed", error)
        else site.log.error("a page failed", error)
        end
      end
    end
  end
end
