# frozen_string_literal: true

require "rack/files"

module Bavard
  module Web
    # /fonts/<hash>.woff2: the host's own faces, as Bavard made them.
    module Fonts
      NAME = %r{\A/[0-9a-f]{32}\.woff2\z}
      HEADERS = {"content-type" => "font/woff2", "cache-control" => "public, max-age=31536000, immutable",
                 "access-control-allow-origin" => "*"}.freeze
      NOTHING_HERE = [404, {"content-type" => "text/plain"}, ["There is no such face.\n"]].freeze

      module_function

      def call(env)
        return NOTHING_HERE unless env["PATH_INFO"].match?(NAME)

        Rack::Files.new(env["bavard.site"].faces, HEADERS).call(env)
      end
    end
  end
end
