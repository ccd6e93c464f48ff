# frozen_string_literal: true

# Starts database, simulated platforms and application, prints where they are, and stops all of it on Ctrl-C.
# Called by bin/start.

require "fileutils"
require "json"
require "net/http"
require "pg"
require_relative "../store/database"
require_relative "child"
require_relative "data_folder"
require_relative "least_rights"
require_relative "ports"
require_relative "postgres"
require_relative "standins"

module Bavard
  module Start
    # The whole of it, from nothing to answering.
    class Run
      PROJECT = File.expand_path("../../..", __dir__)
      ANSWER_WITHIN_S = 30
      # An application that ends by itself is started again, unless it does so this often in a row.
      MOST_RESTARTS = 5
      STEADY_S = 60
      LOOK_EVERY_S = 3
      # Many threads, each with memory of its own, would hold several times what is used.
      LEAN = {"MALLOC_ARENA_MAX" => "2"}.freeze

      def initialize(env)
        @env = env
        @port = port(env.fetch("PORT", "4600"))
        @bind = env.fetch("BAVARD_BIND", "127.0.0.1")
        @standins = env["BAVARD_STANDINS"] != "0"
        @stopping = Queue.new
      end

      def run
        %w[INT TERM HUP].each { |signal| trap(signal) { @stopping << signal } }
        @data = DataFolder.new(DataFolder.choose(@env, PROJECT, own_database? && Postgres.user)).take
        check_port
        prepare
        start_children
        announce
        watch
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

      def own_database?
        @env["DATABASE_URL"].to_s.empty? || nil
      end

      def check_port
        return if Ports.free?(@port, host: @bind)

        raise Error, "Port #{@port} is taken by another program. Choose another one:  PORT=#{Ports.free(@port + 1)} bin/start"
      end

      def prepare
        @postgres = Postgres.new(@data) if own_database?
        @url = own_database? ? @postgres.start : @env["DATABASE_URL"]
        @db = Store::Database.open(@url)
        Store::Database.migrate(@db)
        @platforms = Standins.new(@data, @port, @env).place if @standins
        require_relative "../../../demo/load"
        @demo = Demo::Load.new(@db, @data, @platforms).load
      rescue Sequel::DatabaseConnectionError => error
        raise Error, "The database cannot be reached: #{error.message.lines.first.strip}"
      end

      def start_children
        @rights = LeastRights.new(@data, PROJECT).prepare
        warn "Bavard runs as root: #{@rights.instead}." if @rights.instead
        @children = []
        @children.concat(@platforms.children(@rights).each(&:start)) if @standins
        @app = app.start
        @started_at = now
        await_answer
      end

      def app
        Child.new("Bavard", ["ruby", "lib/bavard/serve.rb"], log: @data.path("log", "bavard.log"), rights: @rights,
          env: {"DATABASE_URL" => @url, "PORT" => @port.to_s, "BAVARD_DATA" => @data.root, "BAVARD_BIND" => @bind, **LEAN,
                "BAVARD_PLATFORMS" => @platforms ? @platforms.file : @env["BAVARD_PLATFORMS"].to_s})
      end

      def await_answer
        deadline = now + ANSWER_WITHIN_S
        until answers?
          raise Error, "Bavard ended while starting. It said:\n#{@app.last_words}" if @app.ended
          raise Error, "Bavard did not answer within #{ANSWER_WITHIN_S} s. The log: #{@data.path("log", "bavard.log")}" if now > deadline

          sleep 0.05
        end
      end

      def answers?
        Net::HTTP.get_response(URI("http://#{@bind}:#{@port}/healthz")).is_a?(Net::HTTPOK)
      rescue SystemCallError, EOFError
        false
      end

      def announce
        @db.disconnect
        address = "http://#{@bind}:#{@port}"
        say("Bavard   #{address}")
        say("Sign in  #{@demo.sign_in}")
        say("Begin    #{address}/account/create-account?begin=#{@data.begin_key}") if first_account_wanted?
        # Links are secrets of their shows: only the demo's are told.
        @demo.air_links.each { |name, token| say("Air      #{address}/air/#{token}  (#{name})") }
        @platforms&.places&.each { |name, place| say("#{name.ljust(8)} #{place}") }
        say("Data     #{@data.root}")
        say("Ctrl-C stops all of it.")
        @db.disconnect
      end

      def first_account_wanted? = @env.fetch("BAVARD_ACCOUNTS", "open") != "open" && @db[:accounts].count < 2

      def watch
        @restarts = 0
        while @stopping.empty?
          sleep 0.1
          status = @app.ended
          start_again(status) if status
          look_after_database
        end
        say("\nStopping.")
      end

      def start_again(status)
        @restarts = now - @started_at > STEADY_S ? 0 : @restarts + 1
        raise Error, "Bavard ended #{@restarts} times in a row. It said:\n#{@app.last_words}" if @restarts > MOST_RESTARTS

        warn "Bavard ended (#{status.termsig ? "signal #{status.termsig}" : "status #{status.exitstatus}"}); starting it again."
        @app = app.start
        @started_at = now
      end

      # The application goes on without it meanwhile.
      def look_after_database
        return if @postgres.nil? || now - (@looked_at || 0) < LOOK_EVERY_S

        @looked_at = now
        warn "The database ended; it is started again." if @postgres.revive
      rescue Error => error
        warn error.message
      end

      def stop
        @app&.stop
        @children&.each(&:stop)
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
  Bavard::Start::Run.new(ENV).run
rescue Bavard::Error => error
  warn error.message
  exit 1
end
