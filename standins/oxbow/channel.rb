# frozen_string_literal: true

require "json"
require "monitor"
require "securerandom"
require "time"
require_relative "../shared/emotes"

module Oxbow
  # The one channel of the stand-in: who is in it, what happened, and its topic. Everything goes through its monitor.
  class Channel
    REMEMBERED = 500
    OFF_TOPIC = "off air until tomorrow, 05:30"
    ON_TOPIC = "Dawn ringing at Reedmere, live"
    # kind: PRIVMSG, REDACT, TAGMSG (an event) or KICK (somebody is silenced); tags as every client may get them
    Event = Struct.new(:id, :at_ms, :kind, :nick, :text, :tags)

    include MonitorMixin

    # said: how many lines since the start
    attr_reader :name, :topic, :viewers, :said

    # @param file [String, nil] where history is kept between two starts
    # @param pictures [String] address below which its emotes, badges and avatars are
    def initialize(name, viewers, mischief, pictures:, file: nil)
      super()
      @name = name
      @viewers = viewers
      @mischief = mischief
      @pictures = pictures
      @file = file
      @members = []
      @said = 0
      @topic = ON_TOPIC
      @events = file && File.exist?(file) ? recall : []
    end

    def join(client) = synchronize { @members |= [client] }
    def leave(client) = synchronize { @members.delete(client) }
    def nicks = synchronize { @members.map(&:nick) + viewers.map { |viewer| viewer["login"] } }

    # Cuts every client off, as a broken network would.
    def cut = synchronize { @members.dup }.each(&:cut)

    # One of the demo's viewers says something.
    def say(login, text, more = {})
      text = "\u0001ACTION #{text}\u0001" if more["action"]
      privmsg(login, text, tags: tags_of(login).merge(tags_for(text, more)))
    end

    # @return [Event] said by a viewer or by a client
    def privmsg(nick, text, tags: {}, except: nil) = record("PRIVMSG", nick, text, tags, except)

    def event(kind, login, text, more = {})
      tags = tags_of(login).merge("draft/event" => kind, "draft/message" => text, "draft/number" => more["number"]&.to_s,
        "draft/amount" => amount(more))
      record("TAGMSG", login, "", tags.reject { |_, value| value.to_s.empty? }, nil)
    end

    # Somebody deletes a line, or puts a person out.
    def delete(id, nick: "oxbow") = record("REDACT", nick, id, {}, nil)
    def silence(login) = record("KICK", "oxbow", login, {}, nil)

    def live = topic != OFF_TOPIC
    def number = nil

    def live=(on)
      self.topic = on ? ON_TOPIC : OFF_TOPIC
    end

    def topic=(text)
      synchronize do
        @topic = text
        @members.each { |member| member.write(":oxbow TOPIC #{name} :#{text}") }
      end
    end

    # @return [Array<Event>, nil] nil where the point is unknown
    def after(point, limit)
      synchronize do
        from = point.start_with?("timestamp=") ? by_time(point.delete_prefix("timestamp=")) : by_id(point.delete_prefix("msgid="))
        from && @events[from, limit]
      end
    end

    def latest(limit) = synchronize { @events.last(limit) }

    # What its page shows.
    def lines
      synchronize do
        gone = of_kind("REDACT").to_h { |event| [event.text, true] }
        put_out = of_kind("KICK").to_h { |event| [event.text, event.at_ms] }
        of_kind("PRIVMSG", "TAGMSG").last(40).map { |event| line(event, gone.key?(event.id) || event.at_ms <= put_out.fetch(event.nick, 0)) }
      end
    end

    private

    def of_kind(*kinds) = @events.select { |event| kinds.include?(event.kind) }

    def line(event, gone)
      {id: event.id, login: event.nick, nick: event.tags["draft/display-name"] || event.nick, text: event.text.delete("\u0001"),
       event: event.tags["draft/event"], gone:}
    end

    def tags_of(login)
      viewer = viewers.find { |known| known["login"] == login } || {}
      {"draft/display-name" => viewer["name"], "draft/color" => viewer["colour"], "draft/badges" => viewer["badges"],
       "draft/avatar" => "#{@pictures}/avatars/#{StandIns::Emotes.avatar(login)}.svg", "account" => viewer["login"]}.reject { |_, value| value.to_s.empty? }
    end

    # Offsets in bytes of the text.
    def tags_for(text, more)
      emotes = StandIns::Emotes.in_bytes(text).map do |at, length, name|
        "#{name}.#{StandIns::Emotes.ending(name)}:#{at}-#{at + length - 1}"
      end.join("/")
      {"draft/emotes" => emotes, "+draft/reply" => more["reply"], "draft/first" => more["first"] ? "1" : nil, "draft/amount" => amount(more)}
        .reject { |_, value| value.to_s.empty? }
    end

    def amount(more)
      return "#{more["minor"]}/#{more["currency"]}" if more["currency"]

      "#{more["sparks"]}/sparks" if more["sparks"]
    end

    def record(kind, nick, text, tags, except)
      synchronize do
        event = Event.new(SecureRandom.alphanumeric(16), (Time.now.to_r * 1000).to_i, kind, nick, text, tags)
        @events << event
        @said += 1 if kind == "PRIVMSG"
        @events.shift if @events.size > REMEMBERED
        hand_out(event, except)
        File.write(@file, "#{JSON.generate(event.to_a)}\n", mode: "a") if @file
        event
      end
    end

    # Out of order: an event is kept back until after the next one.
    def hand_out(event, except)
      return if @mischief.on?("stall")
      return @kept_back = [event, except] if @mischief.on?("reorder") && @kept_back.nil?

      waiting = [[event, except], @kept_back].compact
      @kept_back = nil
      @mischief.disturb(waiting.map(&:first)).each do |one|
        left_out = one.equal?(event) ? except : nil
        @members.each { |member| member.deliver(one) unless member == left_out && !member.echo? }
      end
    end

    def recall
      File.foreach(@file).map { |line| Event.new(*JSON.parse(line)) }.last(REMEMBERED)
    rescue JSON::ParserError
      []
    end

    def by_id(id)
      index = @events.index { |event| event.id == id }
      index && (index + 1)
    end

    def by_time(text)
      at_ms = (Time.iso8601(text).to_r * 1000).to_i
      @events.index { |event| event.at_ms > at_ms } || @events.size
    rescue ArgumentError
      nil
    end
  end
end
