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
      # Sheets that are asked for together are sent as one: packed together, they are a third lighter.
      PIECES = %w[lines plates voices alerts goal flurry gatherings].freeze
      JOINED = {"/css/pieces.css" => PIECES.map { |name| File.join(FOLDER, "css", "#{name}.css") }}.freeze
      # Comments of our own scripts and styles that have lines to themselves: for whoever reads the file, a sixth of what would be sent.
      # Their lines stay, empty, so that what a browser says of a line is true.
      OURS = %r{\A/(?:js|css)/}
      COMMENTS = {".js" => %r{^[ \t]*//[^\n]*$}, ".css" => %r{^[ \t]*/\*.*?\*/[ \t]*$}m}.freeze
      # Nothing is a matter of how far a line is set in: in ours no text goes over several.
      INDENTED = /^[ \t]+/
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
        path = path.delete_prefix("/#{version}") if version
        answer = joined(env, path) || @files.call(env.merge("PATH_INFO" => path))
        return answer unless answer[0] == 200

        answer[1]["cache-control"] = version == VERSION ? FOR_GOOD : EACH_TIME
        smaller(env, path, *answer)
      end

      private

      def joined(env, path)
        files = JOINED[path] or return

        bytes = gzip?(env) ? compressed(path, nil) { said(path, joined_bytes(files)) } : joined_bytes(files)
        headers = {"content-type" => "text/css", "content-length" => bytes.bytesize.to_s, "vary" => "accept-encoding"}
        [200, gzip?(env) ? headers.merge("content-encoding" => "gzip") : headers, [bytes]]
      end

      def joined_bytes(files) = files.map { |file| File.read(file) }.join("\n")

      # @return [String] what of a file is sent
      def said(path, bytes)
        comments = OURS.match?(path) && COMMENTS[File.extname(path)]
        return bytes unless comments

        bytes.dup.force_encoding(Encoding::UTF_8).gsub(comments) { |comment| "\n" * comment.count("\n") }.gsub(INDENTED, "")
      end

      def smaller(env, path, status, headers, body)
        return [status, headers, body] unless body.respond_to?(:to_path) && COMPRESSED.include?(headers["content-type"])

        headers["vary"] = "accept-encoding"
        return [status, headers, body] unless gzip?(env)

        bytes = compressed(body.to_path, headers["last-modified"]) { said(path, File.binread(body.to_path)) }
        [status, headers.merge("content-encoding" => "gzip", "content-length" => bytes.bytesize.to_s), [bytes]]
      end

      def gzip?(env) = Rack::Utils.select_best_encoding(%w[gzip identity], Rack::Request.new(env).accept_encoding) == "gzip"

      # What was compressed once is kept: there are as many as there are files.
      def compressed(path, changed)
        kept = @smaller[path]
        return kept[1] if kept && kept[0] == changed

        Zlib.gzip(yield, level: Zlib::BEST_COMPRESSION).tap { |bytes| @smaller[path] = [changed, bytes] }
      end
    end
  end
end
