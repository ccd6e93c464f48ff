# frozen_string_literal: true

require "securerandom"
require_relative "../resume"
require_relative "element"
require_relative "room"
require_relative "sasl"

module Bavard
  module Feeds
    module Xmpp
      # One stream to a server (RFC 6120), from its opening to a room (XEP-0045): XML in, XML and intakes out. No socket, no clock.
      class Session
        STREAMS = "http://etherx.jabber.org/streams"
        CLIENT = "jabber:client"
        TLS = "urn:ietf:params:xml:ns:xmpp-tls"
        SASL = "urn:ietf:params:xml:ns:xmpp-sasl"
        BIND = "urn:ietf:params:xml:ns:xmpp-bind"
        PING = "urn:xmpp:ping"
        STANZAS = "urn:ietf:params:xml:ns:xmpp-stanzas"
        JOIN_WITHIN_MS = 20_000
        # So long nothing was heard, and it is asked whether anybody is there; so long after that nobody is.
        SILENT_MS = 45_000
        DEAD_MS = 20_000
        # What becomes of a stream that its server ends, by the name of its error.
        STREAM_ENDS = {"host-unknown" => %i[needs_you address], "host-gone" => %i[needs_you address], "not-authorized" => %i[needs_you permission],
                       "policy-violation" => %i[waiting], "conflict" => %i[waiting]}.freeze

        attr_reader :ended, :heard_at_ms

        # @param address [Address]
        # @param resume [Resume] last_id: of the newest line there was
        # @param reject [#call] told of what could not be read
        def initialize(feed_id, address, resume, reject:)
          @address = address
          @room = Room.new(feed_id, address, resume, send: ->(xml) { @outgoing << xml }, reject:, over: method(:over))
          @outgoing = []
          @heard_at_ms = resume.heard_at_ms
          @secure = false
        end

        def joined? = @room.joined?

        # @param now_ms [Integer] Unix milliseconds
        # @param secure [Boolean] whether TLS begins before the stream does
        def begin(now_ms, secure: false)
          @now_ms = @began_ms = @heard_at_ms = now_ms
          @secure = secure
          @room.connecting(now_ms)
          open_stream
        end

        # TLS has begun.
        def secured(now_ms)
          @now_ms = now_ms
          @secure = true
          open_stream
        end

        # @param what [Element, Symbol] as {Stream} tells it
        def receive(what, now_ms)
          @now_ms = @heard_at_ms = now_ms
          @asked_ms = nil
          return over(:waiting, "#{@address.server} closed the line.") if what == :closed
          return if what.is?("stream", STREAMS)

          case what.namespace
          when STREAMS then stream(what)
          when TLS then tls(what)
          when SASL then sasl(what)
          else stanza(what)
          end
        end

        # To be called at least once a second.
        def tick(now_ms)
          @now_ms = now_ms
          if !joined? && now_ms - @began_ms > JOIN_WITHIN_MS
            return over(:waiting, "#{@address.server} answered, but did not let us into the room within #{JOIN_WITHIN_MS / 1000} s.")
          end

          @room.tick(now_ms)
          silent(now_ms)
        end

        # @param letter [Outbox::Letter]
        def say(letter, now_ms)
          @now_ms = now_ms
          @room.say(letter, now_ms)
        end

        # @return [Array<String, Symbol>] XML; :stream where a stream begins anew, :secure where TLS begins
        def take_outgoing = @outgoing.tap { @outgoing = [] }

        # @return [Array<Core::Intake>]
        def take_intakes = @room.take_intakes

        private

        def written(...) = Element.written(...)

        def open_stream
          @outgoing << :stream
          @outgoing << "<?xml version='1.0'?><stream:stream to='#{CGI.escapeHTML(@address.server)}' version='1.0' xml:lang='en' xmlns='#{CLIENT}' " \
                       "xmlns:stream='#{STREAMS}'>"
        end

        def stream(element)
          return features(element) if element.name == "features"

          kind = element.elements.first&.name.to_s
          words = element.child("text")&.text.to_s[0, 120]
          state, want = STREAM_ENDS.fetch(kind, %i[waiting])
          over(state, "#{@address.server} ended the stream: #{words.empty? ? kind.tr("-", " ") : words}.", want:)
        end

        def features(element)
          if !@secure && element.child("starttls", TLS) then @outgoing << written("starttls", {xmlns: TLS})
          elsif @let_in then bind
          elsif (mechanisms = element.child("mechanisms", SASL)) then let_in(mechanisms.elements.map(&:text))
          else
            over(:needs_you, "#{@address.server} offers no way in.", want: :address)
          end
        end

        def let_in(offered)
          if @address.login && !@secure
            return over(:needs_you, "#{@address.server} does not secure the line, so no password is sent there.",
              want: :address)
          end

          @sasl = Sasl.choose(offered, @address.login, secure: @secure)
          return no_way_in unless @sasl

          first = @sasl.first.empty? ? [] : [[@sasl.first].pack("m0")]
          @outgoing << written("auth", {xmlns: SASL, mechanism: @sasl.mechanism}, *first)
        end

        def no_way_in
          return over(:needs_you, "#{@address.server} offers no way in with a password that we know.", want: :permission) if @address.login

          over(:needs_you, "#{@address.server} lets in only who has an account there.", want: :permission)
        end

        def tls(element)
          element.name == "proceed" ? @outgoing << :secure : over(:waiting, "#{@address.server} could not secure the line.")
        end

        def sasl(element)
          case element.name
          when "challenge" then challenged(element)
          when "success" then entered(element)
          when "failure" then refused(element)
          end
        end

        def challenged(element)
          answer = @sasl&.answer(element.text.unpack1("m").force_encoding(Encoding::UTF_8).scrub)
          return over(:waiting, "#{@address.server} asked for something that nobody could answer.") unless answer

          @outgoing << written("response", {xmlns: SASL}, [answer].pack("m0"))
        end

        def entered(element)
          unless @sasl&.proved?(element.text.unpack1("m").force_encoding(Encoding::UTF_8).scrub)
            return over(:needs_you, "#{@address.server} could not prove that it knows this account.", want: :address)
          end

          @let_in = true
          open_stream
        end

        def refused(element)
          kind = element.elements.reject { |one| one.name == "text" }.first&.name.to_s
          return over(:waiting, "#{@address.server} cannot look at accounts just now.") if kind == "temporary-auth-failure"
          unless @address.login
            return over(:needs_you, "#{@address.server} lets nobody in without an account (#{kind.tr("-", " ")}).",
              want: :permission)
          end

          over(:needs_you, "#{@address.server} does not take this account and password (#{kind.tr("-", " ")}).", want: :permission)
        end

        def bind
          @outgoing << written("iq", {type: "set", id: @binding = SecureRandom.hex(4)}, written("bind", {xmlns: BIND}))
        end

        def stanza(element)
          return bound(element) if @binding && element.name == "iq" && element["id"] == @binding
          return pong(element) if element.name == "iq" && element["type"] == "get" && element.child("ping", PING)
          return unknown(element) if element.name == "iq" && %w[get set].include?(element["type"])

          @room.receive(element, @now_ms)
        end

        def bound(element)
          @binding = nil
          return over(:waiting, "#{@address.server} gave us no place (#{element.error_kind}).") unless element["type"] == "result"

          @room.join(@now_ms)
        end

        def pong(element) = @outgoing << written("iq", {type: "result", id: element["id"], to: element["from"]})

        def unknown(element)
          @outgoing << written("iq", {type: "error", id: element["id"], to: element["from"]},
            written("error", {type: "cancel"}, written("service-unavailable", {xmlns: STANZAS})))
        end

        def silent(now_ms)
          return over(:waiting, "#{@address.server} does not answer any more.") if @asked_ms && now_ms - @asked_ms > DEAD_MS
          return if @asked_ms || !joined? || now_ms - @heard_at_ms < SILENT_MS

          @asked_ms = now_ms
          @outgoing << written("iq", {type: "get", id: SecureRandom.hex(4), to: @address.server}, written("ping", {xmlns: PING}))
        end

        def over(state, reason, want: nil, after_ms: nil)
          @ended = Ended.new(state, reason, want, after_ms) if @ended.nil?
        end
      end
    end
  end
end
