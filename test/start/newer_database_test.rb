# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/test_database"
require_relative "../../lib/bavard/start/data_folder"
require_relative "../../lib/bavard/start/postgres"
require_relative "../../lib/bavard/store/database"

# A database that is newer than the program. Backups and restores are part of an operator's day (test/ops/operators_day_test.rb).
class NewerDatabaseTest < Minitest::Test
  def setup = @one = Dir.mktmpdir("bavard-newer").tap { |made| FileUtils.chmod(0o755, made) }

  def teardown
    Bavard::Start::Postgres.new(Bavard::Start::DataFolder.new(@one)).stop
    FileUtils.rm_rf(@one)
  end

  def test_a_newer_database_is_said_to_be_newer
    data = Bavard::Start::DataFolder.new(@one).lock
    url = Bavard::Start::Postgres.new(data, fleeting: true).start
    db = Bavard::Store::Database.open(url)
    Bavard::Store::Database.migrate(db)
    db[:schema_info].update(version: Bavard::Store::Database.newest + 1)
    error = assert_raises(Bavard::Error) { Bavard::Store::Database.migrate(db) }
    assert_includes error.message, "of a newer Bavard"
  ensure
    db&.disconnect
  end
end
