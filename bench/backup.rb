# frozen_string_literal: true

require "fileutils"
require "securerandom"
require "tmpdir"
require_relative "../lib/bavard/commands/admin"
require_relative "../lib/bavard/start/data_folder"
require_relative "../lib/bavard/start/postgres"
require_relative "../lib/bavard/store/database"
require_relative "../lib/bavard/store/shows"
require_relative "steal"

module Bench
  # An installation of a gigabyte into one file while its database runs, and out of it into an empty place, as bin/admin does it. Films and
  # pictures do not get smaller; lines do. Beside it what packing the files alone takes.
  class Backup
    FILES = Integer(ENV.fetch("BENCH_FILES", "850"))
    FILE_BYTES = 1_000_000
    LINES = Integer(ENV.fetch("BENCH_LINES", "200000"))
    SAID = <<~SQL.freeze
      INSERT INTO lines (id, show_id, feed_id, platform_id, login, display_name, kind, text, arrived_at_ms, shown_at_ms, action, aired)
      SELECT n, ?, ?, 'm' || n, 'viewer' || n % 5000, 'Viewer ' || n % 5000, 'said', md5(n::text) || ' is a wren in the ' || md5((n * 7)::text), n, n, 'pass', true
      FROM generate_series(1, #{LINES}) AS n
    SQL

    # Where files are kept, which memory is not.
    DISK = "/var/tmp"

    # @return [Hash]
    def run
      @one, @two = Array.new(2) { Dir.mktmpdir("bavard-backup", DISK).tap { |made| FileUtils.chmod(0o755, made) } }
      megabytes = fill
      file = File.join(DISK, "bavard-backup-#{Process.pid}.tar.gz")
      (floor_s, write_s, read_s), steal = Steal.around { [floor, admin(@one, "backup", file), admin(@two, "restore", file)] }
      {megabytes:, lines: LINES, restored: lines(@two), file_mb: File.size(file) / 1_000_000, floor_s:, write_s:, read_s:,
       steal_percent: steal.round(1)}
    ensure
      [@one, @two].each { |folder| Bavard::Start::Postgres.new(Bavard::Start::DataFolder.new(folder)).stop }
      FileUtils.rm_rf([@one, @two, file].compact)
    end

    private

    def database(folder)
      db = Bavard::Store::Database.open(Bavard::Start::Postgres.new(Bavard::Start::DataFolder.new(folder)).start)
      yield db
    ensure
      db&.disconnect
    end

    # @return [Integer] megabytes of database and files
    def fill
      FileUtils.mkdir_p(films = File.join(@one, "films"))
      FILES.times { File.binwrite(File.join(films, "#{SecureRandom.hex(16)}.webm"), Random.bytes(FILE_BYTES)) }
      database(@one) do |db|
        Bavard::Store::Database.migrate(db)
        account = db[:accounts].insert(email: "a@reedmere.example", password_hash: "none")
        show = Bavard::Store::Shows.new(db).create(account, name: "One", host_name: "Odalys")
        feed = db[:feeds].insert(show_id: show.id, kind: "irc", name: "One", shape: "circle", colour: "#5fb8d6", address: Sequel.pg_jsonb({}))
        db[SAID, show.id, feed].insert
        (db.get(Sequel.function(:pg_database_size, Sequel.function(:current_database))) + (FILES * FILE_BYTES)) / 1_000_000
      end
    end

    def lines(folder)
      found = nil
      database(folder) { |db| found = db[:lines].count }
      found
    end

    # @return [Float] seconds
    def admin(folder, *words) = timed { Bavard::Commands::Admin.call({"BAVARD_DATA" => folder}, words) }
    def floor = timed { system("tar -c -C #{@one} films | gzip -1 > /dev/null", exception: true) }

    def timed
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began).round(1)
    end
  end
end
