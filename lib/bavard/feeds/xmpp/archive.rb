# frozen_string_literal: true

require "securerandom"
require_relative "element"
require_relative "message"

module Bavard
  module Feeds
    module Xmpp
      # What was said in a room while nobody listened, out of its archive (XEP-0313), page by page; where it keeps none, what it tells on
      # joining has to do.
      class Archive
        MAM = "urn:xmpp:mam:2"
        DISCO = "http://jabber.org/protocol/disco#info"
        FORWARD = "urn:xmpp:forward:0"
        RSM = "http://jabber.org/protocol/rsm"
        DATA = "jabber:x:data"
        PAGE = 100
        MOST_PAGES = 20
        # Clocks differ.
        EARLIER_MS = 5000

        # @param resume [Resume]
        # @param send [#call] takes XML
        # @param heard [#call] takes a Message and the time
        # @param done [#call] told whether all is told that was said meanwhile
        def initialize(room, resume, send:, heard:, done:)
          @room = room
          @resume = resume
          @send = send
          @heard = heard
          @done = done
          @pages = 0
          # What has no id of the archive's goes by its writer's (Room#id_of).
          @last_id = resume.last_id unless resume.last_id.to_s.include?("/")
        end

        # Asks whether the room keeps one. Where nothing was heard before, nothing is missing.
        def begin
          return unless @resume.heard_at_ms

          @asking = SecureRandom.hex(4)
          @send.call(Element.written("iq", {type: "get", id: @asking, to: @room}, Element.written("query", {xmlns: DISCO})))
        end

        # The room has told what it tells on joining.
        #
        # @param all [Boolean, nil] whether the last line that was known is among it
        def room_told(all)
          @room_told = true
          @all = all ? true : false
          over(@all) if @without
        end

        # @param element [Element] an answer
        def answered(element, now_ms)
          @now_ms = now_ms
          if element["id"] == @asking then found(element)
          elsif element["id"] == @query then page(element)
          end
        end

        # What is told of it comes as messages that carry others.
        #
        # @param element [Element]
        # @return [Boolean] whether it is one of those
        def forwarded?(element, now_ms)
          result = element.child("result", MAM)
          return false unless result && element["from"].to_s.downcase == @room && result["queryid"] == @query

          carried = result.child("forwarded", FORWARD)
          message = carried&.child("message")
          @heard.call(Told.new(message, @room, result["id"], carried.child("delay", Message::DELAY)), now_ms) if message
          true
        end

        # A message out of the archive: its id and its time stand around it.
        class Told < Message
          def initialize(element, room, archived_id, delay)
            super(element, room)
            @archived_id = archived_id
            @delay = delay
          end

          def stanza_id = id(@archived_id)

          def delayed_ms
            (Time.iso8601(@delay["stamp"]).to_r * 1000).to_i.clamp(0, Given::LATEST_MS) if @delay
          rescue ArgumentError, TypeError
            super
          end
        end

        private

        def found(element)
          @asking = nil
          kept = element["type"] == "result" && element.child("query", DISCO)&.elements&.any? { |one| one.name == "feature" && one["var"] == MAM }
          return ask(@last_id) if kept

          @without = true
          over(@all) if @room_told
        end

        # By the last line that is known, whatever any clock says; else from when we were there last.
        #
        # @param after [String, nil] the last that was told
        def ask(after)
          @query = SecureRandom.hex(4)
          form = Element.written("x", {xmlns: DATA, type: "submit"}, field("FORM_TYPE", MAM), *(field("start", start) unless @last_id))
          set = Element.written("set", {xmlns: RSM}, Element.written("max", {}, PAGE.to_s),
            *(after ? [Element.written("after", {}, Element.escaped(after))] : []))
          @send.call(Element.written("iq", {type: "set", id: @query, to: @room}, Element.written("query", {xmlns: MAM, queryid: @query}, form, set)))
        end

        def start = Time.at((@resume.heard_there_ms - EARLIER_MS)/1000r).utc.strftime("%FT%TZ")
        def field(name, value) = Element.written("field", {var: name}, Element.written("value", {}, value))

        def page(element)
          fin = element.child("fin", MAM)
          return by_time if element["type"] == "error" && @last_id
          return over(@all) unless element["type"] == "result" && fin
          return over(true) if fin["complete"] == "true"

          last = fin.child("set", RSM)&.child("last")&.text.to_s
          @pages += 1
          last.empty? || @pages >= MOST_PAGES ? over(false) : ask(last)
        end

        # It knows that line no more.
        def by_time
          @last_id = nil
          ask(nil)
        end

        def over(all)
          @query = nil
          @done.call(all) unless @over
          @over = true
        end
      end
    end
  end
end
