# frozen_string_literal: true

# Starts database, simulated platforms and application, prints where they are, and stops all of it on Ctrl-C.
# Called by bin/start.

require "fileutils"
require "json"
require "net/http"
require "pg"
require_relative "../store/database"
require_relative "address"
require_relative "child"
require_relative "data_folder"
require_relative "../just_in_time"
require_relative "../watched"
require_relative "kept"
require_relative "lean"
require_relative "least_rights"
require_relative "ports"
require_relative "postgres"
require_relative "standins"

module Bavard
  module Start
    # The whole of it, from nothing to answering.
    class Run
      PROJECT = File.expand_path("../../..", __dir__)
      # Once it has not answered for so long it is said what it waits for.
      SAY_AFTER_S = 30
      LOOK_EVERY_S = 0.1
      LOOK_AT_DATABASE_EVERY_S = 3
      # What may be otherwise at the next try: no room on the disk, a database that is away or cannot begin.
      PASSING = [Postgres::NotStarted, DataFolder::Full, Sequel::DatabaseError, PG::Error, Errno::ENOSPC, Errno::EDQUOT].freeze
      # On one machine: the ports behind theirs are those of stand-ins.
      MOST_WORKERS = 10
      # Of the data, where there is a demo show: how it is signed in to.
      DEMO = "sign-in.txt"

      USAGE = "bin/start [--demo]"

      # @param env [Hash] as ENV
      # @param words [Array<String>] as typed behind the command
      def initialize(env, words = [])
        raise Error, "It takes nothing but --demo: #{USAGE}" unless (words - %w[--demo]).empty?

        @env = env
        @demo_wanted = words.include?("--demo")
        @port = port(env.fetch("PORT", "4600"))
        @bind = env.fetch("BAVARD_BIND", "127.0.0.1")
        @shared = !env["BAVARD_WORKERS"].to_s.empty?
        @workers = workers(env.fetch("BAVARD_WORKERS", "1"))
        @over = Over.new
      end

      def run
        %w[INT TERM].each { |signal| trap(signal) { @over.tell } }
        trap("HUP") { @anew = true }
        @data = DataFolder.new(DataFolder.choose(@env, PROJECT, own_database? && Postgres.user)).lock
        check_port
        check_whole
        begin_all
        say("\nStopping.")
      ensure
        stop
      end

      private

      def port(text)
        number = Integer(text, 10)
        return number if number.between?(1, 65_535)

        raise ArgumentError
      rescue ArgumentError
        raise Error, "PORT is a number from 1 to 65535, not “#{text}”."
      end

      def workers(text)
        if @shared && Address::ON_THIS_MACHINE.key?(@bind)
          raise Error, "With BAVARD_WORKERS the others reach this one at BAVARD_BIND: name one address of this machine, not #{@bind}."
        end

        number = Integer(text.empty? ? "1" : text, 10)
        return number if number.between?(1, MOST_WORKERS)

        raise ArgumentError
      rescue ArgumentError
        raise Error, "BAVARD_WORKERS is a number from 1 to #{MOST_WORKERS}, not “#{text}”."
      end

      def own_database?
        @env["DATABASE_URL"].to_s.empty? || nil
      end

      def check_port
        taken = (@port...(@port + @workers)).find { |port| !Ports.free?(port, host: @bind) } or return
        raise Error, "Port #{taken} is taken by another program. Choose another one:  PORT=#{Ports.free(taken + 1)} bin/start"
      end

      def check_whole
        return unless File.exist?(@data.path("restoring"))

        raise Error, "A restore into #{@data.root} was cut off. Run it again:  bin/admin restore FILE"
      end

      def begin_all
        patiently { prepare } or return
        start_children
        await_answer or return
        announce
        watch
      end

      # Never gives up: says once what is in the way, and tries again, for as long as it takes.
      #
      # @return [Boolean] false where it is over before that
      def patiently
        pauses = Pauses.new
        begin
          yield
          @waiting&.stop
          true
        rescue *PASSING => error
          tell_once("#{in_words(error)}\nTrying again until it is otherwise.")
          let_wait
          retry unless @over.within?(pauses.next)
          false
        end
      end

      def in_words(error)
        case error
        when Bavard::Error then error.message
        when SystemCallError then "There is no room on the disk that holds #{@data.root}."
        else Store::Database.unreachable(error)
        end
      end

      def tell_once(words)
        warn words unless words == @told
        @told = words
      end

      # Who looks at a page meanwhile is told what is waited for, as far as there is room for that.
      def let_wait
        return if @waiting

        env = {"PORT" => @port.to_s, "BAVARD_BIND" => @bind, "BAVARD_WAITS_FOR" => "the database"}
        rights = LeastRights.new(@data, PROJECT).prepare
        @waiting = Child.new("The waiting room", ["ruby", "lib/bavard/web/http/waiting.rb"], log: File::NULL, rights:, env:).start
      rescue SystemCallError
        nil
      end

      def prepare
        @data.check_room
        @postgres ||= Postgres.new(@data) if own_database?
        @url = own_database? ? @postgres.start : @env["DATABASE_URL"]
        @db&.disconnect
        @db = Store::Database.open(@url)
        Store::Database.migrate(@db)
        begin_demo if @demo_wanted || File.exist?(@data.path(DEMO))
      end

      # A folder that has it once has it from then on.
      def begin_demo
        @platforms = Standins.new(@data, @port, @env).place unless @env["BAVARD_STANDINS"] == "0"
        require_relative "../../../demo/load"
        @demo = Demo::Load.new(@db, @data, @platforms).load
      end

      def start_children
        rights = LeastRights.new(@data, PROJECT).prepare
        warn "Bavard runs as root: #{rights.instead}." if rights.instead
        platforms = Array(@platforms&.children(rights))
        @kept = [*platforms, *Array.new(@workers) { |nth| app(rights, nth) }].map { |part| Kept.new(part, say: method(:warn)).start }
        @apps = @kept.drop(platforms.size)
      end

      # @param nth [Integer] of several that share the shows, from 0
      def app(rights, nth)
        port = @port + nth
        Child.new(nth.zero? ? "Bavard" : "Bavard's worker #{nth + 1}", ["ruby", "lib/bavard/serve.rb"], log:, rights:,
          env: {"DATABASE_URL" => @url, "PORT" => port.to_s, "BAVARD_DATA" => @data.root, "BAVARD_BIND" => @bind,
                **Lean.env(@env), **JustInTime.on(@env),
                **(@shared ? {"BAVARD_WORKER" => "#{host}:#{port}", "BAVARD_NTH" => nth.to_s, "BAVARD_FIRST_PORT" => @port.to_s} : {}),
                "BAVARD_PLATFORMS" => [@platforms&.file, @env["BAVARD_PLATFORMS"]].compact.reject(&:empty?).join(File::PATH_SEPARATOR)})
      end

      # @return [Boolean] false where it is over before that
      # @raise [Bavard::Error] where a setting cannot be read: that will not be otherwise by itself
      def await_answer
        began_at = now
        until (answer = healthz) == "ok"
          status = @kept.map(&:look).last(@workers).compact.first
          raise Error, "Bavard ended while starting. It said:\n#{last_words}" if status&.exitstatus == Error::SET_UP_WRONG

          tell_once("Bavard does not answer yet#{answer && ": it waits for #{answer}"}. Its log is #{log}") if status || now - began_at > SAY_AFTER_S
          return false if @over.within?(LOOK_EVERY_S)
        end
        true
      end

      # @return [String, nil] "ok", what it waits for, or nothing where nobody answers
      def healthz
        answer = Net::HTTP.get_response(URI("#{address}/healthz"))
        return "ok" if answer.is_a?(Net::HTTPOK)

        JSON.parse(answer.body)["waits_for"]
      rescue SystemCallError, EOFError, JSON::ParserError, Timeout::Error
        nil
      end

      def host = Address.host(@bind)
      def address = "http://#{host}:#{@port}"
      def log = @data.path("log", "bavard.log")
      def last_words = File.readlines(log).last(6).join

      # For whoever is to open it in a browser, which may be elsewhere.
      def named = Address.of(@env)

      def announce
        @db.disconnect
        say("Bavard   #{named}")
        say("         From other computers: this machine's name or address, with :#{@port}") if Address.anywhere?(@env)
        say("Sign in  #{@demo ? @demo.sign_in : "with your own account"}") unless @db[:accounts].empty?
        say("Begin    #{named}/account/create-account?begin=#{@data.begin_key}") if first_account_wanted?
        # Links are secrets of their shows: only the demo's are told.
        @demo&.air_links&.each { |name, token| say("Air      #{named}/air/#{token}  (#{name})") }
        @platforms&.places&.each { |name, place| say("#{name.ljust(8)} #{place}") }
        say("Data     #{@data.root}")
        say("Ctrl-C stops all of it.")
        Watched.tell(Watched::READY)
        @db.disconnect
      end

      # Whoever makes it runs the installation.
      def first_account_wanted? = @db[:accounts].count < 2 && @db[:accounts].where(operator: true).empty?

      def watch
        @keeper = Thread.new { look_after_database } if @postgres
        until @over.within?(LOOK_EVERY_S)
          begin_anew if @anew
          @kept.each(&:look)
        end
      end

      # What the operator lists in files is read again; screens keep their picture meanwhile.
      def begin_anew
        @anew = false
        say("Beginning anew.")
        @apps.each(&:anew)
      end

      # The application goes on without it meanwhile. In a thread of its own: it may take as long as it wants to.
      def look_after_database
        pauses = Pauses.new(longest_s: LOOK_AT_DATABASE_EVERY_S)
        loop do
          sleep pauses.next
          warn "The database ended; it is started again." if @postgres.revive
          @told = nil
        rescue *PASSING => error
          tell_once("#{in_words(error)}\nTrying again until it is otherwise.")
        end
      end

      def stop
        Watched.tell(Watched::STOPPING)
        @keeper&.kill&.join
        @waiting&.stop
        @kept&.reverse_each(&:stop)
        @db&.disconnect
        @postgres&.stop
      end

      def say(text)
        puts text
        $stdout.flush
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end

begin
  Bavard::Start::Run.new(ENV, ARGV).run
rescue Bavard::Error => error
  warn error.message
  exit 1
end
