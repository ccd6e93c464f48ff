# frozen_string_literal: true

require "erb"
require "json"
require "rack"
require_relative "../skein/api"
require_relative "client"

module Hidewire
  # What Hidewire answers: /v1/stream is its WebSocket, /v1/rooms lists the rooms, / is a page to play each member by hand.
  class Api < Skein::Api
    VIEW = ERB.new(File.read(File.join(__dir__, "page.erb")), trim_mode: "-")
    SCRIPT = File.join(__dir__, "page.js")
    LEVELS_EVERY_S = 0.02
    LONGEST_SOUND_BYTES = 40 * 1024 * 1024

    def initialize(rooms, grants, mischief, beat_ms:)
      @rooms = rooms
      super(rooms.places.fetch("hides").text, grants, mischief, beat_ms:)
    end

    # What the microphones hear, fifty times a second.
    def start
      Thread.new do
        due = now
        loop do
          hear
          due = [due + LEVELS_EVERY_S, now - 1].max
          sleep([due - now, 0].max)
        end
      end
    end

    def call(env)
      request = Rack::Request.new(env)
      case [request.request_method, request.path_info]
      when %w[GET /v1/rooms] then json("rooms" => @rooms.list, "texts" => @rooms.texts.values.map { |text| {"id" => text.key, "name" => text.name} })
      when %w[GET /] then html
      when %w[GET /voices.js] then [200, {"content-type" => "text/javascript"}, [File.read(SCRIPT)]]
      when %w[GET /voices] then state
      when %w[POST /voices] then act(request.params)
      else super
      end
    end

    private

    # What happens in a room, and what is written there.
    def listen_to(_room)
      @rooms.listen { |room, message| clients.each { |client| client.happened(room, message) } }
      {**@rooms.places, **@rooms.texts}.each { |key, place| place.text.listen { |post| clients.each { |client| client.written(key, post) } } }
    end

    def hear
      @rooms.places.each_key do |room|
        listening = clients.select { |client| client.place == room }
        next if listening.empty?

        levels = @rooms.levels(room, now_ms)
        listening.each { |client| client.levels(levels) }
      end
    end

    def client(env) = Client.new(env, env["rack.hijack"].call, @rooms, @grants, @mischief, beat_ms: @beat_ms)

    def act(params)
      who = params["who"].to_s[0, 80]
      case params["do"]
      when "talk" then @rooms.talk(who, params["on"] == "1")
      when "slide" then @rooms.slide(who, params["level"].to_s[/\A\d{1,3}\z/]&.to_i&.clamp(0, Sound::SILENCE))
      when "mark" then @rooms.mark(who, params["mark"], params["on"] == "1")
      when "play" then @rooms.play(params["script"], now_ms)
      when "sound" then sound(who, params["file"])
      when "write" then write(who, params)
      else come_and_go(who, params)
      end
      state
    end

    def write(who, params) = @rooms.texts[params["room"]]&.text&.say(who, params["text"].to_s[0, 400])

    def come_and_go(who, params)
      name = params["name"].to_s.scrub("")[0, Rooms::LONGEST_NAME]
      case params["do"]
      when "rename" then @rooms.rename(who, name)
      when "move" then @rooms.move(who, @rooms.places.key?(params["room"]) ? params["room"] : nil)
      when "join" then @rooms.move(who, "hides", name:) unless who.empty?
      end
    end

    def sound(who, file)
      return unless file.is_a?(Hash) && file[:tempfile].size <= LONGEST_SOUND_BYTES

      @rooms.sound(who, Sound.measure(file[:tempfile].path), now_ms)
    end

    def state
      levels = @rooms.places.each_key.map { |room| @rooms.levels(room, now_ms) }.reduce({}, :merge)
      json("script" => @rooms.script_name, "members" => @rooms.all.map { |one| one.to_h.merge("room" => one.room, "heard" => levels[one.key]) })
    end

    def html
      rooms = @rooms
      [200, {"content-type" => "text/html; charset=utf-8"}, [VIEW.result(binding)]]
    end

    def json(body) = [200, {"content-type" => "application/json"}, [JSON.generate(body)]]
    def now = ::Process.clock_gettime(::Process::CLOCK_MONOTONIC)
    def now_ms = (now * 1000).to_i
  end
end
