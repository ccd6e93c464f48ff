# frozen_string_literal: true

module Bavard
  module Web
    # /pictures/<hash>-<size>.webp: emotes, badges and avatars, as Bavard made them. Their names say what is in them, so
    # they may be kept for good.
    module Pictures
      HEADERS = {"content-type" => "image/webp", "cache-control" => "public, max-age=31536000, immutable",
                 "content-security-policy" => "default-src 'none'", "access-control-allow-origin" => "*"}.freeze
      NOTHING_HERE = [404, {"content-type" => "text/plain"}, ["There is no such picture.\n"]].freeze

      module_function

      def call(env)
        file = env["bavard.site"].cabinet.find(env["PATH_INFO"].delete_prefix("/"))
        file ? [200, HEADERS.dup, [File.binread(file)]] : NOTHING_HERE
      end
    end
  end
end
