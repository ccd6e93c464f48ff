# frozen_string_literal: true

require "rack/files"

module Bavard
  module Web
    # /films/<hash>.webm and their like: what Bavard made of the hosts' files, in parts where a page asks for parts. A name tells
    # what is in it, so that nothing ever has to be asked for twice.
    class HandedOut
      HEADERS = {"cache-control" => "public, max-age=31536000, immutable", "content-security-policy" => "default-src 'none'"}.freeze

      # @param folder [Symbol] of Site
      # @param ending [String] of the files' names
      # @param what [String] how people call one
      # @param headers [Hash] besides
      def initialize(folder, ending, what, headers = {})
        @folder = folder
        @name = %r{\A/[0-9a-f]{32}\.#{ending}\z}
        @headers = HEADERS.merge(headers)
        @nothing_here = [404, {"content-type" => "text/plain"}, ["There is no such #{what}.\n"]].freeze
      end

      def call(env)
        return @nothing_here unless env["PATH_INFO"].match?(@name)

        Rack::Files.new(env["bavard.site"][@folder], @headers).call(env)
      end
    end
  end
end
