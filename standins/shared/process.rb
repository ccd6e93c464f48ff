# frozen_string_literal: true

require "json"
require "puma"
require "puma/events"
require "puma/server"
require_relative "grants"
require_relative "mischief"
require_relative "page"
require_relative "room"
require_relative "talkers"

module StandIns
  # What every stand-in is made of, and how it lives: it serves on loopback, says "ready", and ends with whoever
  # started it.
  class Process
    DEMO = File.expand_path("../../demo", __dir__)

    attr_reader :name, :mischief, :viewers, :chatter

    # @param name [String] also the beginning of its environment variables: LANTERN_WEB_PORT, LANTERN_PACE, LANTERN_FILE
    def initialize(name, mark)
      @name = name
      @mark = mark
      @mischief = Mischief.new
      @viewers = JSON.parse(File.read(File.join(DEMO, "viewers.json")))
      @chatter = JSON.parse(File.read(File.join(DEMO, "chatter.json")))
    end

    def setting(what, default = nil) = ENV.fetch("#{name.upcase}_#{what}", default)

    def grants
      @grants ||= Grants.new(name, file: setting("FILE")&.then { |file| "#{file}.grants" })
    end

    # @param cut [Proc] cuts everybody off
    # @param api [#call, nil] answers a request that is for the platform itself, or gives nil
    # @param granting [Boolean] whether it gives permissions
    # @param pace [String] lines a minute, where no other is set
    # @param totals [Boolean] whether it tells how many follow in all
    def serve(room, cut:, api: nil, granting: true, pace: "14", totals: false)
      # Viewers of different platforms do not say the same at the same time.
      talkers = Talkers.new(room, chatter.rotate(name.sum), per_minute: setting("PACE", pace).to_f)
      page = Page.new(Page::Platform.new(name:, mark: @mark, cut:, totals:), room, talkers, mischief, grants: granting ? grants : nil)
      app = ->(env) { api&.call(env) || (granting && grants.call(env)) || page.call(env) }
      web = Puma::Server.new(app, nil, {min_threads: 2, max_threads: 16, log_writer: Puma::LogWriter.null})
      web.add_tcp_listener("127.0.0.1", Integer(setting("WEB_PORT")))
      web.run
      talkers.start
      ready
    end

    private

    def ready
      %w[INT TERM].each { |signal| trap(signal) { exit! } }
      Thread.new { $stdin.read && exit! } if $stdin.stat.pipe?
      puts "ready"
      $stdout.flush
    end
  end
end
