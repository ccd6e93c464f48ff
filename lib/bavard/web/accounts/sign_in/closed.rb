# frozen_string_literal: true

require "roda"

module Bavard
  module Web
    class SignIn < Roda
      # Nobody signs in to an account that the operator has closed. It is told to whoever knows its password, and to nobody else.
      module Closed
        WORDS = "This account is closed. Whoever runs this Bavard can open it again."

        module_function

        # Behind the password.
        def keep_out(rodauth, site)
          return unless site.stores.accounts.closed?(rodauth.account_id)

          rodauth.instance_exec do
            response.status = 403
            set_error_flash WORDS
            response.write(login_view)
            request.halt
          end
        end
      end
    end
  end
end
