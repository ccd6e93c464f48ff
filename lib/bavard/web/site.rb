# frozen_string_literal: true

module Bavard
  module Web
    # What the pages rest on; every request finds it in its env.
    #
    # cookie:: name of the session's cookie: its own for each port, for browsers keep cookies by host alone
    Site = Struct.new(:house, :shows, :db, :session_secret, :cookie, :mail_folder, keyword_init: true) do
      # Puts the site into each request's env.
      def in(app)
        lambda do |env|
          env["bavard.site"] = self
          app.call(env)
        end
      end
    end
  end
end
