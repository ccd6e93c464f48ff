# frozen_string_literal: true

require "fileutils"
require "open3"
require_relative "workers"

module Bench
  # Several machines on one: network namespaces with a bridge between them, in each what docs/operating.md says of several machines, word for
  # word the start command. What screens see when the way from one of them to the database is gone, and when one is switched off: nobody is told,
  # nothing comes back. Needs root and ip(8).
  class Machines < Workers
    SHOWS = Integer(ENV.fetch("BENCH_SHARED_SHOWS", "20"))
    MACHINES = 2
    NETWORK = "10.46.0"
    BRIDGE = "bavard0"
    OURS = "#{NETWORK}.1".freeze
    NOBODY = "02:00:00:00:00:99"
    DATABASE = "#{NETWORK}.2".freeze
    PORT = 4600
    FOR_S = 30
    LINES_A_S = 20
    # What is the same folder on every machine.
    SHARED = %w[pictures films sounds faces].freeze

    NAMED = "/run/netns"

    # With whom the others speak over the bridge.
    class Network
      def initialize
        @names = Dir.exist?(NAMED) ? Dir.children(NAMED).grep(/\Abav/) : []
        # What a run that was killed has left.
        stop
        run("ip link add #{BRIDGE} type bridge", "ip addr add #{OURS}/24 dev #{BRIDGE}", "ip link set #{BRIDGE} up")
        @names = []
      end

      # @return [String] name of a namespace at that address
      def machine(name, address)
        @names << name
        run("ip netns add #{name}", "ip link add #{name} type veth peer name eth0 netns #{name}", "ip link set #{name} master #{BRIDGE} up",
          "ip -n #{name} addr add #{address}/24 dev eth0", "ip -n #{name} link set eth0 up", "ip -n #{name} link set lo up")
        name
      end

      # Nothing comes through in either direction, and nobody is told: it is sent to somebody who is not there.
      def part(one, at, other, other_at)
        run("ip -n #{one} neigh replace #{other_at} lladdr #{NOBODY} dev eth0 nud permanent",
          "ip -n #{other} neigh replace #{at} lladdr #{NOBODY} dev eth0 nud permanent")
      end

      def join(one, at, other, other_at)
        run("ip -n #{one} neigh del #{other_at} dev eth0", "ip -n #{other} neigh del #{at} dev eth0")
      end

      def switch_off(name) = run("ip -n #{name} link set eth0 down")
      def switch_on(name) = run("ip -n #{name} link set eth0 up")

      def stop
        [*@names, BRIDGE].each { |name| system("ip", "link", "del", name, err: File::NULL) }
        @names.each { |name| system("ip", "netns", "del", name, err: File::NULL) }
      end

      private

      def run(*commands)
        commands.each do |command|
          said, status = Open3.capture2e(*command.split)
          raise "#{command}: #{said}" unless status.success?
        end
      end
    end

    # A PostgreSQL on a machine of its own.
    class Elsewhere < Bavard::Start::Postgres
      private

      def launch_at(port)
        File.open(File.join(@folder, "pg_hba.conf"), "a") { |file| file.puts("host all all #{NETWORK}.0/24 scram-sha-256") }
        super
      end

      def run(binary, *arguments)
        return super unless arguments.last == "start"

        super(binary, *arguments.map { |one| one.sub("listen_addresses=127.0.0.1", "listen_addresses=*") })
      end

      def as_its_user(...) = ["ip", "netns", "exec", "bavdb", *super]
      def url(role, password, database) = super.sub("127.0.0.1", DATABASE)
    end

    # One with Bavard on it.
    Machine = Struct.new(:name, :host, :folder, :env, :child) do
      def address = "http://#{host}:#{PORT}"
      def port = PORT

      def start
        self.child = Bavard::Start::Child.new(name, ["ip", "netns", "exec", name, "bin/start"], env:, log: "#{folder}.log").start
        self
      end

      def stop
        Process.kill("TERM", -child.pid)
        child.stop
      end
    end

    # @param found [Hash] what {#run} gave
    # @return [Array<Array<String>>] of the table
    def self.rows(found)
      {database_away: "without its way to the database", off: "switched off"}.map do |key, words|
        one = found[key]
        ["one of #{found[:machines]} machines #{words}: longest silence of a screen of its shows, of others; twice in the log",
          "#{one[:silence_s]} s, #{one[:others_silence_s]} s; #{one[:twice_in_log]}", "1 s (beats)", "-", "-"]
      end
    end

    def initialize(shows: SHOWS, machines: MACHINES) = super(shows:, workers: machines, lines_a_s: LINES_A_S, for_s: FOR_S)

    def run
      @network = Network.new
      @started = []
      begin_database
      begin_shows(Channels.new(OURS))
      begin_apps
      share_out
      {shows: @shows, machines: @workers, database_away: beside { part }.tap { join }, off: beside { @network.switch_off(@apps.last.name) }}
    ensure
      @screens&.stop
      @started&.reverse_each(&:stop)
      @server&.stop
      @network&.stop
    end

    private

    def begin_database
      @network.machine("bavdb", DATABASE)
      @postgres = Elsewhere.new(Bavard::Start::DataFolder.new(folder("database")))
      TestDatabase.use_own(@postgres.start)
      @started << @postgres
    end

    # @return [String] a new one, which everybody may get into, as the database's user does
    def folder(name)
      @folder ||= Dir.mktmpdir("bavard-machines").tap { |made| FileUtils.chmod(0o755, made) }
      File.join(@folder, name).tap { |made| FileUtils.mkdir_p(made) }
    end

    # The first makes the keys, and has the files that all share.
    def begin_apps
      @apps = Array.new(@workers) do |nth|
        machine = Machine.new("bavm#{nth}", "#{NETWORK}.#{11 + nth}", folder("machine#{nth}"))
        machine.env = settings_of(machine, nth)
        @network.machine(machine.name, machine.host)
        @first ? share(@first.folder, machine.folder) : @first = machine
        @started << machine.start
        wait_for(-> { "#{machine.name}: #{machine.child.last_words}" }, limit_s: SETTLES_WITHIN_S) { up?(machine) }
        machine
      end
    end

    def settings_of(machine, _nth)
      {"BAVARD_DATA" => machine.folder, "DATABASE_URL" => TestDatabase.url,
       "PORT" => PORT.to_s, "BAVARD_BIND" => machine.host, "BAVARD_WORKERS" => "1",
       "BAVARD_PROXIES" => OURS, "BAVARD_RELAY" => "http://#{OURS}:#{frames}", "BAVARD_METRICS" => "#{NETWORK}.0/24", "BAVARD_INSIDE" => OURS}
    end

    # The keys are copied, the files are the same.
    def share(from, to)
      FileUtils.cp(Dir[File.join(from, "*.key")], to)
      SHARED.each { |name| File.symlink(File.join(from, name), File.join(to, name)) }
    end

    # nginx takes frames where the machines reach it.
    def settings(...) = super.gsub("127.0.0.1:#{frames}", "#{OURS}:#{frames}")

    # What is said while something is away, and until all is shared out again.
    #
    # @yield what goes wrong
    # @return [Hash]
    def beside
      wait_for("each to have its share", limit_s: SETTLES_WITHIN_S) { shared_out? }
      @orphans = tokens_of(@apps.last)
      @screens.begin_anew
      said = spoken_in { |index| yield if index == @lines_a_s * @for_s / 3 }
      {silence_s: @screens.longest_silence_s(@orphans).round(2), others_silence_s: @screens.longest_silence_s(@tokens - @orphans).round(2),
       lost_for_s: lost_for_s(said[:lost]), of_others_lost: said[:others_lost], twice: said[:twice], twice_in_log: twice_in_log}
    ensure
      @orphans = nil
    end

    # And nothing is on its way, or about to be.
    def shared_out?
      settled? && places.values.tally.values.uniq.one? && @server.readers == @shows && @apps.sum { |app| gauge(app, "shows_awake") } == @shows &&
        @apps.sum { |app| gauge(app, "pages_relayed") } == @shows && Bavard::Store::Workers.new(TestDatabase.db).asked_for.empty?
    end

    def twice_in_log
      TestDatabase.db[:lines].where(Sequel.like(:text, "bench-%")).group_and_count(:show_id, :text).having(Sequel.function(:count).* > 1).all.size
    end

    def up?(machine)
      gauge(machine, "shows_begun") == 1
    rescue SystemCallError, EOFError
      false
    end

    def part = @network.part(*between)
    def join = @network.join(*between)
    def between = [@apps.last.name, @apps.last.host, "bavdb", DATABASE]
  end
end
