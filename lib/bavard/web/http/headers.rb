# frozen_string_literal: true

module Bavard
  module Web
    # The headers every answer carries. Scripts, styles, fonts and pictures come from this host alone, nothing inline,
    # and no string ever becomes markup in a script (Trusted Types).
    class Headers
      POLICY = [
        "default-src 'none'", "script-src 'self'", "style-src 'self'", "img-src 'self' data:", "font-src 'self'",
        "connect-src 'self'", "media-src 'self'", "frame-src 'self'", "form-action 'self'", "base-uri 'none'", "frame-ancestors 'self'",
        "require-trusted-types-for 'script'", "trusted-types 'none'"
      ].join("; ").freeze
      ALWAYS = {
        "content-security-policy" => POLICY,
        "x-content-type-options" => "nosniff",
        "referrer-policy" => "same-origin",
        "cross-origin-opener-policy" => "same-origin",
        "permissions-policy" => "camera=(), microphone=(), geolocation=()"
      }.freeze

      def initialize(app)
        @app = app
      end

      def call(env)
        status, headers, body = @app.call(env)
        ALWAYS.each { |name, value| headers[name] ||= value } if status.positive?
        [status, headers, body]
      end
    end
  end
end
