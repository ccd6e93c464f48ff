# frozen_string_literal: true

require "digest"
require "pg"
require "tmpdir"
require_relative "../../lib/bavard/start/data_folder"
require_relative "../../lib/bavard/start/postgres"
require_relative "../../lib/bavard/store/database"

# A PostgreSQL for the tests of this checkout, started when the first test asks for it and stopped at the end.
module TestDatabase
  PROJECT = File.expand_path("../..", __dir__)

  module_function

  def data
    @data ||= Bavard::Start::DataFolder.new(
      File.join(Dir.tmpdir, "bavard-test-#{Process.uid}-#{Digest::SHA256.hexdigest(PROJECT)[0, 8]}")
    ).take
  end

  def url
    @url ||= begin
      @postgres = Bavard::Start::Postgres.new(data, fleeting: true)
      Minitest.after_run { stop }
      @postgres.start
    end
  end

  def stop
    @db&.disconnect
    @postgres.stop
  end

  # @return [Sequel::Database] with the newest tables
  def db
    @db ||= Bavard::Store::Database.open(url).tap { |db| Bavard::Store::Database.migrate(db) }
  end

  # Nothing in it.
  def clean
    db[:accounts].truncate(cascade: true, restart: true)
    db[:pictures].truncate(cascade: true)
    db[:addresses].truncate
  end
end
