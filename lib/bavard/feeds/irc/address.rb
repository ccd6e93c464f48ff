# frozen_string_literal: true

require "uri"
require_relative "../../error"

module Bavard
  module Feeds
    module Irc
      # Where an IRC feed reads: server, port, TLS, channel, and who it is there.
      #
      #   Address.read("paste" => "IRCS://irc.reedmere.example/%23Dawn")   # => host, 6697, TLS, "#dawn"
      Address = Struct.new(:host, :port, :tls, :channel, :nick, :password, keyword_init: true)

      # See above.
      class Address
        LONGEST_HOST = 253
        HOST = /\A(?:[a-z0-9](?:[a-z0-9_-]*[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9_-]*[a-z0-9])?)*|(?=[^:]*:)[0-9a-f:.]+)\z/
        SHAPE = %r{\A(?:(?<scheme>[a-z]{2,5})://)?(?:[^/@\s]*@)?(?<host>\[[0-9a-f:.]+\]|[\w.-]+)(?::(?<plus>\+)?(?<port>\d+))?
          (?:/+|\s+|(?=[\#@]))?(?<channel>[^\s/?,]*)/?(?:[?,].*)?\z}ix

        # @param given [Hash{String => String}] host, port, tls, channel, nick, password; or paste, which holds any of
        #   the first four in one piece; typed fields win over the pasted
        # @return [Address]
        # @raise [Bavard::Error] naming the field
        def self.read(given)
          given = pasted(given["paste"].to_s).merge(given.reject { |_, value| value.to_s.strip.empty? })
          tls = %w[1 true on yes].include?(given["tls"].to_s.downcase)
          new(host: host(given["host"].to_s), port: port(given["port"], tls), tls:, channel: channel(given["channel"].to_s),
            nick: nick(given["nick"].to_s), password: password(given["password"].to_s))
        end

        def self.pasted(text)
          text = text.strip
          return {} if text.empty?
          return {"channel" => text} if text.match?(%r{\A[#@&][^\s:/]+\z})

          match = text.match(SHAPE) or raise Error.new("“#{text[0, 60]}” is neither an address nor a channel.", field: "paste", value: text)
          scheme = match[:scheme].to_s.downcase
          {"host" => match[:host], "port" => match[:port], "channel" => URI.decode_www_form_component(match[:channel].to_s.gsub("+", "%2B")),
           "tls" => %w[ircs https wss].include?(scheme) || match[:plus] ? "1" : nil}.compact.reject { |_, value| value.empty? }
        rescue ArgumentError
          raise Error.new("“#{text[0, 60]}” holds a percent sign that means nothing.", field: "paste", value: text)
        end

        def self.host(text)
          host = text.strip.downcase.delete_prefix("[").delete_suffix("]").delete_suffix(".")
          raise Error.new("Which server? Its address looks like irc.reedmere.example.", field: "host") if host.empty?
          return host if host.length <= LONGEST_HOST && host.match?(HOST)

          raise Error.new("“#{text[0, 60]}” is not an address of a server.", field: "host", value: text)
        end

        def self.port(given, tls)
          return tls ? 6697 : 6667 if given.nil?

          number = Integer(given.to_s.strip, 10)
          return number if number.between?(1, 65_535)

          raise ArgumentError
        rescue ArgumentError
          raise Error.new("The port is a number from 1 to 65535.", field: "port", value: given)
        end

        def self.channel(text)
          name = text.strip.sub(/\A@/, "#").downcase
          raise Error.new("Which channel? Its name looks like #reedmere.", field: "channel") if name.empty?

          name = "##{name}" unless name.start_with?("#", "&", "+")
          return name if name.bytesize <= 200 && name.length > 1 && !name.match?(/[\s,\u0000-\u001F:]/)

          raise Error.new("“#{text[0, 60]}” cannot be a channel's name.", field: "channel", value: text)
        end

        def self.nick(text)
          return nil if text.strip.empty?
          return text.strip if text.strip.match?(/\A[A-Za-z\[\]\\`_^{|}][\w\[\]\\`^{|}-]{0,29}\z/)

          raise Error.new("A nick has letters, digits and any of _ - [ ] { } \\ ` ^ |, and begins with no digit.", field: "nick", value: text)
        end

        def self.password(text)
          return nil if text.empty?
          return text if text.bytesize <= 300 && !text.match?(/[\u0000\r\n]/)

          raise Error.new("The password is longer than 300 bytes or holds a line end.", field: "password")
        end

        # @return [String] as people write it, without the password
        def to_s
          "#{tls ? "ircs" : "irc"}://#{host.include?(":") ? "[#{host}]" : host}:#{port}/#{channel}"
        end

        private_class_method :pasted, :host, :port, :channel, :nick, :password
      end
    end
  end
end
