# frozen_string_literal: true

require "json"
require_relative "described/description"
require_relative "described/poll_connection"
require_relative "described/socket_connection"
require_relative "described/stream_connection"
require_relative "irc"
require_relative "permitted"

module Bavard
  module Feeds
    # Feeds of platforms that somebody described: data that says how they are reached and what they send.
    module Described
      KIND = "described"
      # By whatever way it is described.
      LABEL = nil
      extend Permitted

      module_function

      # @param feed [Store::Feeds::Feed]
      # @param platform [Platform]
      # @param resume [Resume]
      # @return [#run, #heard_at_ms, #cursor, #joined?]
      def connection(feed, resume, platform:, permission:, **options)
        description = platform.description
        return Irc.connection(feed, resume, platform:, **irc(platform), **options) if description.irc?

        values = {**feed.address, **secrets(feed)}
        common = {**options, door: platform.door}
        kind = {Poll => PollConnection, Stream => StreamConnection, Socket => SocketConnection}.fetch(description.transport.class)
        kind.new(feed.id, description, values, resume, permission:, **common)
      end

      # What is asked besides what a feed reads.
      #
      # @return [Clients] to be closed
      def clients(feed, platform) = Clients.new(platform.description, {**feed.address, **secrets(feed)}, nil, platform.door)

      # @param given [Hash{String => String}] what was typed for each that the description asks
      # @param platform [Platform]
      # @return [Hash] name, address, password: the secrets
      # @raise [Bavard::Error]
      def read(given, platform)
        if platform.description.irc?
          channel = platform.description.asks.first
          return Irc.read({"channel" => channel.read(given[field(platform, channel)], field(platform, channel)), **platform.address})
        end

        address, secrets = %i[asks secrets].map { |asks| answers(given, platform, platform.description.public_send(asks)) }
        enough(address, secrets, platform)
        {name: nil, address:, password: secrets.empty? ? nil : JSON.generate(secrets)}
      end

      # Where nothing is asked, what is secret may say what is read.
      def place(address, password) = [address, password]

      # @param secrets [Hash{String => String}] that are known
      # @return [Hash{String => String}] where it reads
      # @raise [Bavard::Error]
      def address(given, platform, secrets) = answers(given, platform, platform.description.asks).tap { |address| enough(address, secrets, platform) }

      # @return [String] what it is called in a form that has those of other platforms as well
      def field(platform, ask) = "#{platform.key}.#{ask.name}"

      def secrets(feed)
        feed.password ? JSON.parse(feed.password) : {}
      rescue JSON::ParserError
        {}
      end

      def enough(address, secrets, platform)
        lacking = platform.description.lacking({**secrets, **address})
        raise Error.new(Ask.wanted(lacking), field: field(platform, lacking.first)) if lacking.any?
      end

      def answers(given, platform, asks)
        typed = in_their_place(asks.to_h { |ask| [ask, given[field(platform, ask)].to_s.strip] })
        typed.to_h { |ask, text| [ask.name, ask.read(text, field(platform, ask))] }.compact
      end

      # An address that was pasted for one counts for another that stands in it.
      def in_their_place(typed)
        typed.select { |_, text| text.empty? }.each_key do |ask|
          from, pasted = typed.find { |other, text| other.optional && ask.stands_in?(text) }
          typed = typed.merge(ask => pasted, from => "") if from
        end
        typed
      end

      # What the operator describes may be anywhere.
      def irc(platform) = {door: platform.door || Outward::Door.new(inside: platform.authorities)}

      private_class_method :enough, :answers, :in_their_place, :irc
    end
  end
end
