# frozen_string_literal: true

# The application's process: feeds, running shows, relay and pages.
#   DATABASE_URL=… PORT=4600 BAVARD_DATA=… ruby lib/bavard/serve.rb
# Ends when its standard input closes, on TERM and on INT.

require "json"
require "puma"
require "puma/server"
require "semantic_logger"
require_relative "live/show/means"
require_relative "live/journal/disk"
require_relative "live/pictures/backdrops"
require_relative "fair/turns"
require_relative "just_in_time"
require_relative "lasting"
require_relative "live/pictures/collector"
require_relative "live/pictures/imports"
require_relative "live/pictures/set_imports"
require_relative "live/pictures/takings"
require_relative "live/journal/journal"
require_relative "live/lines/line_ids"
require_relative "live/show/meters"
require_relative "live/pictures/picture_desk"
require_relative "live/journal/pulse"
require_relative "live/rehearsal/rehearsal"
require_relative "live/moderation/replays"
require_relative "live/show/places"
require_relative "live/show/shows"
require_relative "live/stage/now_files"
require_relative "live/journal/sweeper"
require_relative "pauses"
require_relative "pictures/cabinet"
require_relative "pictures/fetcher"
require_relative "pictures/workshop"
require_relative "relay/nchan"
require_relative "settings"
require_relative "start/lean"
require_relative "steady_clock"
require_relative "store/database"
require_relative "store/lease"
require_relative "store/log"
require_relative "store/secret_box"
require_relative "store/spoken_of"
require_relative "store/stores"
require_relative "store/workers"
require_relative "watched"
require_relative "web/app"
require_relative "web/http/in_time"
require_relative "web/http/doorway"

module Bavard
  # Puts the parts together and runs them.
  class Serve
    DEMO = File.expand_path("../../demo", __dir__)
    LOOK_AT_SESSIONS_EVERY_S = 20
    LOOK_AT_CEILINGS_EVERY_S = 30
    # Seconds for the first byte of a request, and for the next one on the same line.
    WAITS = {first_data_timeout: 10, persistent_timeout: 20}.freeze
    # Films, sounds and faces being made, and threads that wait for that.
    MEDIA = {at_once: 2, most_waiting: 4, most_of_one: 2}.freeze
    # More than what asks other servers, makes pictures and films, and writes exports can hold together: pages are answered meanwhile.
    THREADS = 40
    # A page fits into it: whoever does not read it holds nobody up.
    OUTGOING_BYTES = 512 * 1024
    # Between looks at a database that is away, and at threads.
    LOOK_EVERY_S = 1
    # So long shows wait for the log of an earlier process.
    LEFTOVER_WITHIN_S = 20

    # @param settings [Settings]
    def initialize(settings)
      @settings = settings
      @data = settings.data
      $stdout.sync = true
      SemanticLogger.default_level = settings.log_level
      SemanticLogger.add_appender(io: $stdout, formatter: settings.log_format == "json" ? :json : :default)
      @log = SemanticLogger["bavard"]
      @clock = SteadyClock.new
    end

    def run
      many_connections
      JustInTime.only_here
      Start::Lean.only_here
      end_with_whoever_started_us
      listen
      return unless await_database && begin_parts

      look_after
      @doorway.open(Web::App.build(@site))
      @log.info("ready on #{@settings.bind}:#{@settings.port}")
      Thread.new { Store::Stages.schema }
      # This thread's end is that of the process, which is begun anew.
      until @over.within?(LOOK_EVERY_S)
        Lasting.look
        Watched.tell(Watched::GOES_ON)
      end
      stop
    end

    private

    # Whoever looks meanwhile is told what is waited for.
    #
    # @return [Boolean] false where it is over before that
    def await_database
      @lease = Store::Lease.new(@settings.database_url)
      pauses = Pauses.new(longest_s: LOOK_EVERY_S)
      until database_there?
        @log.warn("waiting for the database")
        return false if @over.within?(pauses.next)
      end
      true
    end

    def database_there?
      @db ||= Store::Database.open(@settings.database_url)
      Store::Database.ready?(@db) && @lease.reach?
    rescue Sequel::DatabaseError
      false
    end

    # @return [Object, nil] nil where it is over before that
    def begin_parts
      watch_database
      @hub = hub.start
      @shows = Live::Shows.new(@means = means, lease: @lease, places: places(@means), away: @pulse.method(:away?)).start
      @site = site
      @pulse.start
    rescue Sequel::DatabaseConnectionError
      raise unless @over.within?(0)
    end

    # @return [Relay::Hub, Relay::Nchan]
    def hub
      inside = Relay::Hub.new(clock: @clock, log: @log)
      @settings.relay ? Relay::Nchan.new(inside, @settings.relay, here: @settings.here, clock: @clock, log: @log) : inside
    end

    # @return [Live::Places, nil] where this is one of several
    def places(means)
      workers && Live::Places.new(workers, hub: @hub, ids: means.ids, lines: means.stores.lines)
    end

    # @return [Store::Workers, nil] where this is one of several
    def workers = @workers ||= @settings.worker && Store::Workers.new(@db, @lease, @settings.worker)

    # @return [Live::LineIds] none gives an id that another one of several gives
    def line_ids(stores)
      return Live::LineIds.new(stores.lines.last_id) unless workers

      Live::LineIds.new(stores.lines.last_id, number: workers.enter, among: Store::Workers::MOST)
    end

    # Every line begins anew, so that each is known.
    def watch_database
      ways = [@db, @lease.db].each(&:disconnect)
      @pulse = Live::Pulse.new(*ways, @settings.database_url, log: @log, over: @over)
    end

    # What is done now and then.
    def look_after
      @now_files = Live::NowFiles.new(@data.path("now"), @shows, logger: @log).start
      @sessions = NowAndThen.new("sessions", LOOK_AT_SESSIONS_EVERY_S) { Web::SignIn::Sessions.cut_ended(@site) }.tap(&:start)
      @ceilings = NowAndThen.new("ceilings", LOOK_AT_CEILINGS_EVERY_S) { read_ceilings }.start
      @collector = Live::Collector.new(%w[pictures films sounds faces].map { |name| @data.path(name) }, Store::SpokenOf.new(@db),
        @means.stores.accounts.deeds, logger: @log).start
      @sweeper = Live::Sweeper.new(@means.stores.shows, Store::Log.new(@db), @means.stores.accounts.deeds, clock: @clock, logger: @log).start
    end

    def read_ceilings
      @means.stores.ceilings.refresh
    rescue Sequel::DatabaseError, Sequel::PoolTimeout
      nil # those that were read last go on
    end

    # Each takes a file's number, as far as the system lets us.
    def many_connections
      Process.setrlimit(:NOFILE, Process.getrlimit(:NOFILE).last)
    rescue SystemCallError, ArgumentError
      nil
    end

    def door = @door ||= @settings.way_out

    # @return [Live::Means]
    def means
      stores = Store::Stores.over(@db, Store::SecretBox.new(@data.feeds_key), @settings.ceilings).tap(&:seal)
      @meters = Live::Meters.new
      @journal = journal(stores)
      @disk = Live::Disk.new(@data.method(:free_kb)).start
      Live::Means.new(stores:, journal: @journal, disk: @disk, hub: @hub, ids: line_ids(stores), clock: @clock, log: @log, meters: @meters,
        pictures: @pictures = picture_desk(stores.dress), platforms: @settings.platforms,
        door:, conversations: Core::Voice::Recording.all(File.join(DEMO, "conversations")))
    end

    # What an earlier process could not write any more is written before any show begins.
    def journal(stores)
      deeds = stores.deed_writing(moved: workers&.method(:elsewhere?))
      Live::Journal.new(stores.log_writing, deeds:, log: @log, meters: @meters, folder: @settings.unwritten).start
        .tap { |journal| journal.caught_up?(LEFTOVER_WITHIN_S) }
    end

    def picture_desk(store)
      @cabinet = Pictures::Cabinet.new(@data.path("pictures"))
      @fetcher = Pictures::Fetcher.new(door:)
      Live::PictureDesk.new(fetcher: @fetcher, workshop: Pictures::Workshop.new, cabinet: @cabinet, store:, clock: @clock, log: @log).start
    end

    # @return [Hash{String => Live::Script}] by key, spoken by the demo's viewers
    def scripts
      viewers = JSON.parse(File.read(File.join(DEMO, "viewers.json"))).to_h { |viewer| [viewer["login"], viewer] }
      Live::Script.all(File.join(DEMO, "scripts"), viewers)
    end

    def site
      @imports = Live::Imports.new(@data.path("pictures"), store: @means.stores.dress, clock: @clock, log: @log)
      @set_imports = Live::SetImports.new(@means, @imports, @fetcher, @shows).start
      @takings = Live::Takings.new(@log)
      Web::Site.new(means: @means, imports: @imports, takings: @takings, set_imports: @set_imports, fetcher: @fetcher, scripts:, shows: @shows,
        db: @db, session_secret: @data.key("session"), now_secret: @data.key("now"), begin_key: @data.begin_key,
        cookie: "bavard.#{@settings.first_port}", cabinet: @cabinet, media: Fair::Turns.new(**MEDIA),
        films: @data.path("films"), sounds: @data.path("sounds"), faces: @data.path("faces"), backdrops: Live::Backdrops.new(@pictures, @cabinet),
        **%i[accounts metrics proxies hosts letters address database_url].to_h { |name| [name, @settings.public_send(name)] },
        outflow: @outflow = Web::Outflow.new(log: @log).start, replays: @replays = Live::Replays.new(@settings.database_url, log: @log))
    end

    # Before anything else: a page that is asked for is answered, if only with what is waited for.
    def listen
      @server = Puma::Server.new(@doorway = Web::Doorway.new("the database"), nil,
        {min_threads: 2, max_threads: THREADS, log_writer: Puma::LogWriter.new($stdout, $stderr), environment: "production", **WAITS})
      @server.add_tcp_listener(@settings.bind, @settings.port).setsockopt(Socket::SOL_SOCKET, Socket::SO_SNDBUF, OUTGOING_BYTES)
      @server.run
      @log.info("listening on #{@settings.bind}:#{@settings.port}")
    end

    # Over on TERM and on INT, and when standard input closes.
    def end_with_whoever_started_us
      @over = Over.new
      %w[INT TERM].each { |signal| trap(signal) { @over.tell } }
      Thread.new { @over.tell if $stdin.read } if $stdin.stat.pipe?
    end

    def stop
      @server.stop(true)
      @outflow.stop
      @sweeper.stop
      @sessions.stop
      @ceilings.stop
      @collector.stop
      @now_files.stop
      @set_imports&.stop
      @imports.stop_all
      @takings.stop_all
      @replays.stop_all
      @shows.stop
      @pictures.stop
      @hub.stop
      @journal.stop
      @disk.stop
      @pulse.stop
      @lease.close
    end
  end
end

if $PROGRAM_NAME == __FILE__
  begin
    Bavard::Serve.new(Bavard::Settings.new(ENV)).run
  rescue Bavard::Error => error
    warn error.message
    exit Bavard::Error::SET_UP_WRONG
  end
end
