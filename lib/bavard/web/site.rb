# frozen_string_literal: true

module Bavard
  module Web
    # What the pages rest on; every request finds it in its env.
    #
    # address:: where letters say that Bavard is, such as "http://127.0.0.1:4600"
    # cookie:: name of the session's cookie: its own for each port, for browsers keep cookies by host alone
    Site = Struct.new(:house, :shows, :db, :session_secret, :cookie, :mail_folder, :address, keyword_init: true) do
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
