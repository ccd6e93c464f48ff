# frozen_string_literal: true

require "mail"
require "roda"
require "rodauth"
require_relative "../store/shows"

module Bavard
  module Web
    # Who is signed in: Rodauth in front of everything else. A new account begins with an empty show.
    class SignIn < Roda
      LOCKED_AFTER = 12
      LOCKED_FOR_S = 15 * 60
      SHORTEST_PASSWORD = 10
      LONGEST_SHOW_NAME = 80

      # @param site [Site]
      # @return [Class] the middleware for this site
      def self.for(site)
        Class.new(self) { settle(site) }
      end

      def self.settle(site)
        plugin :middleware
        plugin :render, views: File.join(__dir__, "views/sign_in"), escape: true, layout: "layout", engine_opts: {"erb" => {}}
        plugin :route_csrf
        secret = site.session_secret
        plugin(:rodauth, csrf: :route_csrf) do
          enable :login, :logout, :create_account, :remember, :lockout, :otp, :recovery_codes, :change_password, :argon2,
            :internal_request
          db site.db
          hmac_secret secret
          prefix "/account"
          account_password_hash_column :password_hash
          account_status_column :status_id
          skip_status_checks? true
          require_bcrypt? false
          password_minimum_length SHORTEST_PASSWORD
          require_login_confirmation? false
          require_password_confirmation? false
          max_invalid_logins LOCKED_AFTER
          account_lockouts_deadline_interval seconds: LOCKED_FOR_S
          set_deadline_values? true
          remember_cookie_key "#{site.cookie}.remember"
          extend_remember_deadline? true
          login_label "E-mail address"
          login_redirect "/feeds"
          already_logged_in { redirect "/feeds" }
          create_account_redirect "/feeds"
          logout_redirect "/account/login"
          require_login_redirect { login_path }
          login_notice_flash nil
          otp_issuer "Bavard"
          title_instance_variable :@page_title
          login_page_title "Sign in"
          create_account_page_title "A new account"
          otp_setup_link_text "Set up an authenticator app"
          flash_error_key :error
          two_factor_auth_return_to_requested_location? true
          login_return_to_requested_location? true
          after_login { remember_login if param_or_nil("remember") }
          before_create_account { self.class.const_get(:Begin).check(self) }
          after_create_account { self.class.const_get(:Begin).show(self, site) }
          send_unlock_account_email { Mailing.write(site.mail_folder, create_unlock_account_email) }
          auth_class_eval { const_set(:Begin, Begin) }
        end
        plugin :flash
        route do |r|
          env["rodauth"] = rodauth
          rodauth.load_memory
          r.on("account") { r.rodauth }
          nil
        end
      end
      private_class_method :settle

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
      module Mailing
        module_function

        def write(folder, letter)
          letter.delivery_method(:file, location: folder)
          letter.deliver!
        end
      end
    end
  end
end
