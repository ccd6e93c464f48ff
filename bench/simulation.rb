# frozen_string_literal: true

require_relative "machines"
require_relative "../test/support/relays"

module Bench
  # An evening of two thousand hosts, as docs/scaling.md counts on them: one in five is on air with three screens, most are said five lines a
  # minute, one in twenty is in a rush of three hundred, and every second somebody begins. Four machines and two relays over one Redis, each in a
  # network namespace of its own, all of it on the two cores of this machine, with whoever says all that and whoever looks. Then the same evening
  # with more said, until it is too much: what is at its limit then is what is to be bought first.
  class Simulation < Machines
    HOSTS = Integer(ENV.fetch("BENCH_HOSTS", "2000"))
    WORKERS = 4
    RELAYS = 2
    SCREENS = 3
    ON_AIR = 1 / 5r
    # Lines a second of those who are not in a rush, and of those who are.
    CALM = 5 / 60.0
    RUSH = 300 / 60.0
    IN_RUSH = 1 / 20r
    TIMES = [1, 2, 4, 8, 16].freeze
    FOR_S = 40
    # Who begins meanwhile, each second.
    BEGIN_A_S = 0.5
    SEED = 20_261_130
    # Beyond it, or where something is lost, it is too much.
    LATE_MS = 250
    REDIS = "#{NETWORK}.3".freeze
    FIRST_RELAY = 4
    PAGES = 8080
    FRAMES = 4650
    READY_S = 240
    # What takes processor time, by what its command line says.
    PARTS = {bavard: "lib/bavard/serve.rb", nginx: "nginx: worker", redis: "redis-server", postgres: "postgres:", bench: "bench/all.rb"}.freeze

    # Screens by thousands: each by its socket.
    class Crowd
      AGAIN_S = 0.25
      Screen = Struct.new(:token, :host, :socket, :rest, :asked_s, :first_s, :cut, :heard_s, :why)

      attr_reader :screens, :marks

      def initialize
        @screens = []
        @by_socket = {}.compare_by_identity
        @marks = Hash.new { |hash, mark| hash[mark] = {}.compare_by_identity }
        @lock = Mutex.new
        @thread = Thread.new { read }
        @thread.abort_on_exception = true
      end

      # @return [Screen]
      def open(host, token)
        Screen.new(token, host, nil, +"", now_s, nil, 0, now_s).tap { |screen| @lock.synchronize { @screens << join(screen) } }
      end

      def stop
        @thread.kill
        @screens.each { |screen| screen.socket&.close }
      end

      private

      def join(screen)
        screen.socket = TCPSocket.new(screen.host, PAGES)
        screen.socket.write(Screens.hello(screen.token, screen.host))
        screen.rest = +""
        @by_socket[screen.socket] = screen
        screen
      end

      def read
        loop do
          ready, = IO.select(@lock.synchronize { @by_socket.keys }, nil, nil, AGAIN_S)
          ready&.each { |socket| take(@by_socket[socket]) }
          @lock.synchronize { look_after }
        end
      end

      # Who is cut off comes back.
      def look_after
        @screens.each { |screen| join(screen) if screen.socket.nil? && screen.heard_s + AGAIN_S < now_s }
        return if @said_s && now_s - @said_s < Screens::HERE_EVERY_S

        @said_s = now_s
        @screens.each { |screen| screen.socket&.write_nonblock(Screens::HERE) }
      rescue SystemCallError, IO::WaitWritable
        nil
      end

      def take(screen)
        bytes = screen.socket.read_nonblock(262_144)
        return lose(screen, bytes[0, 60]) if bytes.start_with?("\x88".b) || bytes.match?(%r{\AHTTP/1.1 [345]})

        screen.heard_s = now_s
        text = screen.rest + bytes
        screen.first_s ||= now_s if text.include?('"whole"')
        text.scan(Screens::MARK) { |mark| @marks[mark][screen] ||= now_s }
        screen.rest = text[[text.size - Screens::LONGEST + 1, 0].max..]
      rescue IO::WaitReadable
        nil
      rescue IOError, SystemCallError => error
        lose(screen, error.class)
      end

      def lose(screen, why)
        @by_socket.delete(screen.socket)
        screen.socket.close
        screen.socket = nil
        screen.why = why
        screen.cut += 1
        screen.heard_s = now_s
      end

      def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end

    # @return [Array<Array<String>>] of the table
    def self.rows(found)
      found[:evenings].map do |one|
        ["an evening of #{found[:hosts]} hosts, #{found[:screens]} screens, #{one[:lines_a_s]} lines/s: half, 99 in 100, lost; cores",
          "#{one[:half_ms]} ms, #{one[:late_ms]} ms, #{one[:lost]}; #{one[:cores].each_value.sum.round(2)}", "-", "-", "#{one[:steal_percent]} %"]
      end
    end

    def initialize = super(shows: HOSTS, machines: WORKERS)

    def run
      @network = Network.new
      @started = []
      begin_all
      {hosts: HOSTS, on_air: @on_air.size, screens: @crowd.screens.size, machines: WORKERS, relays: RELAYS, begun_in_s: @begun_in_s,
       evenings: evenings}
    ensure
      @crowd&.stop
      @started&.reverse_each(&:stop)
      @server&.stop
      @network&.stop
    end

    private

    def begin_all
      begin_database
      begin_shows(Channels.new(OURS))
      go_to_sleep
      @network.machine("bavredis", REDIS)
      begin_redis
      begin_apps
      begin_relays
      began = now_s
      connect(*@on_air)
      wait_for(-> { "all that are on air to be read: #{@server.readers}" }, limit_s: READY_S) { @server.readers == @on_air.size }
      @begun_in_s = (now_s - began).round(1)
      @crowd = Crowd.new
      @on_air.each { |at| open_screens(at) }
      wait_for(-> { "all screens: #{missing}" }, limit_s: SETTLES_WITHIN_S) { @crowd.screens.all?(&:first_s) }
    end

    def missing
      those = @crowd.screens.reject(&:first_s)
      "#{those.size} of #{@crowd.screens.size} have no picture; #{those.map { |one| [one.host, one.cut, one.why] }.first(12)}"
    end

    # Nobody has anything connected yet.
    def go_to_sleep
      @on_air = (0...(HOSTS * ON_AIR).to_i).to_a
      @asleep = (@on_air.size...HOSTS).to_a
      @show_ids = TestDatabase.db[:shows].order(:id).select_map(:id)
      TestDatabase.db[:feeds].update(wanted: false)
    end

    # And begins the broadcast: nobody is moved in the midst of one.
    def connect(*numbers)
      show_id = @show_ids.values_at(*numbers)
      shows = Bavard::Store::Shows.new(TestDatabase.db)
      show_id.each { |id| shows.keep_cues(id, shows.find(id).cues.merge("began_ms" => 1)) }
      TestDatabase.db[:feeds].where(show_id:).update(wanted: true)
    end

    def begin_redis
      pid = spawn("ip", "netns", "exec", "bavredis", "redis-server", "--bind", REDIS, "--protected-mode", "no", "--save", "", "--appendonly", "no",
        out: File::NULL)
      @started << Struct.new(:pid) { def stop = Process.kill("TERM", pid) && Process.wait(pid) }.new(pid)
      wait_for("Redis") { Nginx.listens?(6379, REDIS) }
    end

    def relay_at(nth) = "#{NETWORK}.#{FIRST_RELAY + (nth % RELAYS)}"

    # Each machine gives its frames to one of the two.
    def settings_of(machine, nth)
      relays = Array.new(RELAYS) { |number| relay_at(number) }
      super.merge("BAVARD_PROXIES" => relays.join(" "), "BAVARD_RELAY" => "http://#{relay_at(nth)}:#{FRAMES}")
    end

    def begin_relays
      RELAYS.times do |nth|
        name = @network.machine("bavrelay#{nth}", relay_at(nth))
        nginx = Nginx.new(relay: true, connections: 16_384, inside: name) { |folder| settings_at(nth, folder) }.start(PAGES, relay_at(nth))
        @started << Struct.new(:nginx) { def stop = nginx.remove }.new(nginx)
      end
      wait_for("the relays", limit_s: SETTLES_WITHIN_S) { @apps.all? { |app| gauge(app, "relay_up") == 1 } }
    end

    # As ops/nginx has it, over Redis.
    def settings_at(nth, folder)
      @frames = FRAMES
      @in_front = PAGES
      over_redis(Workers.instance_method(:settings).bind_call(self, folder, @apps, %w[relay-pages.conf workers.conf]), folder)
        .gsub("127.0.0.1:#{FRAMES}", "#{relay_at(nth)}:#{FRAMES}").gsub("127.0.0.1:#{PAGES}", "#{relay_at(nth)}:#{PAGES}")
    end

    def over_redis(text, folder)
      pages = File.join(folder, "bavard.d", "relay-pages.conf")
      File.write(pages, with_redis(File.read(pages)))
      with_redis(text).gsub("127.0.0.1:6379", "#{REDIS}:6379")
    end

    def with_redis(text) = text.gsub(/^( *)#( *)(?=nchan_redis|upstream|})/, '\1\2')

    def open_screens(at) = Array.new(SCREENS) { |nth| @crowd.open(relay_at(nth), @tokens[at]) }

    # @return [Array<Hash>] each with more said than the one before, up to the first that is too much
    def evenings
      @random = Random.new(SEED)
      TIMES.each_with_object([]) do |times, all|
        all << evening(times)
        break all if all.last[:late_ms].to_f > LATE_MS || all.last[:lost].positive?
      end
    end

    def evening(times)
      @begun = []
      cut_before = @crowd.screens.sum(&:cut)
      before = processor
      sent, steal = Steal.around { say_all(arrivals(times)) }
      sleep 3
      after = processor
      {times:, **figures_of(sent), **woken, cut: @crowd.screens.sum(&:cut) - cut_before, steal_percent: steal.round(1),
       cores: after.to_h { |part, ticks| [part, ((ticks - before[part]) / 100.0 / (FOR_S + 3)).round(2)] }, memory_mb: memory}
    end

    # When a line is said to whom: each host by their own pace, and by chance.
    #
    # @return [Array(Float, Integer)] in their order, in seconds
    def arrivals(times)
      @on_air.flat_map do |at|
        pace = times * (@random.rand < IN_RUSH ? RUSH : CALM)
        all = []
        due = 0.0
        all << [due, at] while (due -= Math.log(1 - @random.rand) / pace) < FOR_S
        all
      end.sort
    end

    # @return [Array(String, Float)] mark and when it was said
    def say_all(arrivals)
      began = now_s
      next_begins = began
      arrivals.filter_map do |due, at|
        if now_s > next_begins
          begin_one
          next_begins += 1 / BEGIN_A_S
        end
        sleep([began + due - now_s, 0].max)
        mark = "bench-#{@mark = (@mark || 1_000_000) + 1}"
        [mark, say(@channels[at], "#{mark} and on we go")]
      end
    end

    # What is said where nobody reads is lost.
    def say(channel, text)
      @server.say(channel, text)
    rescue SystemCallError, IOError
      now_s
    end

    # A host who has slept connects a chat and opens a screen.
    def begin_one
      at = @asleep.shift or return
      connect(at)
      @begun << @crowd.open(relay_at(at), @tokens[at])
    end

    # Each line is to come to all screens of its show.
    def figures_of(sent)
      took = sent.flat_map { |mark, at_s| @crowd.marks.fetch(mark, {}).each_value.map { |came_s| ((came_s - at_s) * 1000).round(1) } }.sort
      {lines_a_s: (sent.size / FOR_S.to_f).round, half_ms: took[took.size / 2], late_ms: took[(took.size * 0.99).ceil - 1], worst_ms: took.last,
       lost: (sent.size * SCREENS) - took.size}
    end

    def woken
      took = @begun.map { |screen| screen.first_s && (screen.first_s - screen.asked_s).round(2) }
      {begun: took.size, not_woken: took.count(nil), woken_half_s: took.compact.sort[took.compact.size / 2], woken_worst_s: took.compact.max}
    end

    # @return [Hash{Symbol => Integer}] ticks by what took them
    def processor = PARTS.transform_values { |words| processes(words).sum { |pid| ticks_of(pid) } }

    def processes(words)
      Dir.children("/proc").grep(/\A\d+\z/).select { |pid| File.read("/proc/#{pid}/cmdline").tr("\0", " ").include?(words) rescue false } # rubocop:disable Style/RescueModifier -- it is gone
    end

    def ticks_of(pid)
      File.read("/proc/#{pid}/stat").rpartition(") ").last.split.values_at(11, 12).sum(&:to_i)
    rescue SystemCallError
      0
    end

    def memory = processes(PARTS[:bavard]).map { |pid| File.read("/proc/#{pid}/status")[/^VmRSS:\s+(\d+)/, 1].to_i / 1024 }
  end
end
