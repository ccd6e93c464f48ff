# frozen_string_literal: true

require "digest"
require "rack"
require "zlib"

module Bavard
  module Web
    # /assets/<version>/…: the scripts, styles, faces and pictures that ship with the application. Their address names what they are,
    # so that a browser asks for each of them once and never again, and a page never runs scripts of two versions.
    class Assets
      FOLDER = File.expand_path("../../../../assets", __dir__)
      # The files as they lay there when Bavard started.
      VERSION = Dir.glob("**/*", base: FOLDER).sort.each_with_object(Digest::SHA256.new) do |name, digest|
        path = File.join(FOLDER, name)
        digest << name << "\0" << Digest::SHA256.file(path).digest if File.file?(path)
      end.hexdigest[0, 12].freeze
      VERSIONED = %r{\A/([0-9a-f]{12})(?=/)}
      FOR_GOOD = "public, max-age=31536000, immutable"
      EACH_TIME = "no-cache"
      COMPRESSED = %w[text/css text/javascript image/svg+xml].freeze

      # @param name [String] such as "css/house.css"
      # @return [String] where a page finds it
      def self.at(name) = "/assets/#{VERSION}/#{name}"

      def initialize
        @files = Rack::Files.new(FOLDER)
        @smaller = {}
      end

      # Addresses of another version, which a page that stands since before an update may ask for, and those of none are answered with
      # what there is now, to be asked for again each time.
      def call(env)
        path = env["PATH_INFO"]
        version = path[VERSIONED, 1]
        answer = @files.call(version ? env.merge("PATH_INFO" => path.delete_prefix("/#{version}")) : env)
        return answer unless answer[0] == 200

        answer[1]["cache-control"] = version == VERSION ? FOR_GOOD : EACH_TIME
        smaller(env, *answer)
      end

      private

      def smaller(env, status, headers, body)
        return [status, headers, body] unless body.respond_to?(:to_path) && COMPRESSED.include?(headers["content-type"])

        headers["vary"] = "accept-encoding"
        return [status, headers, body] unless gzip?(env)

        bytes = compressed(body.to_path, headers["last-modified"])
        [status, headers.merge("content-encoding" => "gzip", "content-length" => bytes.bytesize.to_s), [bytes]]
      end

      def gzip?(env) = Rack::Utils.select_best_encoding(%w[gzip identity], Rack::Request.new(env).accept_encoding) == "gzip"

      # What was compressed once is kept: there are as many as there are files.
      def compressed(path, changed)
        kept = @smaller[path]
        return kept[1] if kept && kept[0] == changed

        Zlib.gzip(File.binread(path), level: Zlib::BEST_COMPRESSION).tap { |bytes| @smaller[path] = [changed, bytes] }
      end
    end
  end
end
