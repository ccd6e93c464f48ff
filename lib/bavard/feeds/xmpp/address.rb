# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Feeds
    module Xmpp
      # Where a room is, and as whom it is read.
      #
      # room:: its JID (RFC 7622), bare; server:: of the stream: the account's, or one that lets anybody in; host, port:: where that is, where
      # the name service does not say so; account:: a JID, or nil; password:: or nil; nick:: in the room
      Address = Struct.new(:room, :server, :host, :port, :account, :password, :nick, keyword_init: true)

      # See above.
      class Address
        DOMAIN = /[\p{L}\p{N}](?:[\p{L}\p{N}.-]{0,250}[\p{L}\p{N}])?/
        JID = %r{\A[^\s@/"&'<>:]{1,200}@#{DOMAIN}\z}
        PLACE = /\A(?:\[(?<six>[0-9a-f:.]+)\]|(?<host>[^:\s]{1,253}))(?::(?<port>\d{1,5}))?\z/
        USUAL_PORT = 5222
        PORTS = (1..65_535)

        # @param given [Hash] jid (of the room), xmpp_server, place, account, account_password, xmpp_nick
        # @return [Address]
        # @raise [Bavard::Error] naming the field
        def self.read(given)
          room = jid(given["jid"].to_s.strip.delete_prefix("xmpp:").delete_suffix("?join"), "jid", "A room looks like hide@rooms.reedmere.example.")
          account = given["account"].to_s.strip.then do |text|
            text.empty? ? nil : jid(text, "account", "An account looks like odalys@reedmere.example.")
          end
          host, port = place(given["place"].to_s.strip)
          new(room:, server: server(given["xmpp_server"].to_s.strip, account, room), host:, port:, account:,
            password: given["account_password"].to_s.then { |text| text.empty? ? nil : text }, nick: nick(given["xmpp_nick"].to_s.strip))
        end

        def self.jid(text, field, words)
          bare = text.split("/", 2).first.to_s.downcase
          bare.match?(JID) ? bare : raise(Error.new(words, field:, value: text[0, 60]))
        end

        # Rooms mostly stand one level below the server that they belong to.
        def self.server(text, account, room)
          return text.downcase if text.match?(/\A#{DOMAIN}\z/o)
          raise Error.new("A server looks like reedmere.example.", field: "xmpp_server", value: text[0, 60]) unless text.empty?

          account&.split("@")&.last || room.split("@").last.split(".", 2).then do |first, rest|
            if rest.to_s.include?(".")
              rest
            else
              first + (rest ? ".#{rest}" : "")
            end
          end
        end

        def self.place(text)
          return [nil, nil] if text.empty?

          match = PLACE.match(text)
          port = match && (match[:port] || USUAL_PORT).to_i
          raise Error.new("Where it is looks like chat.reedmere.example:5222.", field: "place", value: text[0, 60]) unless port && PORTS.cover?(port)

          [match[:six] || match[:host], port]
        end

        def self.nick(text)
          return if text.empty?

          text.length <= 60 && !text.match?(/[[:cntrl:]]/) ? text : raise(Error.new("A nick has room for 60 characters.", field: "xmpp_nick"))
        end
        private_class_method :jid, :server, :place, :nick

        # @return [Array(String, String), nil]
        def login = account && password && [account.split("@").first, password]
      end
    end
  end
end
