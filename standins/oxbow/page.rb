# frozen_string_literal: true

require "erb"
require "json"
require "rack"

module Oxbow
  # The stand-in's own small page: type as any viewer, delete a line, begin and end the broadcast, set the pace.
  class Page
    VIEW = ERB.new(File.read(File.join(__dir__, "page.erb")), trim_mode: "-")
    STATIC = {"/page.css" => "text/css", "/page.js" => "text/javascript"}.freeze

    def initialize(channel, talkers)
      @channel = channel
      @talkers = talkers
    end

    def call(env)
      request = Rack::Request.new(env)
      return static(request.path_info) if STATIC.key?(request.path_info)
      return lines if request.path_info == "/lines"
      return html if request.get?

      act(request.path_info, request.params)
      [303, {"location" => "/"}, []]
    end

    private

    def act(path, params)
      case path
      when "/say" then say(params)
      when "/delete" then @channel.redact("oxbow", params["id"].to_s[0, 64])
      when "/topic" then @channel.topic = params["on"] == "1" ? Channel::ON_TOPIC : Channel::OFF_TOPIC
      when "/cut" then @channel.cut
      when "/pace" then @talkers.per_minute = params["per_minute"].to_f.clamp(0, 600)
      end
    end

    def say(params)
      text = params["text"].to_s.delete("\r\n\0").byteslice(0, 460).scrub("")
      @talkers.say(params["login"].to_s[/\A[\w.]{1,60}\z/] || "mudlark7", text) unless text.strip.empty?
    end

    def lines
      gone = @channel.redacted
      body = @channel.lines.map do |event|
        {id: event.id, nick: event.tags["+draft/display-name"] || event.nick, text: event.text, gone: gone.key?(event.id)}
      end
      [200, {"content-type" => "application/json"}, [JSON.generate(lines: body, topic: @channel.topic)]]
    end

    def html
      channel = @channel
      talkers = @talkers
      [200, {"content-type" => "text/html; charset=utf-8"}, [VIEW.result(binding)]]
    end

    def static(path)
      [200, {"content-type" => STATIC[path]}, [File.read(File.join(__dir__, path.delete_prefix("/")))]]
    end
  end
end
