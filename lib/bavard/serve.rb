# frozen_string_literal: true

# The application's process: feeds, running shows, relay and pages.
#   DATABASE_URL=… PORT=4600 BAVARD_DATA=… ruby lib/bavard/serve.rb
# Ends when its standard input closes, on TERM and on INT.

require "json"
require "puma"
require "puma/server"
require "securerandom"
require "semantic_logger"
require_relative "live/house"
require_relative "live/journal"
require_relative "live/line_ids"
require_relative "live/meters"
require_relative "live/rehearsal"
require_relative "live/shows"
require_relative "relay/hub"
require_relative "start/data_folder"
require_relative "store/database"
require_relative "store/feeds"
require_relative "store/lease"
require_relative "store/lines"
require_relative "store/secret_box"
require_relative "store/shows"
require_relative "store/stages"
require_relative "web/app"

module Bavard
  # Puts the parts together and runs them.
  class Serve
    DEMO = File.expand_path("../../demo", __dir__)
    CLOCK = -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) }

    # @param env [Hash] as ENV
    def initialize(env)
      @env = env
      @port = Integer(env.fetch("PORT", "4600"))
      @bind = env.fetch("BAVARD_BIND", "127.0.0.1")
      @data = Start::DataFolder.new(env.fetch("BAVARD_DATA"))
      @db = Store::Database.open(env.fetch("DATABASE_URL"))
      $stdout.sync = true
      SemanticLogger.default_level = env.fetch("BAVARD_LOG", "info").to_sym
      SemanticLogger.add_appender(io: $stdout, formatter: :default)
      @log = SemanticLogger["bavard"]
    end

    def run
      lines = Store::Lines.new(@db)
      @hub = Relay::Hub.new(clock: CLOCK, log: @log).start
      @journal = Live::Journal.new(lines, log: @log).start
      @lease = Store::Lease.new(@env.fetch("DATABASE_URL"))
      @shows = Live::Shows.new(house(lines), lease: @lease).start
      serve
      Thread.new { Store::Stages.schema }
      wait
      stop
    end

    private

    def house(lines)
      @house = Live::House.new(
        shows: Store::Shows.new(@db), feeds: Store::Feeds.new(@db, Store::SecretBox.new(@data.key("feeds")[0, 32])),
        stages: Store::Stages.new(@db), lines:, hub: @hub, journal: @journal, ids: Live::LineIds.new(lines.last_id),
        clock: CLOCK, log: @log, meters: Live::Meters.new, boot: SecureRandom.alphanumeric(8), people:,
        scripts: Live::Rehearsal.scripts(File.join(DEMO, "scripts"))
      )
    end

    def people
      JSON.parse(File.read(File.join(DEMO, "viewers.json"))).to_h { |viewer| [viewer["login"], viewer] }
    end

    def serve
      site = Web::Site.new(house: @house, shows: @shows, db: @db, session_secret: @data.key("session"), cookie: "bavard.#{@port}",
        mail_folder: @data.path("mail"), address: @env.fetch("BAVARD_ADDRESS", "http://#{@bind}:#{@port}"))
      @server = Puma::Server.new(Web::App.build(site), nil,
        {min_threads: 2, max_threads: 8, log_writer: Puma::LogWriter.new($stdout, $stderr), environment: "production"})
      @server.add_tcp_listener(@bind, @port)
      @server.run
      @log.info("listening on #{@bind}:#{@port}")
    end

    def wait
      over = Queue.new
      %w[INT TERM].each { |signal| trap(signal) { over << signal } }
      Thread.new { over << $stdin.read } if $stdin.stat.pipe?
      over.pop
    end

    def stop
      @server.stop(true)
      @shows.stop
      @hub.stop
      @journal.stop
      @lease.close
    end
  end
end

Bavard::Serve.new(ENV).run if $PROGRAM_NAME == __FILE__
