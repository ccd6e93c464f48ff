# frozen_string_literal: true

require "rack/files"

module Bavard
  module Web
    # /films/<hash>.webm: the host's films, as Bavard made them; in parts, where a page asks for parts.
    module Films
      NAME = %r{\A/[0-9a-f]{32}\.webm\z}
      HEADERS = {"cache-control" => "public, max-age=31536000, immutable", "content-security-policy" => "default-src 'none'"}.freeze
      NOTHING_HERE = [404, {"content-type" => "text/plain"}, ["There is no such film.\n"]].freeze

      module_function

      def call(env)
        return NOTHING_HERE unless env["PATH_INFO"].match?(NAME)

        Rack::Files.new(env["bavard.site"].films, HEADERS).call(env)
      end
    end
  end
end
