# frozen_string_literal: true

require "json"
require "rack"
require "time"
require_relative "../shared/emotes"

module Lantern
  # What Lantern answers: its broadcasts, their messages page by page, and who is asking.
  #
  #   GET  /v1/channels/reedmere/broadcast          the number of the running broadcast
  #   GET  /v1/broadcasts/7741-0392/messages?page=… messages after that page's token, with the next one
  #   POST /v1/broadcasts/7741-0392/messages        writes a line (permission chat.write)
  #   GET  /v1/me                                   whose permission this is
  class Api
    PAGE = 200
    # Without a token: what was said last.
    FIRST = 20
    LIMITED_S = 2
    STALLED_S = 60

    def initialize(room, grants, mischief, every_ms:)
      @room = room
      @grants = grants
      @mischief = mischief
      @every_ms = every_ms
      @cut_until = 0
    end

    # The next second gets no answer at all.
    def cut
      @cut_until = Time.now.to_f + 1.5
    end

    def call(env)
      path = env["PATH_INFO"]
      return unless path.start_with?("/v1/")
      return [-1, {}, []].tap { env["rack.hijack"].call.close } if Time.now.to_f < @cut_until

      @mischief.dawdle
      sleep STALLED_S if @mischief.on?("stall")
      return limited if @mischief.on?("limit")
      return [200, {"content-type" => "application/json"}, ["{\"items\": [<<<"]] if @mischief.on?("garbage")

      route(Rack::Request.new(env), path)
    end

    private

    def route(request, path)
      case path
      when "/v1/me" then me(request)
      when %r{\A/v1/channels/([\w-]+)/broadcast\z} then broadcast(Regexp.last_match(1))
      when %r{\A/v1/broadcasts/([\d-]+)/messages\z} then messages(request, Regexp.last_match(1))
      else json(404, "error" => {"code" => "nothing_here"})
      end
    end

    def me(request)
      token = @grants.token(request.env) or return unauthorized
      json(200, "login" => token.account, "name" => token.account.capitalize, "scopes" => token.scopes)
    end

    def broadcast(channel)
      return json(404, "error" => {"code" => "no_broadcast"}) unless StandIns::Grants::ACCOUNTS.include?(channel) && @room.live

      json(200, "number" => @room.number, "title" => "Dawn ringing at Reedmere", "state" => "live")
    end

    def messages(request, number)
      return unauthorized if request.env["HTTP_AUTHORIZATION"] && @grants.token(request.env).nil?
      return json(404, "error" => {"code" => "no_such_broadcast"}) unless number == @room.number
      return write(request) if request.post?

      page(request.params["page"])
    end

    def page(token)
      from = token ? token[/\Ap(\d+)\z/, 1]&.to_i : [@room.last_seq - FIRST, 0].max
      return json(410, "error" => {"code" => "page_expired"}) if from.nil? || from + 1 < @room.first_seq

      posts = @room.after(from, PAGE)
      json(200, "items" => @mischief.disturb(posts.filter_map { |post| item(post) }), "next_page" => "p#{posts.last&.seq || from}",
        "poll_after_ms" => posts.size == PAGE ? 0 : @every_ms, "totals" => posts.size == PAGE ? nil : @room.totals,
        "broadcast" => {"state" => @room.live ? "live" : "ended", "ended_at" => @room.ended_at_ms && time(@room.ended_at_ms)})
    end

    def write(request)
      token = @grants.token(request.env) or return unauthorized
      return json(403, "error" => {"code" => "not_allowed"}) unless token.scopes.include?("chat.write")

      text = JSON.parse(request.body.read)["text"].to_s.strip[0, 400]
      return json(422, "error" => {"code" => "empty", "message" => "There is nothing in it."}) if text.empty?

      json(201, "id" => @room.say(token.account, text).id)
    rescue JSON::ParserError
      json(400, "error" => {"code" => "nonsense"})
    end

    # @return [Hash, nil]
    def item(post)
      case post.kind
      when "begin", "end" then nil
      when "delete" then {"type" => "deleted", "id" => "x#{post.id}", "at" => time(post.at_ms), "target" => post.text}
      when "silence" then {"type" => "silenced", "id" => "x#{post.id}", "at" => time(post.at_ms), "author" => {"login" => post.login}}
      when "line" then message(post, "message")
      else message(post, post.kind)
      end
    end

    def message(post, type)
      more = post.more
      {"type" => type, "id" => post.id, "at" => time(post.at_ms), "author" => author(post.login), "text" => post.text,
       "emotes" => StandIns::Emotes.in_code_points(post.text).map do |at, length, name|
         {"at" => at, "length" => length, "picture" => picture("emotes", name)}
       end,
       "me" => more["action"], "first" => more["first"], "reply_to" => more["reply"]&.then { |id| answered(id) }, "number" => more["number"],
       "paid" => paid(more)}.compact
    end

    def author(login)
      viewer = @room.viewer(login)
      {"login" => login, "name" => viewer["name"], "colour" => viewer["colour"], "avatar" => picture("avatars", StandIns::Emotes.avatar(login)),
       "badges" => viewer["badges"].to_s.split(",").map { |badge| {"kind" => badge, "picture" => picture("badges", badge[/\A\w+/])} }}
    end

    def answered(id)
      post = @room.after(0, StandIns::Room::REMEMBERED).find { |other| other.id == id }
      {"id" => id, "name" => post && @room.viewer(post.login)["name"], "text" => post&.text}.compact
    end

    def paid(more)
      return {"minor" => more["minor"], "currency" => more["currency"]} if more["currency"]

      {"number" => more["sparks"], "unit" => "sparks"} if more["sparks"]
    end

    def picture(kind, name) = "http://127.0.0.1:#{ENV.fetch("LANTERN_WEB_PORT")}/pictures/#{kind}/#{name}.#{StandIns::Emotes.ending(name)}"
    def time(at_ms) = Time.at(at_ms/1000r).utc.iso8601(3)
    def unauthorized = json(401, "error" => {"code" => "not_permitted"})
    def limited = [429, {"content-type" => "application/json", "retry-after" => LIMITED_S.to_s}, [JSON.generate("error" => {"code" => "slow_down"})]]
    def json(status, body) = [status, {"content-type" => "application/json"}, [JSON.generate(body)]]
  end
end
