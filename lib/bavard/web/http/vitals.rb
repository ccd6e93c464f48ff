# frozen_string_literal: true

module Bavard
  module Web
    # How this process is: for the operator's page and for metrics.
    Vitals = Struct.new(:shows, :awake, :pages, :memory_mb, :threads, :files, :most_files, :waiting, :lost, :accounts, keyword_init: true) do
      # @param site [Site]
      # @return [Vitals]
      def self.of(site)
        running = site.shows.running
        new(shows: site.stores.shows.ids.size, awake: running.size, pages: site.hub.pages, memory_mb: memory_mb, threads: Thread.list.size,
          files: open_files, most_files: Process.getrlimit(:NOFILE).first, waiting: site.journal.waiting, lost: site.journal.lost,
          accounts: site.accounts)
      end

      # Of this process, as far as the system tells.
      def self.memory_mb = memory_kb / 1024
      def self.memory_kb = File.read("/proc/self/status")[/^VmRSS:\s+(\d+)/, 1].to_i

      def self.open_files = Dir.children("/proc/self/fd").size
    end
  end
end
