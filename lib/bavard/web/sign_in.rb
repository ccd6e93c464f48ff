# frozen_string_literal: true

require "roda"
require "rodauth"
require "uri"
require_relative "../store/shows"

module Bavard
  module Web
    # Who is signed in: Rodauth in front of everything else. A new account begins with an empty show.
    class SignIn < Roda
      LOCKED_AFTER = 12
      LOCKED_FOR_S = 15 * 60
      SHORTEST_PASSWORD = 10
      LONGEST_SHOW_NAME = 80
      OLD_FORM = "This form is too old, or came from another site. Go back, load the page again, and send it once more.\n"

      # Where accounts are kept.
      STORAGE = lambda do |site|
        db site.db
        base_url site.address
        domain URI(site.address).host
        hmac_secret site.session_secret
        account_password_hash_column :password_hash
        account_status_column :status_id
        skip_status_checks? true
        set_deadline_values? true
        require_mail? false
        remember_cookie_key "#{site.cookie}.remember"
        send_unlock_account_email { Letters.write(site.mail_folder) { create_unlock_account_email } }
      end
      # Whether there is such an account is not told: the same words at the same field, after the same work.
      NOT_TOGETHER = "This address and this password do not go together"
      SILENCE = lambda do |_site|
        no_matching_login_message NOT_TOGETHER
        invalid_password_message NOT_TOGETHER
        login_error_flash "That did not work"
        after_no_matching_login { argon2_password_hash_match?(SignIn.some_hash { password_hash("nobody") }, param(password_param)) }
        auth_class_eval do
          def throw_error_reason(reason, status, field, message)
            return super unless reason == :no_matching_login

            super(:invalid_password, login_error_status, password_param, message)
          end
        end
      end
      # What it takes to get in.
      STRENGTH = lambda do |_site|
        require_bcrypt? false
        password_is_one_of_the_most_common_message "is one that thousands of people use: anybody would try it"
        password_minimum_length SHORTEST_PASSWORD
        require_login_confirmation? false
        require_password_confirmation? false
        max_invalid_logins LOCKED_AFTER
        account_lockouts_deadline_interval seconds: LOCKED_FOR_S
        extend_remember_deadline? true
        otp_issuer "Bavard"
        after_login { remember_login if param_or_nil("remember") }
      end
      # Which way people go.
      WAYS = lambda do |site|
        prefix "/account"
        login_redirect "/feeds"
        already_logged_in { redirect "/feeds" }
        # To where they wanted to go, such as an invitation.
        create_account_redirect { @asked_for || "/feeds" }
        logout_redirect "/account/login"
        require_login_redirect { login_path }
        login_return_to_requested_location? true
        two_factor_auth_return_to_requested_location? true
        before_create_account_route { Door.keep(self, site) }
        before_create_account do
          @asked_for = remove_session_value(login_redirect_session_key)
          Begin.check(self)
        end
        after_create_account { Begin.show(self, site) }
      end
      # What it is called.
      WORDS = lambda do |_site|
        title_instance_variable :@page_title
        login_page_title "Sign in"
        create_account_page_title "A new account"
        login_label "E-mail address"
        login_notice_flash nil
        create_account_notice_flash nil
        otp_setup_link_text "Set up an authenticator app"
        otp_setup_page_title "Set up an authenticator app"
        otp_setup_button "Ask for its code from now on"
        otp_auth_page_title "The second factor"
        otp_auth_button "Go on"
        otp_auth_label "Code that the app shows"
        otp_secret_label "Key, where a camera is not at hand"
        otp_provisioning_uri_label "The same as an address"
        two_factor_manage_page_title "Second factor"
        change_password_page_title "Change the password"
        logout_page_title "Sign out"
        logout_button "Sign out"
      end
      FEATURES = %i[login logout create_account remember lockout otp recovery_codes change_password argon2 internal_request
        disallow_common_passwords].freeze

      # @return [String] of a password nobody has
      def self.some_hash = @some_hash ||= yield

      # @param site [Site]
      # @return [Class] the middleware for this site
      def self.for(site)
        Class.new(self) do
          plugin :middleware
          plugin :flash
          plugin :render, views: File.join(__dir__, "views/sign_in"), escape: true, layout: "layout"
          plugin(:route_csrf) do |_request|
            response.status = 403
            OLD_FORM
          end
          plugin(:rodauth, csrf: :route_csrf) do
            enable(*FEATURES)
            [STORAGE, SILENCE, STRENGTH, WAYS, WORDS].each { |part| instance_exec(site, &part) }
          end
          route { |request| answer(request) }
        end
      end

      # Answers what is about accounts and lets everything else through, with who it is.
      def answer(request)
        env["rodauth"] = rodauth
        rodauth.load_memory
        request.on("account") { request.rodauth }
        nil
      end

      # Who may make an account here, as the operator decided (BAVARD_ACCOUNTS): anybody, whoever was invited to help in a show, or
      # nobody; and whoever reads what the start-up prints, once, where there is none yet but the demo show's.
      module Door
        INVITED = %r{\A/people/join/([\w-]{32,})}
        CLOSED = "No accounts are made here. Whoever runs this Bavard can make you one, or invite you to a show.\n"
        BEGIN_KEY = "begin"

        module_function

        # Ends the request where it may not go on.
        def keep(rodauth, site)
          return if open?(rodauth, site)

          rodauth.response.status = 403
          rodauth.response["content-type"] = "text/plain; charset=utf-8"
          rodauth.response.write(CLOSED)
          rodauth.request.halt
        end

        def open?(rodauth, site)
          site.accounts == "open" || first?(rodauth, site) || (site.accounts == "invited" && invited?(rodauth, site))
        end

        # By the address that was asked for before.
        def invited?(rodauth, site)
          token = rodauth.session[rodauth.login_redirect_session_key].to_s[INVITED, 1]
          !token.nil? && !site.house.team.invitation(token).nil?
        end

        # Kept over the form in the session.
        def first?(rodauth, site)
          given = rodauth.param_or_nil(BEGIN_KEY) || rodauth.session[BEGIN_KEY]
          return false unless given && site.begin_key && Rack::Utils.secure_compare(site.begin_key, given) && site.db[:accounts].count < 2

          rodauth.session[BEGIN_KEY] = given
          true
        end
      end

      # What a new account begins with.
      module Begin
        module_function

        def check(rodauth)
          name = rodauth.param_or_nil("show_name").to_s.strip
          return if name.length <= LONGEST_SHOW_NAME

          rodauth.send(:throw_error_status, 422, "show_name", "at most #{LONGEST_SHOW_NAME} characters")
        end

        def show(rodauth, site)
          name = rodauth.param_or_nil("show_name").to_s.strip
          host = rodauth.param_or_nil("host_name").to_s.strip[0, 80]
          host = rodauth.account[:email].to_s[/\A[^@]+/] if host.empty?
          site.house.shows.create(rodauth.account_id, name: name.empty? ? "My show" : name, host_name: host)
        end
      end

      # Letters are written to a folder as .eml files until an operator connects a mail server.
      module Letters
        module_function

        # @yield makes the letter; only then is the library wanted
        def write(folder)
          require "mail"
          letter = yield
          letter.delivery_method(:file, location: folder)
          letter.deliver!
        end
      end
    end
  end
end
