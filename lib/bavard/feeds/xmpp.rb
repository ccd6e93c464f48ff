# frozen_string_literal: true

require_relative "xmpp/address"
require_relative "xmpp/connection"
require_relative "xmpp/session"

module Bavard
  module Feeds
    # Feeds that read a room of XMPP (RFC 6120, RFC 6121, XEP-0045).
    module Xmpp
      KIND = "xmpp"
      LABEL = "XMPP"

      module_function

      # @param feed [Store::Feeds::Feed]
      # @param resume [Resume]
      # @param options [Hash] clock, take, reject, outbox, door as {Connection} wants them
      # @return [Connection]
      def connection(feed, resume, **options)
        address = address_of(feed)
        Connection.new(address, Session.new(feed.id, address, resume, reject: options.fetch(:reject)), **options)
      end

      # @return [Address]
      def address_of(feed) = Address.new(**feed.address.transform_keys(&:to_sym), password: feed.password)

      # What a host typed, as a feed is kept.
      #
      # @return [Hash] name, address, password
      # @raise [Bavard::Error]
      def read(given)
        address = Address.read(given)
        {name: address.room.split("@").first[0, 60], address: address.to_h.except(:password).transform_keys(&:to_s), password: address.password}
      end

      def place(address, _password) = address["room"]

      # @return [Boolean] whether lines can be sent there: by who has an account
      def answers?(feed) = !feed.address["account"].nil?

      def words(feed)
        account = feed.address["account"]
        "#{LABEL}, #{account ? "as #{account}" : "reading as a guest"}"
      end
    end
  end
end
