# frozen_string_literal: true

require "digest"
require "securerandom"
require_relative "../core/permission"
require_relative "../error"
require_relative "held_permission"
require_relative "trouble"

module Bavard
  module Feeds
    # How a platform is asked for permission: OAuth 2.0, authorization code with PKCE (RFC 6749 §4.1, RFC 7636), renewal
    # (§6) and revocation (RFC 7009). The protocol is the oauth2 library's, which is loaded when it is first wanted.
    #
    #   consent = Consent.new(platform, redirect_uri, clock:)
    #   address, kept = consent.ask("write")          # the platform's own page, and what to keep until it answers
    #   permission = consent.granted(code, kept)
    class Consent
      # kept by the browser's session between asking and answer: state and the PKCE verifier
      Kept = Struct.new(:state, :verifier)
      WITHIN_S = 8
      # What stands in an address afterwards.
      LOGIN = /\A[A-Za-z0-9][\w-]{0,59}\z/

      def initialize(platform, redirect_uri, clock:)
        @platform = platform
        @ways = platform.consent || raise(Error.new("#{platform.name} gives no permissions.", field: "platform"))
        @redirect_uri = redirect_uri
        @clock = clock
      end

      # @param wanted [Array<String>] "read", "write"
      # @return [Array(String, Kept)]
      def ask(wanted)
        kept = Kept.new(SecureRandom.urlsafe_base64(24), SecureRandom.urlsafe_base64(48))
        challenge = [Digest::SHA256.digest(kept.verifier)].pack("m0").tr("+/", "-_").delete("=")
        address = client.auth_code.authorize_url(redirect_uri: @redirect_uri, scope: wanted.filter_map { |what| @ways["scopes"][what] }.join(" "),
          state: kept.state, code_challenge: challenge, code_challenge_method: "S256")
        [address, kept]
      end

      # @param code [String] from the platform
      # @return [Core::Permission] without an id
      # @raise [Bavard::Error]
      def granted(code, kept)
        token = client.auth_code.get_token(code, redirect_uri: @redirect_uri, code_verifier: kept.verifier)
        who = token.get(@ways["whoami"]).parsed
        raise Error, "#{@platform.name} did not say whose permission this is." unless who.is_a?(Hash) && LOGIN.match?(who["login"].to_s)

        Core::Permission.new(nil, @platform.key, who["login"], (who["name"] || who["login"]).to_s, may(token, who), token.token, token.refresh_token,
          expires_at_ms(token), @clock.call)
      rescue OAuth2::Error, Faraday::Error, *Trouble::NETWORK => error
        raise Error, "#{@platform.name} did not give the permission (#{words(error)}). Ask for it again."
      end

      # @return [Core::Permission]
      # @raise [HeldPermission::Gone]
      def renew(permission)
        token = access(permission).refresh
        permission.dup.tap do |newer|
          newer.access = token.token
          newer.refresh = token.refresh_token
          newer.expires_at_ms = expires_at_ms(token)
        end
      rescue OAuth2::Error
        raise HeldPermission::Gone,
          "#{@platform.name} took back the permission of #{permission.account}, or it has run out. Give it again, or read as a guest."
      rescue Faraday::Error => error
        raise Errno::ECONNRESET, words(error)
      end

      # Gives a permission back; that the platform cannot be reached does not stand in the way.
      def give_back(permission)
        access(permission).revoke
      rescue OAuth2::Error, Faraday::Error, *Trouble::NETWORK
        nil
      end

      private

      def client
        @client ||= begin
          require "oauth2"
          OAuth2::Client.new(@ways["client_id"], @ways["client_secret"], site: @platform.base, authorize_url: @ways["authorize"],
            token_url: @ways["token"], revoke_url: @ways["revoke"], auth_scheme: @ways["client_secret"] ? :basic_auth : :request_body,
            connection_opts: {request: {timeout: WITHIN_S, open_timeout: WITHIN_S}}, max_redirects: 0)
        end
      end

      def access(permission)
        OAuth2::AccessToken.new(client, permission.access, refresh_token: permission.refresh)
      end

      def may(token, who)
        given = (token.params["scope"] || Array(who["scopes"]).join(" ")).to_s.split
        @ways["scopes"].select { |_, scope| given.include?(scope) }.keys
      end

      def expires_at_ms(token)
        token.expires_at && (token.expires_at * 1000)
      end

      def words(error)
        error.respond_to?(:code) && error.code ? error.code.to_s[0, 60] : "it cannot be reached"
      end
    end
  end
end
