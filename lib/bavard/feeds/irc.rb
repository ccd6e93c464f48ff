# frozen_string_literal: true

require_relative "irc/address"
require_relative "irc/connection"
require_relative "irc/mapping"
require_relative "irc/session"

module Bavard
  module Feeds
    # Feeds that read an IRC channel (RFC 1459, RFC 2812, IRCv3).
    module Irc
      KIND = "irc"
      LABEL = "IRC"

      module_function

      # @param feed [Store::Feeds::Feed]
      # @param resume [Resume]
      # @param platform [Platform, nil] that is described: it says where its server stands, and what tags carry unless the feed says otherwise
      # @param options [Hash] clock, take, reject, outbox, door, watch as {Connection} wants them
      # @return [Connection]
      def connection(feed, resume, platform: nil, **options)
        address = address_of(feed, platform)
        session = Session.new(feed_id: feed.id, address:, mapping: mapping_of(feed, platform), resume:, reject: options.fetch(:reject))
        Connection.new(address, session, **options)
      end

      # @return [Address]
      def address_of(feed, platform = nil)
        Address.new(**feed.address.transform_keys(&:to_sym), **(platform ? placed(platform.address) : {}), password: feed.password)
      end

      # @return [Mapping] of the feed's own tags, else of its platform's
      def mapping_of(feed, platform = nil) = Mapping.new({**platform&.mapping.to_h, **feed.mapping.to_h})

      # What a host typed or pasted, as a feed is kept.
      #
      # @return [Hash] name, address, password
      # @raise [Bavard::Error]
      def read(given)
        address = Address.read(given)
        {name: address.channel.sub(/\A[#&+]/, "")[0, 60],
         address: address.to_h.except(:password).transform_keys(&:to_s), password: address.password}
      end

      # @return [Object] the same for two that would hear the same; see also the other kinds
      def place(address, _password) = address.values_at("host", "port", "channel").map { |part| part.to_s.downcase }

      def placed(address) = {host: address["host"], port: address["port"].to_i, tls: address["tls"] == "1"}
      private_class_method :placed

      # @return [Boolean] whether lines can be sent there: by who has a nick of their own
      def answers?(feed)
        !feed.address["nick"].nil?
      end

      # @return [String] how it is read, in words
      def words(feed)
        address = address_of(feed)
        "#{LABEL}, #{address.nick ? "as #{address.nick}" : "reading as a guest"}"
      end
    end
  end
end
