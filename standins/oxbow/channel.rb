# frozen_string_literal: true

require "json"
require "monitor"
require "securerandom"

module Oxbow
  # The one channel of the stand-in: who is in it, what was said, and its topic. Everything goes through its monitor.
  class Channel
    REMEMBERED = 500
    OFF_TOPIC = "off air until tomorrow, 05:30"
    ON_TOPIC = "Dawn ringing at Reedmere, live"
    # kind: PRIVMSG or REDACT; tags as every client may get them
    Event = Struct.new(:id, :at_ms, :kind, :nick, :text, :tags)

    include MonitorMixin

    attr_reader :name, :topic, :viewers

    # @param file [String, nil] where history is kept between two starts
    def initialize(name, viewers, file: nil)
      super()
      @name = name
      @viewers = viewers
      @file = file
      @members = []
      @topic = ON_TOPIC
      @events = file && File.exist?(file) ? recall : []
    end

    def join(client) = synchronize { @members |= [client] }
    def leave(client) = synchronize { @members.delete(client) }
    def nicks = synchronize { @members.map(&:nick) + viewers.map { |viewer| viewer["login"] } }
    def lines = synchronize { @events.select { |event| event.kind == "PRIVMSG" }.last(40) }
    def redacted = synchronize { @events.select { |event| event.kind == "REDACT" }.to_h { |event| [event.text, true] } }

    # Cuts every client off, as a broken network would.
    def cut = synchronize { @members.dup }.each(&:cut)

    # @return [Event] said by a viewer or by a client
    def say(nick, text, tags: {}, except: nil)
      record("PRIVMSG", nick, text, tags, except)
    end

    # Somebody deletes a line.
    def redact(nick, message_id)
      record("REDACT", nick, message_id, {}, nil)
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

    # Tags of one of the demo's viewers.
    def tags_of(viewer)
      {"+draft/display-name" => viewer["name"], "+draft/color" => viewer["colour"], "+draft/badges" => viewer["badges"],
       "account" => viewer["login"]}.reject { |_, value| value.to_s.empty? }
    end

    private

    def record(kind, nick, text, tags, except)
      synchronize do
        event = Event.new(SecureRandom.alphanumeric(16), (Time.now.to_r * 1000).to_i, kind, nick, text, tags)
        @events << event
        @events.shift if @events.size > REMEMBERED
        @members.each { |member| member.deliver(event) unless member == except && !member.echo? }
        File.write(@file, "#{JSON.generate(event.to_a)}\n", mode: "a") if @file
        event
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
