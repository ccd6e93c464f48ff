# frozen_string_literal: true

require "argon2"
require "json"
require "net/http"
require "tmpdir"
require "vips"
require_relative "../test/support/drawings"
require_relative "scene"
require_relative "share"
require_relative "steal"

module Bench
  # A pack of 900 stills and 100 animations of 30 frames at 112 px, dropped on a shelf, while somebody goes on reading
  # pages. Beside it the floor: the same pages with nothing going on.
  class Pack
    STILLS = 900
    MOVING = 100
    FRAMES = 30
    SIDE_PX = 112
    EMAIL = "bench@reedmere.example"
    PASSWORD = "reeds-and-water-42"
    EVERY_S = 0.05
    PAGES = %w[/feeds /dress /stage].freeze
    FINE = %w[200 302].freeze

    def run
      @scene = Scene.new
      TestDatabase.db[:accounts].update(email: EMAIL, password_hash: Argon2::Password.create(PASSWORD, t_cost: 1, m_cost: 8))
      sign_in
      pack = make
      floor = asked_for(4) { false }
      (took_s, answered, report), steal = Steal.around { import(pack) }
      {took_s: took_s.round(1), pages: answered.size, pages_p99_ms: Share.at(answered, 0.99), pages_most_ms: answered.last.round(1),
       floor_p99_ms: Share.at(floor, 0.99), taken: report["taken"], refused: report["refused"].size,
       megabytes: (File.size(pack) / 1024.0 / 1024).round(1), steal_percent: steal.round(1)}
    ensure
      @scene&.stop
    end

    private

    # Noise in them, so that no two are alike and none compresses to nothing.
    def make
      files = (0...STILLS).to_h { |number| ["s#{number}.png", drawing(number).pngsave_buffer] }
      MOVING.times { |number| files["m#{number}.webp"] = film(number).webpsave_buffer(effort: 0) }
      Drawings.zip(files)
    end

    def drawing(number)
      noise = Vips::Image.gaussnoise(SIDE_PX, SIDE_PX, sigma: 18, mean: 0, seed: number)
      plain = Vips::Image.black(SIDE_PX, SIDE_PX, bands: 4) + [(number * 7) % 200, (number * 13) % 200, 120, 255]
      (plain + (noise * [1, 1, 1, 0])).cast(:uchar).copy(interpretation: :srgb)
    end

    def film(number)
      frames = (0...FRAMES).map { |frame| drawing((number * FRAMES) + frame) }
      Vips::Image.arrayjoin(frames, across: 1).mutate do |image|
        image.set_type!(GObject::GINT_TYPE, "page-height", SIDE_PX)
        image.set_type!(Vips::ARRAY_INT_TYPE, "delay", [50] * FRAMES)
      end
    end

    def import(pack)
      from = now
      id = upload(pack)
      report = nil
      answered = asked_for(600) do
        report = get("/dress/imports/#{id}").then { |answer| JSON.parse(answer.body) }
        report["state"] != "running"
      end
      raise "the import ended #{report["state"]}: #{report["words"]}" unless report["state"] == "done"

      [now - from, answered, report]
    end

    # Pages read one after another until the block says so; how long each took.
    def asked_for(seconds)
      took = []
      from = now
      until now - from > seconds
        PAGES.each do |path|
          began = now
          answer = get(path)
          raise "#{path} answered #{answer.code}" unless FINE.include?(answer.code)

          took << ((now - began) * 1000)
          sleep EVERY_S
        end
        break if yield
      end
      took.sort
    end

    def sign_in
      @cookie = nil
      token = get("/account/login").body[/name="_csrf" value="([^"]+)"/, 1]
      form = URI.encode_www_form("_csrf" => token, "login" => EMAIL, "password" => PASSWORD)
      answer = http { |client| client.post("/account/login", form, {"cookie" => @cookie}) }
      raise "signing in answered #{answer.code}" unless answer.code == "302"

      keep_cookie(answer)
      @csrf = get("/feeds").body[/name="csrf" content="([^"]+)"/, 1]
    end

    def upload(pack)
      request = Net::HTTP::Post.new("/dress/shelves/upload", {"cookie" => @cookie, "x-csrf-token" => @csrf, "x-requested-with" => "XMLHttpRequest"})
      request.set_form([["files[]", File.open(pack, "rb"), {filename: "pack.zip"}]], "multipart/form-data")
      JSON.parse(http { |client| client.request(request) }.body).fetch("import")
    end

    def get(path)
      http { |client| client.get(path, {"cookie" => @cookie.to_s, "x-requested-with" => "XMLHttpRequest"}) }.tap { |answer| keep_cookie(answer) }
    end

    def keep_cookie(answer)
      set = answer["set-cookie"] and @cookie = set[/\A[^;]+/]
    end

    def http(&block) = Net::HTTP.start("127.0.0.1", @scene.app.port, &block)
    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
