# frozen_string_literal: true

require_relative "../support/processes"

# As whom the application speaks to its database, and what somebody gains who gets it to ask what they want.
class ApplicationRoleTest < Minitest::Test
  Start = Bavard::Start
  PARTS = "SELECT relname, pg_get_userbyid(relowner) FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'S')"

  def setup
    @folder = Dir.mktmpdir
    FileUtils.chmod(0o755, @folder)
    @data = Start::DataFolder.new(File.join(@folder, "data")).lock
    @postgres = Start::Postgres.new(@data, fleeting: true)
    @url = @postgres.start
  end

  def teardown
    @postgres.stop
    FileUtils.rm_rf(@folder)
  end

  def asked(url, *statements)
    connection = PG.connect(url)
    statements.map { |statement| connection.exec(statement).values }.last
  ensure
    connection&.close
  end

  def superusers_url(database) = @url.sub(%r{//[^@]+@}, "//bavard:#{File.read(@data.path("database.password"))}@").sub(%r{/\w+\z}, "/#{database}")

  def test_files_programs_roles_and_what_is_not_its_own
    ["SELECT pg_read_file('/etc/passwd')", "COPY (SELECT 1) TO PROGRAM 'id'", "COPY (SELECT 1) TO '/tmp/x'", "CREATE ROLE more", "ALTER ROLE bavard_app SUPERUSER",
      "ALTER SYSTEM SET fsync = off", "SET ROLE bavard", "SELECT lo_import('/etc/passwd')"].each do |statement|
      assert_raises(PG::InsufficientPrivilege, statement) { asked(@url, statement) }
    end
    assert_equal [["f"]], asked(@url, "SELECT rolsuper FROM pg_roles WHERE rolname = current_user")
    assert_equal 0o600, File.stat(@data.path("application.password")).mode & 0o777
  end

  def test_an_installation_from_before_hands_its_tables_over
    db = Bavard::Store::Database.open(superusers_url("bavard"))
    Bavard::Store::Database.migrate(db)
    db[:accounts].insert(email: "odalys@reedmere.example", password_hash: "x")
    db.disconnect
    asked(superusers_url("postgres"), "ALTER DATABASE bavard OWNER TO bavard")
    FileUtils.rm(@data.path("application.password"))
    assert_includes asked(@url, PARTS), %w[accounts bavard]
    @url = @postgres.start
    assert_equal %w[bavard_app], asked(@url, PARTS).map(&:last).uniq
    again = Bavard::Store::Database.open(@url)
    Bavard::Store::Database.migrate(again)
    assert_equal 2, again[:accounts].insert(email: "teo@reedmere.example", password_hash: "x")
    again.alter_table(:accounts) { add_column :more, String }
    again.disconnect
    kept = File.read(@data.path("application.password"))
    assert_equal @url, @postgres.start
    assert_equal kept, File.read(@data.path("application.password"))
  end
end
