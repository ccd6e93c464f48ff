# frozen_string_literal: true

require "json"
require "uri"
require_relative "../error"
require_relative "described/description"

module Bavard
  module Feeds
    # A platform that Bavard knows by name: where it is, which kind of feed reads it, and how it gives permission.
    # They are listed in a file of the operator's (BAVARD_PLATFORMS), so that no address is fixed in the program.
    #
    # base:: its address, such as "https://chat.example"; address:: what all feeds of it have in common
    # consent:: nil, or {"authorize", "token", "revoke", "whoami": paths, "client_id", "scopes": {"read" => "…", "write" => "…"}}
    # door:: Outward::Door by which it is reached, where a host described it; nil: the operator did, and it may be anywhere
    # mapping:: of its IRC tags, where it is one of those; description:: Described::Description, where it is one of kind "described"
    Platform = Struct.new(:key, :name, :kind, :shape, :colour, :base, :address, :consent, :mapping, :description, :door, keyword_init: true) do
      # @return [Array<String>] hosts and ports of what the operator listed: its pages, and its chat where that is elsewhere
      def authorities
        return description.authorities if description

        uri = URI(base)
        host, port = address&.values_at("host", "port")
        ["#{uri.host}:#{uri.port}", *("#{host}:#{port}" if host && port)]
      end
    end

    # See above.
    class Platform
      # What a host’s own are known by.
      OWN = "own."

      # @param description [Described::Description] of a host’s own
      # @param id [Integer] under which it is kept
      # @param door [Outward::Door]
      # @return [Platform]
      def self.own(description, id, door) = of(description, key: "#{OWN}#{id}").tap { |platform| platform.door = door }

      # @param files [String, nil] with colons between them, where there are several; the later wins
      # @return [Hash{String => Platform}] by key
      # @raise [Bavard::Error] where one cannot be read
      def self.all(files) = files.to_s.split(File::PATH_SEPARATOR).map { |file| listed(file) }.reduce({}, :merge)

      def self.listed(file)
        JSON.parse(File.read(file)).to_h { |given| read(given).then { |platform| [platform.key, platform] } }
      rescue SystemCallError, JSON::ParserError, KeyError, ArgumentError, NoMethodError, Described::Faulty => error
        raise Error, "The list of platforms in #{file} cannot be read: #{error.message.lines.first.strip}"
      end
      private_class_method :listed

      # One of the list: as it is said there, or a whole description.
      #
      # @param given [Hash]
      # @return [Platform]
      def self.read(given)
        return of(Described::Description.read(given)) if given.key?("format")

        key, kind = given.values_at("key", "kind")
        raise ArgumentError, "“#{key}” is of the kind “#{kind}”: such a platform is described (docs/platforms.md)" unless kind == "irc"

        new(**given.transform_keys(&:to_sym))
      end

      # Platforms that are described, each in a file of its own. One that cannot be used is left out, and no other with it.
      #
      # @param folder [String, nil]
      # @yieldparam words [String] file, place and reason of each that cannot be used
      # @return [Hash{String => Platform}] by key
      def self.described(folder)
        return {} if folder.to_s.empty?

        Dir[File.join(folder, "*.json")].filter_map do |file|
          of(Described::Description.load(file)).then { |platform| [platform.key, platform] }
        rescue Described::Faulty, SystemCallError => error
          told = error.is_a?(Described::Faulty) ? error.problems : [error.message]
          told.each { |problem| yield "#{file}: #{problem}" }
          nil
        end.to_h
      end

      # @param description [Described::Description]
      # @return [Platform]
      def self.of(description, key: description.key)
        irc = description.irc?
        kind = if irc then "irc"
        else
          description.voice? ? "voice" : "described"
        end
        new(key:, name: description.name, kind:, shape: description.shape, colour: description.colour,
          base: description.base.to_s, consent: description.consent, description:,
          address: irc ? description.transport.address : nil, mapping: irc ? description.transport.tags : nil)
      end
    end
  end
end
