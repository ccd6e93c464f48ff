# frozen_string_literal: true

require "digest/sha1"
require "securerandom"
require_relative "element"

module Bavard
  module Feeds
    module Xmpp
      # Pictures of those who talk in a room (XEP-0153; servers tell those of XEP-0084 in the same way, XEP-0398). A presence says which one
      # somebody has, by its hash; it is asked for once they speak, and is what it says it is, or nothing.
      class Faces
        UPDATE = "vcard-temp:x:update"
        CARD = "vcard-temp"
        HASH = /\A\h{40}\z/
        LARGEST_BYTES = 200 * 1024
        # The same in Base64, with whatever lies between.
        LARGEST_WRITTEN = LARGEST_BYTES * 2
        # Of one occupant, however often they take another.
        AGAIN_AFTER_MS = 60_000
        WITHIN_MS = 30_000
        MOST_WAITING = 40
        MOST_KNOWN = 2000

        # @param hash [String] of its bytes, SHA-1
        # @return [String] how a picture is called that nobody else can have (XEP-0231)
        def self.address(hash) = "cid:sha1+#{hash}@bob.xmpp.org"

        # Asked of whom, for which hash, and until when an answer counts.
        Asked = Struct.new(:from, :sha1, :until_ms)
        private_constant :Asked

        # @param room [String] its JID
        # @param send [#call] takes XML
        # @param came [#call] takes each Core::Pictured
        def initialize(room, send:, came:)
          @room = room
          @send = send
          @came = came
          @hashes = {}
          @asked_at_ms = {}
          @waiting = {}
          @known = {}
        end

        # @param presence [Element]
        def noted(nick, presence)
          told = presence.child("x", UPDATE)&.child("photo") or return
          hash = told.text.strip.downcase
          hash.match?(HASH) ? @hashes[nick] = hash : @hashes.delete(nick)
        end

        def left(nick)
          @hashes.delete(nick)
          @asked_at_ms.delete(nick)
        end

        def renamed(nick, newer)
          [@hashes, @asked_at_ms].each { |all| (moved = all.delete(nick)) && all[newer] = moved }
        end

        # @return [String, nil] of the picture of somebody who speaks, whether it is there yet or not
        def of(nick, now_ms)
          hash = @hashes[nick] or return
          ask(nick, hash, now_ms) unless @known[hash]
          Faces.address(hash)
        end

        # @param element [Element] an answer
        def answered(element, now_ms)
          asked = @waiting.delete(element["id"]) or return
          return unless asked.from == element["from"] && now_ms <= asked.until_ms && element["type"] == "result"

          bytes = bytes(element)
          return unless bytes && Digest::SHA1.hexdigest(bytes) == asked.sha1

          know(asked.sha1)
          @came.call(Core::Pictured.new(Faces.address(asked.sha1), bytes))
        end

        private

        def ask(nick, hash, now_ms)
          return if @asked_at_ms[nick] && now_ms - @asked_at_ms[nick] < AGAIN_AFTER_MS

          @waiting.delete_if { |_, asked| asked.until_ms < now_ms }
          return if @waiting.size >= MOST_WAITING

          @asked_at_ms[nick] = now_ms
          id = SecureRandom.hex(6)
          @waiting[id] = Asked.new("#{@room}/#{nick}", hash, now_ms + WITHIN_MS)
          @send.call(Element.written("iq", {type: "get", id:, to: "#{@room}/#{nick}"}, Element.written("vCard", {xmlns: CARD})))
        end

        # @return [String, nil]
        def bytes(element)
          photo = element.child("vCard", CARD)&.child("PHOTO", CARD) or return
          written = photo.child("BINVAL", CARD)&.text.to_s
          return if written.bytesize > LARGEST_WRITTEN

          bytes = written.gsub(/\s/, "").unpack1("m")
          bytes if bytes.bytesize.between?(1, LARGEST_BYTES)
        end

        def know(hash)
          @known.shift if @known.size >= MOST_KNOWN
          @known[hash] = true
        end
      end
    end
  end
end
