# frozen_string_literal: true

require "json"
require "securerandom"
require_relative "../../aside"
require_relative "../../just_in_time"
require_relative "../../fair/turns"

module Bavard
  module Live
    # Edited rules being run over the log, each in a niced process of its own: followed, and stopped. Two at once, shows in turn.
    class Replays
      SCRIPT = File.expand_path("../../commands/replay.rb", __dir__)
      AT_ONCE = 2
      # Of one show: more than anybody begins while one is asked about.
      KEPT = 20
      # state:: :running, :done, :stopped or :failed
      Run = Struct.new(:id, :show_id, :state, :done, :total, :result, :pid) do
        def report = {id:, state:, done:, total:, result:}
      end

      def initialize(database_url, log:)
        @database_url = database_url
        @log = log
        @lock = Mutex.new
        @turns = Fair::Turns.new(at_once: AT_ONCE)
        @runs = {}
        # By show, the one that waits for its turn, with its order.
        @next = {}
      end

      # A show has one at a time: another takes its place.
      #
      # @param order [Hash] as commands/replay.rb takes it
      # @return [Run]
      def begin(show_id, order)
        run = Run.new(SecureRandom.alphanumeric(12), show_id, :running, 0, nil, nil, nil)
        waits = nil
        before = @lock.synchronize do
          waits = @next.key?(show_id)
          @next[show_id] = [run, order]
          @runs[run.id] = run
          @runs.values.select { |other| other.show_id == show_id && other != run }
        end
        before.select { |other| other.state == :running }.each { |other| stop(other) }
        @lock.synchronize { before.first([before.size - KEPT + 1, 0].max).each { |other| @runs.delete(other.id) } }
        wait_for_turn(show_id) unless waits
        run
      end

      # @return [Run, nil]
      def find(show_id, id) = @lock.synchronize { @runs[id] }&.then { |run| run if run.show_id == show_id }

      def stop(run)
        run.state = :stopped if run.state == :running
        Process.kill("KILL", -run.pid) if run.pid
      rescue Errno::ESRCH
        nil
      end

      def stop_all = @lock.synchronize { @runs.values }.each { |run| stop(run) if run.state == :running }

      private

      # Whatever is the show's newest by then.
      def wait_for_turn(show_id)
        Thread.new do
          @turns.take(show_id, patient: true) { follow(*@lock.synchronize { @next.delete(show_id) }) }
        end.name = "replay"
      end

      def follow(run, order)
        return if run.state == :stopped

        IO.popen({"DATABASE_URL" => @database_url, **JustInTime.on}, Aside.command("ruby", SCRIPT), "r+", err: File::NULL, pgroup: true) do |process|
          run.pid = process.pid
          # It may have been stopped while its process was being begun.
          stop(run) if run.state == :stopped
          process.puts(JSON.generate(order.merge("alone" => alone?(run))))
          process.each_line { |line| hear(run, JSON.parse(line)) }
        end
        run.state = run.result ? :done : :failed if run.state == :running
      rescue StandardError => error
        # What is written to a process that was stopped comes back as an error.
        failed(run, error) unless run.state == :stopped
      ensure
        run.pid = nil
      end

      def failed(run, error)
        @log.error("a replay failed", error)
        run.state = :failed
      end

      # @return [Boolean] whether no other show's is on its way, so that a processor is free
      def alone?(run) = @lock.synchronize { @runs.each_value.none? { |other| other != run && other.pid } }

      def hear(run, told)
        run.total = told["total"]
        run.done = told["done"]
        run.result = told["result"]
      end
    end
  end
end
