# frozen_string_literal: true

require_relative "full_house"
require_relative "../lib/bavard/store/workers"
require_relative "../test/support/in_front"

module Bench
  # Shows that several processes share, behind nginx with Nchan: what lines take there, and what screens see when one of the processes is killed.
  # What is said while nobody reads is lost on a platform that keeps nothing, as this one: so long is the time in which lines are lost.
  class Workers
    SHOWS = Integer(ENV.fetch("BENCH_SHARED_SHOWS", "60"))
    WORKERS = Integer(ENV.fetch("BENCH_WORKERS", "2"))
    LINES_A_S = Integer(ENV.fetch("BENCH_LINES_A_S", "40"))
    FOR_S = 15
    SETTLES_WITHIN_S = 60

    # Screens that come back when they are cut off, as pages do: when each heard something.
    class Returning
      AGAIN_S = 0.25
      # A line over which nothing comes is given up, as pages do (assets/js/link/socket.js).
      SILENT_S = 6
      # Whatever it is.
      Screen = Struct.new(:token, :socket, :rest, :heard_s, :longest_s, :back_at_s, :joined_s)

      attr_reader :marks

      def initialize(port, tokens)
        @port = port
        @marks = Hash.new { |hash, mark| hash[mark] = [] }
        @screens = tokens.map { |token| Screen.new(token, nil, +"", now_s, 0.0, 0.0) }
        @screens.each { |screen| join(screen) }
        @thread = Thread.new { read }
        @thread.abort_on_exception = true
      end

      # From now on.
      def begin_anew = @screens.each { |screen| screen.longest_s = 0.0 }

      # @return [Float] seconds in which one of those heard nothing
      def longest_silence_s(tokens)
        @screens.select { |screen| tokens.include?(screen.token) }.map { |screen| [screen.longest_s, now_s - screen.heard_s].max }.max
      end

      def stop
        @thread.kill
        @screens.each { |screen| screen.socket&.close }
      end

      private

      def join(screen)
        screen.socket = TCPSocket.new("127.0.0.1", @port)
        screen.socket.write(Screens.hello(screen.token, "127.0.0.1:#{@port}"))
        screen.rest = +""
        screen.joined_s = now_s
      rescue SystemCallError
        lose(screen)
      end

      def join_again(screen) = screen.back_at_s < now_s && join(screen)
      def look_after(screen) = now_s - [screen.joined_s, screen.heard_s].max > SILENT_S && lose(screen)

      def lose(screen)
        screen.socket&.close
        screen.socket = nil
        screen.back_at_s = now_s + AGAIN_S
      end

      def read
        loop do
          say_here
          @screens.each { |screen| screen.socket ? look_after(screen) : join_again(screen) }
          ready, = IO.select(@screens.filter_map(&:socket), nil, nil, AGAIN_S / 5)
          Array(ready).each { |socket| take(@screens.find { |screen| screen.socket == socket }) }
        end
      end

      # As a browser answers pings.
      def say_here
        return if @said_s && now_s - @said_s < Screens::HERE_EVERY_S

        @said_s = now_s
        @screens.each { |screen| screen.socket&.write(Screens::HERE) }
      rescue SystemCallError
        nil
      end

      # A closing frame, or an answer that is no line, ends it as well.
      def take(screen)
        bytes = screen.socket.read_nonblock(262_144)
        return lose(screen) if bytes.start_with?("\x88".b) || bytes.match?(%r{\AHTTP/1.1 [45]})

        note(screen) if bytes.include?('{"')
        text = screen.rest + bytes
        text.scan(Screens::MARK) { |mark| @marks[[screen.token, mark]] << now_s }
        screen.rest = text[[text.size - Screens::LONGEST + 1, 0].max..]
      rescue IOError, SystemCallError
        lose(screen)
      end

      def note(screen)
        screen.longest_s = [screen.longest_s, now_s - screen.heard_s].max
        screen.heard_s = now_s
      end

      def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end

    # A line: at which screen, when it came there, when it was said.
    Came = Struct.new(:token, :at, :said_s) do
      def took_ms = at.first&.then { |first| ((first - said_s) * 1000).round(1) }
    end

    include InFront
    include Wait

    def initialize(shows: SHOWS, workers: WORKERS, lines_a_s: LINES_A_S, for_s: FOR_S)
      @shows = shows
      @workers = workers
      @lines_a_s = lines_a_s
      @for_s = for_s
    end

    def run
      begin_house
      calm, steal = Steal.around { spoken_in { nil } }
      killed = spoken_in { |index| kill_one if index == @lines_a_s * @for_s / 3 }
      {shows: @shows, workers: @workers, lines_a_s: @lines_a_s, half_ms: calm[:half_ms], late_ms: calm[:late_ms], lost: calm[:lost],
       silence_s: @screens.longest_silence_s(@orphans).round(2), others_silence_s: @screens.longest_silence_s(@tokens - @orphans).round(2),
       lost_with_one_killed: killed[:lost], lost_for_s: lost_for_s(killed[:lost]),
       of_others_lost: killed[:others_lost], twice: killed[:twice], steal_percent: steal.round(1)}
    ensure
      @screens&.stop
      @started&.reverse_each(&:stop)
      @server&.stop
    end

    private

    def begin_house
      TestDatabase.clean if TestDatabase.db
      @started = []
      begin_shows(Channels.new)
      begin_apps
      share_out
    end

    def begin_shows(server)
      @server = server
      @channels = Array.new(@shows) { |number| "#shared#{number}" }
      house = FullHouse.new.tap { |one| one.instance_variable_set(:@server, @server) }
      @tokens = @channels.map { |channel| house.send(:seed, channel) }
    end

    def share_out
      begin_in_front(@apps, "relay-pages.conf", "workers.conf")
      wait_for(-> { "each to have its share: #{places.values.tally}" }, limit_s: SETTLES_WITHIN_S) { settled? }
      wait_for("all feeds", limit_s: SETTLES_WITHIN_S) { @server.readers == @shows }
      @screens = Returning.new(in_front, @tokens)
      wait_for("all screens", limit_s: SETTLES_WITHIN_S) { @apps.sum { |app| gauge(app, "pages_relayed") } == @shows }
    end

    def begin_apps
      port = OwnPorts.block_of(@workers)
      folder = Dir.mktmpdir("bavard-workers")
      @apps = Array.new(@workers) do |nth|
        env = {**relay_env, "BAVARD_WORKER" => "127.0.0.1:#{port + nth}", "BAVARD_NTH" => nth.to_s, "BAVARD_FIRST_PORT" => port.to_s}
        RunningApp.new(port: port + nth, folder:, env:).start.tap { |app| @started << app }
      end
    end

    def places = Bavard::Store::Workers.new(TestDatabase.db).places
    def settled? = places.values.tally.then { |shares| shares.size == @workers && shares.values.minmax.then { |least, most| most - least <= 2 } }

    def kill_one
      @orphans = tokens_of(@apps.last)
      @screens.begin_anew
      @apps.last.kill
    end

    # @return [Array<String>] of the stages of its shows
    def tokens_of(app)
      ids = places.select { |_, address| address == app.address.delete_prefix("http://") }.keys
      TestDatabase.db[:shows].order(:id).select_map(:id).zip(@tokens).filter_map { |id, token| token if ids.include?(id) }
    end

    def lost_for_s(lost) = (lost / (@lines_a_s * @orphans.size / @shows.to_f)).round(2)

    # @yieldparam index [Integer] of the line to be said
    def spoken_in
      began = now_s
      sent = Array.new(@lines_a_s * @for_s) do |index|
        yield index
        sleep([began + (index / @lines_a_s.to_f) - now_s, 0].max)
        say(index)
      end
      sleep 2
      figures(sent)
    end

    # @return [Array(String, String, Float)] token, mark, when
    def say(index)
      mark = "bench-#{@mark = (@mark || 1_000_000) + 1}"
      at = index % @shows
      [@tokens[at], mark, @server.say(@channels[at], "#{mark} and on we go")]
    rescue SystemCallError, IOError
      [@tokens[at], mark, now_s]
    end

    def figures(sent)
      came = sent.map { |token, mark, at_s| Came.new(token, @screens.marks.fetch([token, mark], []), at_s) }
      took = came.filter_map(&:took_ms).sort
      lost = came.select { |one| one.at.empty? }
      {half_ms: took[took.size / 2], late_ms: took[(took.size * 0.99).ceil - 1], lost: lost.size, others_lost: lost.count { |one| of_others?(one) },
       # What comes again with the picture that a screen is told when it is back stands there once.
       twice: came.count { |one| of_others?(one) && one.at.size > 1 }}
    end

    def of_others?(one) = @orphans.nil? || !@orphans.include?(one.token)

    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
