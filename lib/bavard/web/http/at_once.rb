# frozen_string_literal: true

require "json"
require_relative "../../fair/places"
require_relative "bare_page"
require_relative "household"

module Bavard
  module Web
    # So many requests of one household are answered at once; what comes above that is sent away before anybody is looked up for it. Of what
    # waits, for a server, a show or a decoder, nobody holds so much that others wait for a thread or a line to the database.
    class AtOnce
      # A browser asks for six things at once. Of the prompter’s pages it is as many once more.
      OF_ONE = 12
      # As many as nobody reaches: households are not counted against each other.
      OF_ALL = 10_000
      WORDS = "Enough of yours is being answered just now. Try again in a moment."

      # @param of_one [Integer]
      def initialize(app, of_one: OF_ONE)
        @app = app
        @places = Fair::Places.new(of_all: OF_ALL, of_one:)
      end

      def call(env)
        from = Household.of(env["REMOTE_ADDR"])
        return refusal(env) unless @places.take?(from)

        begin
          @app.call(env)
        ensure
          @places.leave(from)
        end
      end

      private

      def refusal(env)
        return BarePage.answer(env, 503, "#{WORDS}\n") unless env["HTTP_X_REQUESTED_WITH"] == "XMLHttpRequest"

        [503, {"content-type" => "application/json", "retry-after" => BarePage::AGAIN_S.to_s}, [JSON.generate(error: WORDS)]]
      end
    end
  end
end
