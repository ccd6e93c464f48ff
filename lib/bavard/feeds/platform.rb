# frozen_string_literal: true

require "json"
require "uri"
require_relative "../error"

module Bavard
  module Feeds
    # A platform that Bavard knows by name: where it is, which kind of feed reads it, and how it gives permission.
    # They are listed in a file of the operator's (BAVARD_PLATFORMS), so that no address is fixed in the program.
    #
    # base:: its address, such as "https://chat.example"; address:: what all feeds of it have in common
    # consent:: nil, or {"authorize", "token", "revoke", "whoami": paths, "client_id", "scopes": {"read" => "…", "write" => "…"}}
    # mapping:: of its IRC tags, where it is one of those
    Platform = Struct.new(:key, :name, :kind, :shape, :colour, :base, :address, :consent, :mapping, keyword_init: true) do
      # @return [Array<String>] hosts and ports of what the operator listed: its pages, and its chat where that is elsewhere
      def authorities
        uri = URI(base)
        host, port = address&.values_at("host", "port")
        ["#{uri.host}:#{uri.port}", *("#{host}:#{port}" if host && port)]
      end
    end

    # See above.
    class Platform
      # @param file [String, nil]
      # @return [Hash{String => Platform}] by key
      # @raise [Bavard::Error] where the file cannot be read
      def self.all(file)
        return {} if file.to_s.empty?

        JSON.parse(File.read(file)).to_h { |given| [given.fetch("key"), new(**given.transform_keys(&:to_sym))] }
      rescue SystemCallError, JSON::ParserError, KeyError, ArgumentError, NoMethodError => error
        raise Error, "The list of platforms in #{file} cannot be read: #{error.message.lines.first.strip}"
      end
    end
  end
end
