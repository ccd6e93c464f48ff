# frozen_string_literal: true

require "time"
require_relative "../given"
require_relative "element"

module Bavard
  module Feeds
    module Xmpp
      # What a message of a room says, in the terms of the extensions that it may use.
      class Message
        STANZA_ID = "urn:xmpp:sid:0"
        DELAY = "urn:xmpp:delay"
        CORRECT = "urn:xmpp:message-correct:0"
        RETRACT = ["urn:xmpp:message-retract:1", "urn:xmpp:message-retract:0"].freeze
        MODERATE = ["urn:xmpp:message-moderate:1", "urn:xmpp:message-moderate:0"].freeze
        FASTEN = "urn:xmpp:fasten:0"
        REPLY = "urn:xmpp:reply:0"
        FALLBACK = "urn:xmpp:fallback:0"
        OCCUPANT = "urn:xmpp:occupant-id:0"
        ME = "/me "
        LONGEST_ID = 200

        # @param element [Element] a message of the type groupchat
        # @param room [String] its JID, bare
        def initialize(element, room)
          @element = element
          @room = room
        end

        # @return [String, nil] nick of whoever wrote it; nil: the room itself
        def nick = @element["from"].to_s.split("/", 2)[1]

        # @return [String] the writer's own id
        def own_id = id(@element["id"])

        # XEP-0421: the same for as long as the room knows them, whatever they are called.
        def occupant = id(@element.child("occupant-id", OCCUPANT)&.[]("id"))

        # XEP-0359: given by the room; what anybody else says of it counts for nothing.
        def stanza_id = id(@element.elements.find { |one| one.is?("stanza-id", STANZA_ID) && one["by"] == @room }&.[]("id"))

        # XEP-0203
        # @return [Integer, nil] Unix milliseconds, of what was said before
        def delayed_ms
          stamp = @element.child("delay", DELAY)&.[]("stamp") or return
          (Time.iso8601(stamp).to_r * 1000).to_i.clamp(0, Given::LATEST_MS)
        rescue ArgumentError
          nil
        end

        # XEP-0308
        # @return [String, nil] the writer's own id of the line that this is instead of
        def replaces = id(@element.child("replace", CORRECT)&.[]("id"))

        # XEP-0424 and XEP-0425, as they are and as they were.
        # @return [String, nil] id of the line that is taken away
        def retracts
          direct = RETRACT.filter_map { |namespace| @element.child("retract", namespace) }.first
          return id(direct["id"]) if direct&.[]("id")

          fastened = @element.child("apply-to", FASTEN) or return
          id(fastened["id"]) if fastened.elements.any? { |one| RETRACT.include?(one.namespace) || MODERATE.include?(one.namespace) }
        end

        # XEP-0461
        # @return [String, nil] id of the line that it answers to
        def replies_to = id(@element.child("reply", REPLY)&.[]("id"))

        # @return [String, nil] nick of whoever is answered
        def replies_to_nick = @element.child("reply", REPLY)&.[]("to").to_s.split("/", 2)[1]

        def body? = !@element.child("body").nil?
        def subject? = !@element.child("subject").nil? && !body?
        def action? = whole_text.start_with?(ME)

        # @return [String] without what is only there for those who know no replies (XEP-0428)
        def text
          text = without_fallback(whole_text)
          action? ? text.delete_prefix(ME) : text
        end

        private

        def id(value) = value.to_s.then { |text| text.empty? ? nil : text[0, LONGEST_ID] }
        def whole_text = @element.child("body")&.text.to_s

        def without_fallback(text)
          fallback = @element.elements.find { |one| one.is?("fallback", FALLBACK) && one["for"] == REPLY } or return text
          body = fallback.child("body") or return ""
          from, to = %w[start end].map { |name| Integer(body[name], exception: false) }
          return text unless from && to && from >= 0 && to > from

          "#{text[0, from]}#{text[to..]}"
        end
      end
    end
  end
end
