# frozen_string_literal: true

require "ipaddr"
require_relative "../../error"

module Bavard
  module Web
    # Who really asks, by which name, and over what. Headers that say so are believed from the proxies the operator lists and from
    # nobody else; without them the connection itself says it. Names that are not served are refused.
    #
    # What comes on to the rest of the web side has no such header any more: there is one truth, in REMOTE_ADDR, HTTP_HOST and the scheme.
    class TrueClient
      CLAIMS = %w[HTTP_FORWARDED HTTP_X_FORWARDED_FOR HTTP_X_FORWARDED_PROTO HTTP_X_FORWARDED_SCHEME HTTP_X_FORWARDED_SSL HTTP_X_FORWARDED_HOST
        HTTP_X_FORWARDED_PORT HTTP_X_FORWARDED_SERVER HTTP_X_REAL_IP HTTP_CLIENT_IP].freeze
      # For operators, who ask by whatever address they have.
      EVERYWHERE = %w[/healthz /healthz/live /healthz/ready /metrics].freeze
      NOT_HERE = [421, {"content-type" => "text/plain"}, ["Nothing is served here under that name.\n"]].freeze
      HSTS = {"strict-transport-security" => "max-age=31536000"}.freeze
      MOST_HOPS = 20

      # @param text [String] addresses or networks with commas or spaces between them
      # @return [Array<IPAddr>]
      # @raise [Bavard::Error]
      def self.proxies(text)
        listed(text).map { |word| address(word) or raise Error, "BAVARD_PROXIES lists addresses and networks; “#{word[0, 60]}” is none." }
      end

      # @return [Array<String>] names, folded
      def self.hosts(text) = listed(text).map(&:downcase)

      def self.listed(text) = text.to_s.split(/[\s,]+/).reject(&:empty?)

      # @return [IPAddr, nil]
      def self.address(text)
        IPAddr.new(text.delete_prefix("[").delete_suffix("]"))
      rescue IPAddr::Error
        nil
      end

      # @param proxies [Array<IPAddr>]
      # @param hosts [Array<String>] names that are served; none: all
      def initialize(app, proxies: [], hosts: [])
        @app = app
        @proxies = proxies
        @hosts = hosts
      end

      def call(env)
        told = CLAIMS.to_h { |name| [name, env.delete(name)] }.compact
        believe(env, told) if told.any? && proxy?(env["REMOTE_ADDR"])
        return NOT_HERE unless served?(env)

        status, headers, body = @app.call(env)
        headers = HSTS.merge(headers) if env["rack.url_scheme"] == "https"
        [status, headers, body]
      end

      private

      def proxy?(text)
        return false if @proxies.empty?

        one = self.class.address(text.to_s)
        !one.nil? && @proxies.any? { |proxy| proxy.include?(one.ipv4_mapped? ? one.native : one) }
      end

      # That a proxy of ours asks is known to whoever comes after, as "bavard.by_proxy".
      def believe(env, told)
        env["bavard.by_proxy"] = true
        env["REMOTE_ADDR"] = client(told["HTTP_X_FORWARDED_FOR"]) || env["REMOTE_ADDR"]
        scheme = last(told["HTTP_X_FORWARDED_PROTO"])
        env.update("rack.url_scheme" => scheme, "HTTPS" => scheme == "https" ? "on" : "off") if %w[http https].include?(scheme)
        host = last(told["HTTP_X_FORWARDED_HOST"])
        env["HTTP_HOST"] = host if host.match?(/\A[a-z0-9.-]{1,253}(?::\d{1,5})?\z/i)
      end

      # From our side: the last that is no proxy of ours. What stands before it, anybody can have written.
      def client(hops)
        hop = hops.to_s.split(",").last(MOST_HOPS).map(&:strip).reverse.find { |one| !proxy?(one) }
        hop && self.class.address(hop)&.to_s
      end

      def last(text) = text.to_s.split(",").last.to_s.strip

      def served?(env)
        @hosts.empty? || EVERYWHERE.include?(env["PATH_INFO"]) || @hosts.include?(env["HTTP_HOST"].to_s.downcase.sub(/:\d{1,5}\z/, ""))
      end
    end
  end
end
