# frozen_string_literal: true

module Bavard
  module Feeds
    module Irc
      # The first part of a connection, up to the server's welcome: capability negotiation (IRCv3, CAP LS 302), SASL
      # PLAIN where there is a password and the server offers it, and a nick that is free.
      class Registration
        WANTED = %w[message-tags server-time batch account-tag multi-prefix extended-join account-notify draft/chathistory chathistory
          draft/event-playback draft/message-redaction echo-message].freeze
        SASL_CHUNK = 400
        NICK_TRIES = 6
        # A server that takes no nick says so before it says how long one may be (NICKLEN): then shorter ones are tried.
        SHORTER = [9, 5].freeze
        LONGEST_NICK = 30
        # How long a server may stay silent on CAP before it is taken for one that does not know it.
        CAP_PATIENCE_MS = 3000
        NICK_TAKEN = %w[433 436 437].freeze
        SASL_REFUSED = %w[902 904 905 906 908].freeze

        # @return [Array<String>] capabilities the server granted
        attr_reader :granted
        # @return [String] who we are, or try to be
        attr_reader :nick

        # @param address [Address]
        # @param digits [Proc] gives random digits for a guest's nick
        # @param send [Proc] takes a line to send
        # @param fail [Proc] takes a state and a reason
        def initialize(address, digits:, send:, fail:)
          @address = address
          @digits = digits
          @send = send
          @fail = fail
          @longest = LONGEST_NICK
          @nick = address.nick || guest
          @offered = []
          @granted = []
          @tries = 0
        end

        def begin(now_ms)
          @asked_at_ms = now_ms
          @send.call("CAP LS 302")
          introduce unless @address.password
        end

        # A server that does not answer CAP gets the password the old way.
        def tick(now_ms)
          introduce if !@introduced && now_ms - @asked_at_ms >= CAP_PATIENCE_MS
        end

        # @param message [Message]
        # @return [Boolean] whether it was one for the registration
        def receive(message)
          case message.command
          when "CAP" then capabilities(message.params)
          when "AUTHENTICATE" then authenticate(message.params.first)
          when "900", "907" then nil
          when "903" then finish_capabilities
          when *SASL_REFUSED then @fail.call(:needs_you, "The server did not accept the nick and password: #{quoted(message)}")
          when *NICK_TAKEN then another_nick
          when "432" then bad_nick(message)
          when "464" then @fail.call(:needs_you, "The server asks for a password, or did not accept this one: #{quoted(message)}")
          when "410", "421", "451" then introduce
          else return false
          end
          true
        end

        private

        def introduce
          return if @introduced

          @introduced = true
          @send.call("PASS #{":" if @address.password.include?(" ")}#{@address.password}") if @address.password && !sasl?
          @send.call("NICK #{@nick}")
          @send.call("USER #{guest_user} 0 * :#{@nick}")
        end

        def guest_user
          @nick.downcase.gsub(/[^a-z0-9]/, "")[0, 9].then { |user| user.empty? ? "reader" : user }
        end

        def capabilities(params)
          case params[1]&.upcase
          when "LS" then offered(params)
          when "ACK"
            @granted |= params.last.split
            params.last.split.include?("sasl") ? @send.call("AUTHENTICATE PLAIN") : finish_capabilities
          when "NAK" then finish_capabilities
          when "NEW" then request(params.last.split.map { |offer| offer[/\A[^=]+/] } - @granted)
          when "DEL" then @granted -= params.last.split
          end
        end

        # "CAP * LS * :…" says that more lines follow.
        def offered(params)
          @offered |= params.last.split.filter_map { |offer| offer[/\A[^=]+/] }
          return if params[2] == "*" && params.size > 3

          introduce
          request(@offered) || finish_capabilities
        end

        def request(offered)
          wanted = WANTED & offered
          wanted |= ["sasl"] if sasl? && offered.include?("sasl")
          return false if wanted.empty?

          @send.call("CAP REQ :#{wanted.join(" ")}")
          true
        end

        def sasl?
          @address.password && @address.nick && @offered.include?("sasl")
        end

        def authenticate(answer)
          return unless answer == "+"

          secret = [["", @address.nick, @address.password].join("\0")].pack("m0")
          chunks = secret.scan(/.{1,#{SASL_CHUNK}}/o)
          chunks << "+" if (secret.bytesize % SASL_CHUNK).zero?
          chunks.each { |chunk| @send.call("AUTHENTICATE #{chunk}") }
        end

        def finish_capabilities
          return if @finished

          @finished = true
          @send.call("CAP END")
        end

        def another_nick
          @tries += 1
          return @fail.call(:waiting, "Every nick we tried is in use there.") if @tries > NICK_TRIES

          ending = "_" * [@tries, 4].min
          take_nick(@address.nick ? "#{@address.nick[0, @longest - ending.length]}#{ending}" : guest)
        end

        def bad_nick(message)
          shorter = SHORTER.find { |length| length < @nick.length }
          return @fail.call(:needs_you, "The server does not take the nick “#{@nick}”: #{quoted(message)}") unless shorter

          @longest = shorter
          take_nick(@address.nick ? @address.nick[0, shorter] : guest)
        end

        def take_nick(nick)
          @nick = nick
          @send.call("NICK #{nick}")
        end

        def guest = (@longest == LONGEST_NICK ? "guest#{@digits.call}" : "g#{@digits.call}")[0, @longest]

        def quoted(message) = "“#{message.params.last.to_s[0, 160]}”"
      end
    end
  end
end
