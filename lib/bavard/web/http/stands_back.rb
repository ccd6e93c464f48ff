# frozen_string_literal: true

require_relative "there"

module Bavard
  module Web
    # While others reach the database and this process does not, they answer what is asked of it: whatever it did would be done beside them.
    class StandsBack
      # What is the same everywhere, and what nginx tells of pages that follow here.
      OWN = %r{\A/(?:assets|relay)/}

      def initialize(app)
        @app = app
      end

      def call(env)
        instead = env["PATH_INFO"].match?(OWN) ? nil : env["bavard.site"].shows.instead
        instead ? There.answer(env, instead) : @app.call(env)
      end
    end
  end
end
