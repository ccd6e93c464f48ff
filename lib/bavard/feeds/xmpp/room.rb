# frozen_string_literal: true

require "securerandom"
require_relative "../../core/intake"
require_relative "../given"
require_relative "archive"
require_relative "faces"
require_relative "message"
require_relative "said_before"

module Bavard
  module Feeds
    module Xmpp
      # One room of many (XEP-0045): joining it, who is in it with which role, what is said, changed and taken back there.
      class Room
        MUC = "http://jabber.org/protocol/muc"
        USER = "http://jabber.org/protocol/muc#user"
        SELF = "110"
        BANNED = "301"
        KICKED = "307"
        RENAMED = "303"
        MOST_OCCUPANTS = 20_000
        # Lines that are told again on joining where nothing was heard before.
        HISTORY = 20
        # Clocks differ.
        EARLIER_MS = 5000
        MOST_NICKS = 5
        SAY_WITHIN_MS = 10_000
        # In Bavard's words: what somebody is to the room (affiliation) or may do in it now (role).
        ROLES = {"owner" => "host", "admin" => "moderator", "moderator" => "moderator", "member" => "member"}.freeze
        # What a room's no means, by the name of its error.
        REFUSALS = {
          "not-authorized" => [:permission, "%s wants a password of its own."],
          "forbidden" => [:permission, "%s does not let us in: we are banned there."],
          "registration-required" => [:permission, "%s is for its members only."], "item-not-found" => [:address, "There is no room called %s."],
          "remote-server-not-found" => [:address, "There is no server that %s could be on."], "jid-malformed" => [:address, "%s cannot be a room."],
          "not-allowed" => [:address, "There is no room called %s, and none can be made."], "gone" => [:address, "%s is gone."]
        }.freeze

        # @param send [#call] takes XML
        # @param reject [#call]
        # @param over [#call] ends the stream: state, reason, want:, after_ms:
        def initialize(feed_id, address, resume, send:, reject:, over:)
          @feed_id = feed_id
          @address = address
          @resume = resume
          @send = send
          @reject = reject
          @over = over
          @nick = address.nick || "guest-#{SecureRandom.alphanumeric(5).downcase}"
          @occupants = {}
          @said = SaidBefore.new
          @faces = Faces.new(room, send:, came: ->(picture) { intake(:picture, picture) })
          @intakes = []
          @waiting = {}
        end

        def joined? = @joined ? true : false
        def take_intakes = @intakes.tap { @intakes = [] }

        def connecting(now_ms)
          @now_ms = now_ms
          state(:connecting, "Waiting for #{@address.server}.")
        end

        def join(now_ms)
          @now_ms = now_ms
          # So long ago, and not since when: clocks differ.
          history = @resume.heard_at_ms ? {seconds: ((now_ms - @resume.heard_at_ms).abs + EARLIER_MS) / 1000} : {maxstanzas: HISTORY}
          @send.call(written("presence", {to: "#{room}/#{@nick}"}, written("x", {xmlns: MUC}, written("history", history))))
        end

        # @param element [Element]
        def receive(element, now_ms)
          @now_ms = now_ms
          case element.name
          when "presence" then presence(element) if ours?(element)
          when "message" then from_room(element) if ours?(element)
          when "iq" then [@archive, @faces].compact.each { |one| one.answered(element, now_ms) }
          end
        end

        def tick(now_ms)
          @now_ms = now_ms
          late = @waiting.select { |_, (_, until_ms)| until_ms < now_ms }
          late.each { |id, (answer_id, _)| answered(id, answer_id, "#{room} did not say whether it took the line.") }
        end

        # @param letter [Outbox::Letter]
        def say(letter, now_ms)
          @now_ms = now_ms
          return tell(letter.answer_id, "This feed is not connected just now.") unless @joined
          return tell(letter.answer_id, "This feed reads as a guest; give it an account to answer with.") unless @address.account

          id = SecureRandom.hex(8)
          @waiting[id] = [letter.answer_id, now_ms + SAY_WITHIN_MS]
          @send.call(written("message", {to: room, type: "groupchat", id:}, written("body", {}, Element.escaped(letter.text))))
        end

        private

        def written(...) = Element.written(...)
        def room = @address.room
        def ours?(element) = element["from"].to_s.split("/", 2).first.to_s.downcase == room
        def nick_of(element) = element["from"].to_s.split("/", 2)[1]

        def presence(element)
          return refused(element) if element["type"] == "error"

          nick = nick_of(element) or return
          told = element.child("x", USER)
          codes = told ? told.elements.select { |one| one.name == "status" }.map { |one| one["code"] } : []
          return left(nick, told, codes) if element["type"] == "unavailable"

          note(nick, element, told) if @occupants.size < MOST_OCCUPANTS || @occupants.key?(nick)
          entered(nick) if codes.include?(SELF)
        end

        def note(nick, element, told)
          @occupants[nick] = roles(told)
          @faces.noted(nick, element)
        end

        def roles(told)
          item = told&.child("item")
          [item&.[]("affiliation"), item&.[]("role")].filter_map { |word| ROLES[word] }.uniq
        end

        def entered(nick)
          @nick = nick
          return if @joined

          @joined = true
          @archive = Archive.new(room, @resume, send: @send, heard: ->(message, now_ms) { again(message, now_ms) }, done: method(:caught_up))
          @archive.begin
          state(:live, "Reading #{room}.")
        end

        def left(nick, told, codes)
          @occupants.delete(nick)
          renamed = told&.child("item")&.[]("nick") if codes.include?(RENAMED)
          renamed ? [@said, @faces].each { |one| one.renamed(nick, renamed) } : forget(nick)
          return ourselves(codes, renamed, told) if codes.include?(SELF) || nick == @nick

          intake(:clear_person, nick) if codes.include?(BANNED)
        end

        def forget(nick)
          @said.leaves(nick)
          @faces.left(nick)
        end

        # What becomes of us there.
        def ourselves(codes, renamed, told)
          return @nick = renamed if renamed
          return @over.call(:needs_you, "#{room} has banned us.", want: :permission) if codes.include?(BANNED)
          return @over.call(:needs_you, "#{room} has put us out.", want: :permission) if codes.include?(KICKED)

          gone = told&.child("destroy")
          gone ? @over.call(:needs_you, "#{room} is no more.", want: :address) : @over.call(:waiting, "#{room} has let us go.")
        end

        def refused(element)
          kind = element.error_kind
          return another_nick if kind == "conflict" && !@joined

          want, words = REFUSALS.fetch(kind, [nil, "%s does not let us in (#{kind.tr("-", " ")})."])
          @over.call(want ? :needs_you : :waiting, format(words, room), want:)
        end

        # Somebody there is called so.
        def another_nick
          @tried = @tried.to_i + 1
          return @over.call(:needs_you, "In #{room} somebody else is called #{@nick}.", want: :address) if @tried > MOST_NICKS

          @nick = "#{@nick[0, 50]}_"
          join(@now_ms)
        end

        def from_room(element)
          return not_taken(element) if element["type"] == "error"
          return if @archive&.forwarded?(element, @now_ms)

          message = Message.new(element, room)
          return unless element["type"] == "groupchat"
          return history_over if message.subject? && !@history_over

          hear(message)
        end

        # What the room tells of itself comes behind its history.
        def history_over
          @history_over = true
          @archive&.room_told(@told_again)
        end

        # Out of the archive.
        def again(message, now_ms)
          @now_ms = now_ms
          hear(message)
        end

        def hear(message)
          return taken_back(message) if message.retracts
          return unless message.nick && message.body?

          echoed(message)
          message.replaces ? changed(message) : line(message)
        end

        def key_of(message) = message.occupant || message.nick
        def id_of(message) = message.stanza_id || (message.own_id && "#{message.nick}/#{message.own_id}")

        def line(message)
          id = id_of(message)
          @told_again = true if id && id == @resume.last_id
          @said.add(SaidBefore::Said.new(key_of(message), id, message.own_id, message.nick)) if id
          at_ms = message.delayed_ms
          since_ms = @resume.heard_at_ms if at_ms
          @intakes << Core::Intake.new(:line, @feed_id, id, at_ms, @now_ms, said(message, history: !at_ms.nil?), since_ms)
        end

        def said(message, history:)
          Core::Said.new(message.nick, message.nick, nil, @occupants.fetch(message.nick, []), Given.text(message.text, Given::LONGEST_TEXT).to_s,
            message.action?, history, nil, reply(message), false, nil, history ? nil : @faces.of(message.nick, @now_ms))
        end

        def reply(message)
          answered = message.replies_to or return
          Core::Reply.new(answered, message.replies_to_nick || @said[answered]&.login, nil)
        end

        # Only whoever wrote a line may change it. What is not known any more comes as a line of its own, as to whoever knows no changes.
        def changed(message)
          before = @said.own(key_of(message), message.replaces)
          return line(message) unless before

          text = Given.text(message.text, Given::LONGEST_TEXT).to_s
          intake(:edit_line, Core::Edited.new(nil, text, nil), platform_id: before.platform_id)
        end

        # Only whoever wrote a line, or the room itself, takes it away.
        def taken_back(message)
          return intake(:delete_line, nil, platform_id: message.retracts) if message.nick.nil?

          said = @said[message.retracts] || @said.own(key_of(message), message.retracts)
          return @reject.call("#{message.nick} takes away what somebody else said") unless said && said.key == key_of(message)

          intake(:delete_line, nil, platform_id: said.platform_id)
        end

        def echoed(message)
          answer_id, = @waiting[message.own_id] if message.nick == @nick
          answered(message.own_id, answer_id, nil) if answer_id
        end

        def not_taken(element)
          answer_id, = @waiting[element["id"]]
          answered(element["id"], answer_id, "#{room} did not take it (#{element.error_kind.tr("-", " ")}).") if answer_id
        end

        def answered(id, answer_id, reason)
          @waiting.delete(id)
          tell(answer_id, reason)
        end

        # @param complete [Boolean] whether all is told again that was said meanwhile
        def caught_up(complete)
          return if complete || @resume.heard_at_ms.nil? || @now_ms <= @resume.heard_at_ms

          intake(:gap, Core::Gap.new(@resume.heard_at_ms, @now_ms))
        end

        def tell(answer_id, reason) = intake(:answered, Core::Answered.new(answer_id, reason.nil?, reason))
        def state(name, reason) = intake(:feed_state, Core::FeedState.new(name, reason, @now_ms))
        def intake(kind, body, platform_id: nil) = @intakes << Core::Intake.new(kind, @feed_id, platform_id, nil, @now_ms, body)
      end
    end
  end
end
