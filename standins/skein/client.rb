# frozen_string_literal: true

require "io/wait"
require "json"
require "websocket/driver"
require_relative "../shared/emotes"
require_relative "../shared/grants"
require_relative "../shared/room"

module Skein
  # One connection to Skein. It says hello, then the client joins a room or resumes where it was; from then on events
  # come with growing numbers, and a beat goes both ways.
  #
  #   ← {"op":"hello","beat_ms":5000}
  #   → {"op":"join","room":"reedmere","token":null}         or {"op":"resume","resume":"…","after":1804}
  #   ← {"op":"joined","room":"reedmere","resume":"…","on_air":true,"seq":1804}
  #   ← {"op":"event","seq":1805,"kind":"line","id":"…","ts":1795499520000,"from":{…},"body":"…","emotes":[[2,6,"http…"]]}
  #   ← {"op":"totals","followers":4180,"subscriptions":212}
  #   → {"op":"who","login":"tern_tower"}    ← {"op":"profile","login":"tern_tower","nick":"Tern Tower","about":"…","followers":8312}
  #   → {"op":"say","nonce":"1","body":"…"}                   ← {"op":"said","nonce":"1","id":"…"}
  class Client
    MOST_RESUMES = 500
    HOSTS = {
      "tern_tower" => {"nick" => "Tern Tower", "about" => "A colony on a platform, twenty-four hours a day", "showed" => "First flight",
                       "followers" => 8312},
      "mudflat_mo" => {"nick" => "Mudflat Mo", "about" => "Counting waders before breakfast", "showed" => "Dunlin, dunlin, dunlin",
                       "followers" => 954}
    }.freeze
    # After these there is another total.
    TOTALLED = %w[totals follow subscription renewal gift].freeze

    class << self
      # Where it is kept who may go on where they were, between two starts; nowhere where nil.
      attr_writer :file

      # @return [Hash{String => Array(String, String)}] room and token, by the word for going on
      def resumes
        @resumes ||= @file && File.exist?(@file) ? JSON.parse(File.read(@file)) : {}
      end

      def remember(key, room, word)
        resumes[key] = [room, word]
        resumes.shift if resumes.size > MOST_RESUMES
        File.write(@file, JSON.generate(resumes)) if @file
      end
    end

    def initialize(env, io, room, grants, mischief, beat_ms:)
      @io = io
      @env = env
      @room = room
      @grants = grants
      @mischief = mischief
      @beat_ms = beat_ms
      @lock = Monitor.new
      @driver = WebSocket::Driver.rack(self)
      @driver.on(:message) { |message| guarded { answer(JSON.parse(message.data)) } }
      @driver.on(:close) { @over = true }
    end

    attr_reader :env

    def url = "ws://#{env["HTTP_HOST"]}/v1/stream"

    def write(bytes)
      @io.write(bytes)
    rescue SystemCallError, IOError
      @over = true
    end

    def run
      @lock.synchronize { @driver.start }
      tell("op" => "hello", "beat_ms" => @beat_ms)
      beaten = now
      until @over
        if @io.wait_readable([beaten + (@beat_ms / 1000.0) - now, 0.01].max)
          bytes = @io.read_nonblock(65_536, exception: false)
          break if bytes.nil?

          @lock.synchronize { @driver.parse(bytes) } if bytes.is_a?(String)
        end
        next if now - beaten < @beat_ms / 1000.0

        beaten = now
        check_permission
        tell("op" => "beat") unless @mischief.on?("stall")
      end
    rescue SystemCallError, IOError
      nil
    ensure
      @io.close
    end

    # 1012: the service restarts (RFC 6455, IANA's registry).
    def cut
      @lock.synchronize { @driver.close("restarting", 1012) }
      @over = true
    end

    def post(post)
      return unless @joined && !@mischief.on?("stall")

      @mischief.dawdle
      check_permission
      send_posts([post]) unless post.kind == "totals"
      tell_totals if TOTALLED.include?(post.kind)
    end

    private

    def answer(said)
      return close("limit reached, slow down", 4429) if @mischief.on?("limit")

      case said["op"]
      when "join" then join(said)
      when "resume" then resume(said)
      when "say" then say(said)
      when "who" then who(said["login"].to_s)
      end
    end

    # Whoever is known here: viewers, and a few who broadcast themselves.
    def who(login)
      viewer = @room.viewers.find { |one| one["login"].casecmp?(login) }
      host = HOSTS[login.downcase]
      return tell("op" => "nobody", "login" => login) unless viewer || host

      tell({"op" => "profile", "login" => login, "nick" => viewer&.fetch("name"), "followers" => login.sum % 900,
            "face" => picture("avatars", StandIns::Emotes.avatar(login))}.merge(host || {}).compact)
    end

    def join(said)
      @word = said["token"]
      @token = @word && @grants.token(@word)
      return close("token not accepted", 4401) if @word && !@token
      return close("no such room", 4404) unless StandIns::Grants::ACCOUNTS.include?(said["room"])

      told_again(said["room"], said["after"])
      tell_totals
    end

    # From a number on, where the room still knows what came after it.
    def told_again(room, after)
      return joined(room, @room.last_seq) unless after.is_a?(Integer) && after + 1 >= @room.first_seq

      joined(room, after, again: true)
      send_posts(@room.after(after, StandIns::Room::REMEMBERED))
    end

    def resume(said)
      known = self.class.resumes[said["resume"]]
      after = said["after"].to_i
      return tell("op" => "cannot_resume") if known.nil? || after + 1 < @room.first_seq

      room, @word = known
      return close("token not accepted", 4401) if @word && !(@token = @grants.token(@word))

      told_again(room, after)
      tell_totals
    end

    # @param again [Boolean] whether what came after that number follows
    def joined(room, seq, again: false)
      key = SecureRandom.urlsafe_base64(12)
      self.class.remember(key, room, @word)
      tell("op" => "joined", "room" => room, "resume" => key, "on_air" => @room.live, "seq" => seq, "again" => again, "as" => @token&.account)
      @joined = true
    end

    # A permission that was taken back ends the connection.
    def check_permission
      close("permission was taken back", 4401) if @word && @grants.token(@word).nil?
    end

    def say(said)
      refuse = if @token.nil? then "Guests only read here."
      elsif !@token.scopes.include?("chat.write") then "This permission is for reading."
      elsif said["body"].to_s.strip.empty? then "There is nothing in it."
      end
      return tell("op" => "refused", "nonce" => said["nonce"], "reason" => refuse) if refuse

      tell("op" => "said", "nonce" => said["nonce"], "id" => @room.say(@token.account, said["body"].to_s[0, 400]).id)
    end

    # How many there are in all, with everything that was told before.
    def tell_totals = tell("op" => "totals", **@room.totals)

    def send_posts(posts)
      @mischief.disturb(posts).each do |post|
        @lock.synchronize { @driver.text("{\"op\": \"event\", oh no \u{1F986}") } if @mischief.on?("garbage")
        tell(event(post))
      end
    end

    def event(post)
      base = {"op" => "event", "seq" => post.seq, "ts" => post.at_ms, "id" => post.id}
      case post.kind
      when "begin", "end" then base.merge("kind" => "air", "on" => post.kind == "begin")
      when "delete" then base.merge("kind" => "gone", "line" => post.text)
      when "silence" then base.merge("kind" => "silenced", "who" => post.login)
      else base.merge(words(post))
      end
    end

    def words(post)
      more = post.more
      {"kind" => post.kind, "from" => from(post.login), "body" => post.text,
       "emotes" => StandIns::Emotes.in_utf16(post.text).map { |at, length, name| [at, length, picture("emotes", name)] },
       "style" => more["action"] ? "action" : nil, "newcomer" => more["first"], "re" => more["reply"]&.then { |id| answered(id) },
       "count" => more["number"], "worth" => worth(more)}.compact
    end

    def from(login)
      viewer = @room.viewer(login)
      badges = viewer["badges"].to_s.split(",")
      {"login" => login, "nick" => viewer["name"], "tint" => viewer["colour"], "face" => picture("avatars", StandIns::Emotes.avatar(login)),
       "badges" => badges, "badge_pictures" => badges.to_h { |badge| [badge, picture("badges", badge[/\A\w+/])] }}
    end

    def answered(id)
      post = @room.after(0, StandIns::Room::REMEMBERED).find { |other| other.id == id }
      [id, post && @room.viewer(post.login)["name"], post&.text]
    end

    def worth(more)
      return [more["minor"], more["currency"]] if more["currency"]

      [more["sparks"], "sparks"] if more["sparks"]
    end

    def picture(kind, name) = "http://#{env["HTTP_HOST"]}/pictures/#{kind}/#{name}.#{StandIns::Emotes.ending(name)}"

    def tell(message) = @lock.synchronize { @driver.text(JSON.generate(message)) }

    def close(reason, code)
      @lock.synchronize { @driver.close(reason, code) }
      @joined = false
    end

    def guarded
      yield
    rescue JSON::ParserError, TypeError, NoMethodError
      close("that is nonsense", 4400)
    end

    def now = ::Process.clock_gettime(::Process::CLOCK_MONOTONIC)
  end
end
