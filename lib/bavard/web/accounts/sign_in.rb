# frozen_string_literal: true

require "roda"
require "rodauth"
require "uri"
require_relative "../../store/shows"
require_relative "../http/bare_page"
require_relative "sign_in/beginning"
require_relative "sign_in/closed"
require_relative "sign_in/confirmation"
require_relative "sign_in/letters"
require_relative "sign_in/noted"
require_relative "sign_in/patience"
require_relative "sign_in/recovery"
require_relative "sign_in/sessions"
require_relative "stay"

module Bavard
  module Web
    # Who is signed in: Rodauth in front of everything else. A new account begins with an empty show.
    class SignIn < Roda
      SHORTEST_PASSWORD = 10
      LONGEST_SHOW_NAME = 80
      OLD_FORM = "This form is too old, or came from another site. Go back, load the page again, and send it once more.\n"

      NOTHING = "There is nothing at this address.\n"

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
        send_reset_password_email { site.letters.send { create_reset_password_email } }
      end
      # Whether there is such an account is not told: the same words at the same field, after the same work.
      NOT_TOGETHER = "This address and this password do not go together"
      SILENCE = lambda do |site|
        no_matching_login_message NOT_TOGETHER
        invalid_password_message NOT_TOGETHER
        login_error_flash "That did not work"
        after_no_matching_login do
          argon2_password_hash_match?(SignIn.some_hash { password_hash("nobody") }, param(password_param))
          Waiting.failed(self, site)
        end
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
        otp_issuer "Bavard"
      end
      # Who guesses waits; where somebody is signed in is theirs to see and to end.
      COMING_AND_GOING = lambda do |site|
        before_login_route { Waiting.check(self, site) }
        before_login { Closed.keep_out(self, site) }
        after_login_failure { Waiting.failed(self, site) }
        after_login do
          Waiting.succeeded(self, site)
          Noted.came_in(self, site)
          session[Stay::STAYS] = true if param_or_nil("stay")
        end
        before_reset_password_request_route { Anew.ask(self, site) }
        session_inactivity_deadline nil
        session_lifetime_deadline nil
        currently_active_session? { Sessions.goes_on?(self, site) }
        active_sessions_insert_hash { super().merge(Sessions.about(self)) }
        before_logout do
          param_or_nil(global_logout_param) && Sessions.end_others(self, site)
          Sessions.end_this(self, site)
          super()
        end
        after_change_password { Sessions.end_others(self, site) }
        after_reset_password { Sessions.end_others(self, site) }
        after_otp_setup do
          super()
          Sessions.end_others(self, site)
        end
      end
      # Which way people go.
      WAYS = lambda do |site|
        confirmation = Confirmation.new(site.session_secret, site.clock)
        prefix "/account"
        login_redirect "/"
        already_logged_in { redirect "/feeds" }
        # To where they wanted to go, such as an invitation.
        create_account_redirect { @asked_for || "/" }
        logout_redirect "/account/login"
        require_login_redirect { login_path }
        login_return_to_requested_location? true
        two_factor_auth_return_to_requested_location? true
        before_create_account_route do
          confirmation.keep(self, site)
          Door.keep(self, site)
        end
        before_create_account do
          @asked_for = remove_session_value(login_redirect_session_key)
          Begin.check(self)
        end
        after_create_account do
          Door.use(self, site)
          Begin.show(self, site)
        end
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
        change_password_button "Change it"
        new_password_label "New password"
        logout_page_title "Sign out"
        logout_button "Sign out"
        global_logout_label "On every other computer as well"
        active_sessions_error_flash "This browser was signed out. Sign in again."
        active_sessions_redirect { login_path }
        reset_password_request_page_title "A new password"
        reset_password_request_button "Send me the way in"
        reset_password_page_title "A new password"
        reset_password_button "Set the password"
        reset_password_notice_flash "Your password is the new one. Everywhere else you are signed out."
        reset_password_email_subject "A new password for Bavard"
        no_matching_reset_password_key_error_flash "That letter was used, or is too old. Ask for another one."
      end
      FEATURES = %i[login logout create_account active_sessions otp recovery_codes change_password reset_password argon2 internal_request
        disallow_common_passwords].freeze

      # @return [String] of a password nobody has
      def self.some_hash = @some_hash ||= yield

      # @param site [Site]
      # @return [Class] the middleware for this site
      def self.for(site)
        Recovery.new(site.session_secret).seal(site.db[:account_recovery_codes])
        Class.new(self) do
          plugin :middleware
          plugin :flash
          plugin :render, views: File.join(__dir__, "views"), escape: true, layout: "layout"
          plugin(:route_csrf) { |request| request.halt(BarePage.answer(env, 403, OLD_FORM, out: BarePage::ON)) }
          plugin(:rodauth, csrf: :route_csrf) do
            enable(*FEATURES)
            [STORAGE, SILENCE, STRENGTH, CLOSED_CODES, COMING_AND_GOING, WAYS, WORDS].each { |part| instance_exec(site, &part) }
          end
          route { |request| answer(request) }
        end
      end

      # Answers what is about accounts and lets everything else through, with who it is.
      def answer(request)
        env["rodauth"] = rodauth
        rodauth.check_active_session
        request.on("account") do
          request.is("places") { places(request) }
          request.rodauth
          request.halt(BarePage.answer(env, 404, NOTHING, out: BarePage::ON))
        end
        nil
      end

      def end_places(one)
        one ? Sessions.end_one(rodauth, env["bavard.site"], one) : Sessions.end_others(rodauth, env["bavard.site"])
      end

      # Where somebody is signed in, each ended in one press.
      def places(request)
        rodauth.require_authentication
        request.get { view("places", locals: {places: Sessions.places(rodauth)}) }
        request.post do
          check_csrf!
          ended = end_places(rodauth.param_or_nil("place"))
          flash["notice"] = ended == 1 ? "That browser is signed out." : "#{ended} browsers are signed out."
          request.redirect("/account/places")
        end
      end
    end
  end
end
