# frozen_string_literal: true

module Bavard
  module Start
    # A process that lives no longer than we do: it ends when its standard input closes, which happens even if we are
    # killed outright.
    class Child
      # What was shown is kept first, however much of it there is.
      STOP_WITHIN_S = 30

      attr_reader :name, :pid

      # @param command [Array<String>]
      # @param log [String] file that takes what it prints
      # @param rights [LeastRights, nil] with which it runs: nil for ours
      def initialize(name, command, env:, log:, rights: nil)
        @name = name
        @command = rights ? rights.command(*command) : command
        @env = rights ? rights.env.merge(env) : env
        @log = log
      end

      def start
        @ended = nil
        reader, @leash = IO.pipe
        @pid = spawn(@env, *@command, in: reader, out: [@log, "a"], err: [@log, "a"], pgroup: true, close_others: true)
        reader.close
        self
      end

      # @return [Process::Status, nil] once it has ended
      def ended
        @ended ||= Process.wait2(pid, Process::WNOHANG)&.last
      end

      def stop
        @leash.close
        deadline = now + STOP_WITHIN_S
        sleep 0.02 until (gone = ended) || now > deadline
        Process.kill("KILL", pid) unless gone
      rescue Errno::ESRCH, IOError
        nil
      end

      # @return [String] the end of what it printed
      def last_words
        File.readlines(@log).last(6).join
      end

      private

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
