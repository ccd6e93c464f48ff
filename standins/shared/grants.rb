# frozen_string_literal: true

require "base64"
require "digest"
require "erb"
require "json"
require "monitor"
require "rack"
require "securerandom"

module StandIns
  # An OAuth 2.0 authorization server (RFC 6749 §4.1, PKCE RFC 7636, revocation RFC 7009): its page grants or refuses,
  # its tokens expire and can be revoked.
  class Grants
    CLIENT = "bavard"
    ACCOUNTS = %w[reedmere fenlight].freeze
    SCOPES = {"chat.read" => "read the chat, also as one of its people", "chat.write" => "write lines as you"}.freeze
    LASTS_S = 3600
    Token = Struct.new(:account, :scopes, :expires_at, :refresh)

    include MonitorMixin

    # @param name [String] of the platform
    # @param file [String, nil] where tokens are kept between two starts
    def initialize(name, file: nil)
      super()
      @name = name
      @file = file
      @codes = {}
      @tokens = file && File.exist?(file) ? recall : {}
    end

    def call(env)
      request = Rack::Request.new(env)
      case [request.request_method, request.path_info]
      when %w[GET /oauth/authorize] then ask(request.params)
      when %w[POST /oauth/authorize] then decide(request.params)
      when %w[POST /oauth/token] then exchange(request.params)
      when %w[POST /oauth/revoke] then revoke(request.params)
      end
    end

    # @return [Token, nil] where it is good
    def token(env_or_word)
      word = env_or_word.is_a?(Hash) ? env_or_word["HTTP_AUTHORIZATION"].to_s[/\ABearer (.+)\z/, 1] : env_or_word
      synchronize { @tokens[word]&.then { |token| token if token.expires_at > Time.now.to_f } }
    end

    def count = synchronize { @tokens.size }

    def revoke_all
      synchronize { @tokens.clear }
      keep
    end

    def expire_all
      synchronize { @tokens.each_value { |token| token.expires_at = 0 } }
      keep
    end

    private

    def ask(params)
      unless params["client_id"] == CLIENT && params["redirect_uri"].to_s.match?(%r{\Ahttps?://[^/]+/feeds/granted\z})
        return answer(400,
          "error" => "unauthorized_client")
      end
      return answer(400, "error" => "invalid_request", "error_description" => "PKCE is wanted") unless params["code_challenge_method"] == "S256"

      [200, {"content-type" => "text/html; charset=utf-8"}, [page(params)]]
    end

    def page(params)
      hidden = params.slice("redirect_uri", "state", "scope", "code_challenge").map { |name, value| %(<input type="hidden" name="#{name}" value="#{ERB::Util.h(value)}">) }
      wants = params["scope"].to_s.split.filter_map { |scope| SCOPES[scope] }.map { |words| "<li>#{words}</li>" }
      <<~HTML
        <!doctype html><html lang="en"><head><meta charset="utf-8"><title>#{@name} asks you</title><link rel="stylesheet" href="/page.css"></head>
        <body><main><h1>#{@name}</h1><p>Bavard would like to:</p><ul>#{wants.join}</ul>
        <form method="post" action="/oauth/authorize">#{hidden.join}
        <label>As <select name="account">#{ACCOUNTS.map { |account| "<option>#{account}</option>" }.join}</select></label>
        <button name="decision" value="grant">Allow it</button> <button name="decision" value="refuse">Refuse</button></form></main></body></html>
      HTML
    end

    def decide(params)
      back = URI(params["redirect_uri"].to_s)
      given = {"state" => params["state"]}
      if params["decision"] == "grant" && ACCOUNTS.include?(params["account"])
        code = given["code"] = SecureRandom.urlsafe_base64(24)
        synchronize { @codes[code] = params.slice("account", "scope", "code_challenge", "redirect_uri") }
      else
        given["error"] = "access_denied"
      end
      back.query = URI.encode_www_form(given)
      [303, {"location" => back.to_s}, []]
    end

    def exchange(params)
      case params["grant_type"]
      when "authorization_code" then by_code(params)
      when "refresh_token" then by_refresh(params["refresh_token"])
      else answer(400, "error" => "unsupported_grant_type")
      end
    end

    # A code counts once, and only for who holds the verifier.
    def by_code(params)
      asked = synchronize { @codes.delete(params["code"]) }
      challenge = Base64.urlsafe_encode64(Digest::SHA256.digest(params["code_verifier"].to_s), padding: false)
      good = asked && asked["code_challenge"] == challenge && asked["redirect_uri"] == params["redirect_uri"]
      good ? issue(asked["account"], asked["scope"].to_s.split) : answer(400, "error" => "invalid_grant")
    end

    def by_refresh(word)
      old = synchronize { @tokens.delete(@tokens.key(@tokens.values.find { |token| token.refresh == word })) }
      old ? issue(old.account, old.scopes) : answer(400, "error" => "invalid_grant")
    end

    def issue(account, scopes)
      word = SecureRandom.urlsafe_base64(24)
      token = Token.new(account, scopes, Time.now.to_f + LASTS_S, SecureRandom.urlsafe_base64(24))
      synchronize { @tokens[word] = token }
      keep
      answer(200, "access_token" => word, "token_type" => "Bearer", "expires_in" => LASTS_S, "refresh_token" => token.refresh,
        "scope" => scopes.join(" "))
    end

    def revoke(params)
      synchronize { @tokens.delete_if { |word, token| [word, token.refresh].include?(params["token"]) } }
      keep
      answer(200, {})
    end

    def answer(status, body)
      [status, {"content-type" => "application/json", "cache-control" => "no-store"}, [JSON.generate(body)]]
    end

    def keep
      synchronize { File.write(@file, JSON.generate(@tokens.transform_values(&:to_a))) } if @file
    end

    def recall
      JSON.parse(File.read(@file)).transform_values { |values| Token.new(*values) }
    rescue JSON::ParserError
      {}
    end
  end
end
