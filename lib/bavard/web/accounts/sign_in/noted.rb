# frozen_string_literal: true

require "roda"

module Bavard
  module Web
    class SignIn < Roda
      # Who came in, and whose account somebody tried so often that they had to wait, for whoever runs Bavard.
      module Noted
        # An account that is tried all night is no thousand lines.
        EVERY_MS = 3_600_000

        module_function

        def came_in(rodauth, site) = site.stores.accounts.deeds.note("signed_in", by: rodauth.account[:email], about: "from #{rodauth.request.ip}")

        # Of accounts that are there: a name that somebody made up leaves nothing behind.
        def kept_waiting(rodauth, site, login)
          email = site.db[:accounts].where(email: login.to_s[0, 255]).get(:email) or return
          site.stores.accounts.deeds.note_now_and_then("kept_out", by: email, about: "from #{rodauth.request.ip}", every_ms: EVERY_MS)
        end
      end
    end
  end
end
