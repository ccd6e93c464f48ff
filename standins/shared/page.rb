# frozen_string_literal: true

require "erb"
require "json"
require "rack"
require_relative "mischief"

module StandIns
  # A stand-in's own small page: type as any viewer, fire events, delete a line, silence a person, begin and end the
  # broadcast, set the pace, misbehave.
  class Page
    VIEW = ERB.new(File.read(File.join(__dir__, "page.erb")), trim_mode: "-")
    STATIC = {"/page.css" => "text/css", "/page.js" => "text/javascript"}.freeze
    PICTURES = File.expand_path("../../demo/pictures", __dir__)
    EVENTS = {
      "follow" => "Follow", "subscription" => "Subscription", "renewal" => "Renewal, 12 months", "gift" => "5 subscriptions given",
      "tip" => "Tip of 5.00 EUR", "purchase" => "Purchase of 12.50 EUR", "visit" => "Visit with 41 viewers",
      "cause" => "10.00 EUR to a good cause", "paid" => "A paid line, 300 sparks"
    }.freeze
    # What belongs to an event that is fired from the page.
    MORE = {
      "renewal" => {"number" => 12}, "gift" => {"number" => 5}, "visit" => {"number" => 41},
      "tip" => {"minor" => 500, "currency" => "EUR"}, "purchase" => {"minor" => 1250, "currency" => "EUR"},
      "cause" => {"minor" => 1000, "currency" => "EUR"}, "paid" => {"sparks" => 300}
    }.freeze
    # name: how it is called; mark: SVG of its mark; cut: cuts everybody off
    # totals: whether it tells how many follow in all
    Platform = Struct.new(:name, :mark, :cut, :totals, keyword_init: true)

    def initialize(platform, room, talkers, mischief, grants: nil)
      @platform = platform
      @room = room
      @talkers = talkers
      @mischief = mischief
      @grants = grants
    end

    def call(env)
      request = Rack::Request.new(env)
      path = request.path_info
      return static(path) if STATIC.key?(path)
      return picture(path) if path.start_with?("/pictures/")
      return state if path == "/state"
      return html if request.get?

      act(path, request.params)
      [303, {"location" => "/"}, []]
    end

    private

    def act(path, params)
      case path
      when "/say" then say(params)
      when "/event" then fire(params)
      when "/total" then tell_total(params)
      when "/delete" then @room.delete(params["id"].to_s[0, 64])
      when "/silence" then @room.silence(login(params))
      when "/broadcast" then @room.live = params["on"] == "1"
      when "/cut" then @platform.cut.call
      when "/pace" then @talkers.per_minute = params["per_minute"].to_f.clamp(0, 60_000)
      when "/mischief" then @mischief.set(params["what"], params["on"] == "1")
      when "/revoke" then @grants&.revoke_all
      when "/expire" then @grants&.expire_all
      end
    end

    def login(params) = params["login"].to_s[/\A[\w.]{1,60}\z/] || "mudlark7"

    def words(params) = params["text"].to_s.delete("\r\n\0").byteslice(0, 460).scrub("")

    def say(params)
      text = words(params)
      return if text.strip.empty?

      more = {}
      more["action"] = true if params["action"] == "1"
      more["reply"] = params["reply"].to_s[0, 64] unless params["reply"].to_s.empty?
      more["first"] = true if params["first"] == "1"
      @room.say(login(params), text, more)
    end

    def fire(params)
      kind = params["kind"].to_s
      return unless EVENTS.key?(kind)
      return @room.say(login(params), words(params), MORE["paid"]) if kind == "paid"

      @room.event(kind, login(params), words(params), MORE.fetch(kind, {}))
    end

    def totals = @platform.totals ? @room.totals : nil

    def tell_total(params)
      @room.set_total(params["what"], params["number"].to_i.clamp(0, 10**9)) if @platform.totals
    end

    def state
      body = {live: @room.live, number: @room.number, said: @room.said, totals:, lines: @room.lines, mischief: @mischief.now, grants: @grants&.count}
      [200, {"content-type" => "application/json"}, [JSON.generate(body)]]
    end

    def html
      platform = @platform
      room = @room
      talkers = @talkers
      grants = @grants
      [200, {"content-type" => "text/html; charset=utf-8"}, [VIEW.result(binding)]]
    end

    def static(path)
      [200, {"content-type" => STATIC[path]}, [File.read(File.join(__dir__, path.delete_prefix("/")))]]
    end

    def picture(path)
      name = path[%r{\A/pictures/([a-z]+/[a-z0-9_-]+\.(?:svg|webp|gif|png))\z}, 1]
      file = name && File.join(PICTURES, name)
      return [404, {"content-type" => "text/plain"}, ["no such picture"]] unless file && File.exist?(file)

      type = {".svg" => "image/svg+xml", ".webp" => "image/webp", ".gif" => "image/gif", ".png" => "image/png"}.fetch(File.extname(file))
      [200, {"content-type" => type}, [File.binread(file)]]
    end
  end
end
