# frozen_string_literal: true

require "digest"
require "pg"
require_relative "../../lib/bavard/start/data_folder"
require_relative "../../lib/bavard/start/postgres"
require_relative "../../lib/bavard/store/database"
require_relative "../../tools/suite/memory"

# A PostgreSQL for the tests of this checkout, started when the first test asks for it and stopped at the end. Each process of
# the suite has databases of its own there, made from one that has all tables: one for shows that run in the test's own process
# (:house), one for those that run in an application beside it (:app).
module TestDatabase
  PROJECT = File.expand_path("../..", __dir__)
  TEMPLATE = "bavard_tables"
  # Of another checkout, or of another role, is another server.
  OWNED = "#{PROJECT} #{Bavard::Start::ApplicationRole::NAME}".freeze
  # The server of the process that began the suite, for those it starts.
  SERVER = "BAVARD_TEST_SERVER"

  MOST_RUNS = 8

  module_function

  # One for each run of this checkout that goes on at the time.
  def data
    @data ||= begin
      number = (number || 0) + 1
      name = "bavard-test-#{Process.uid}-#{Digest::SHA256.hexdigest(OWNED)[0, 8]}-#{number}"
      Bavard::Start::DataFolder.new(File.join(Suite::Memory.root, name)).lock
    rescue Bavard::Error
      number < MOST_RUNS ? retry : raise
    end
  end

  # Starts the server and makes the database that others are made from.
  #
  # @return [String] its URL
  def serve
    ENV[SERVER] ||= begin
      @began_by = Process.pid
      @postgres = Bavard::Start::Postgres.new(data, fleeting: true)
      @postgres.start.tap { |url| make_template(url) }
    end
  end

  def stop
    @databases&.each_value(&:disconnect)
    @postgres&.stop if @began_by == Process.pid
  end

  # @param which [Symbol] which database is meant from now on
  def use(which) = @which = which

  def url
    @urls ||= {}
    @urls[@which || :house] ||= begin
      server = serve
      Minitest.after_run { stop }
      make("bavard_#{@which || :house}_#{Process.pid}", server)
    end
  end

  # A server of the test's own, which may do with it what it likes.
  #
  # @param url [String, nil] nil: it is over
  def use_own(url)
    @databases&.delete(:own)&.disconnect
    (@urls ||= {})[:own] = url
    use(url ? :own : :house)
    Bavard::Store::Database.migrate(db) if url
  end

  # @return [Sequel::Database] with the newest tables
  def db
    (@databases ||= {})[@which || :house] ||= Bavard::Store::Database.open(url)
  end

  # Nobody gets in, and who is in is put out.
  #
  # @yield while that is so
  def away
    name = url[%r{/(\w+)\z}, 1]
    admin = Sequel.connect(url.sub(%r{/\w+\z}, "/postgres"))
    db.disconnect
    admin.run("ALTER DATABASE #{name} ALLOW_CONNECTIONS false")
    admin.run("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '#{name}' AND backend_type = 'client backend'")
    yield
  ensure
    admin.run("ALTER DATABASE #{name} ALLOW_CONNECTIONS true")
    admin.disconnect
  end

  # Nothing in it.
  def clean
    db[:accounts].truncate(cascade: true, restart: true)
    db[:pictures].truncate(cascade: true)
    db[:addresses].truncate
    %i[sign_in_failures operator_deeds account_invitations workers].each { |table| db[table].truncate }
  end

  def make_template(server)
    old = sql(server, "SELECT datname FROM pg_database WHERE datname LIKE 'bavard\\_%'")
    old.each { |name| sql(server, "DROP DATABASE #{name} WITH (FORCE)") }
    sql(server, "CREATE DATABASE #{TEMPLATE}")
    made = Bavard::Store::Database.open(at(server, TEMPLATE))
    Bavard::Store::Database.migrate(made)
    made.disconnect
  end

  def make(name, server)
    sql(server, "CREATE DATABASE #{name} TEMPLATE #{TEMPLATE}")
    at(server, name)
  end

  def at(server, name) = server.sub(%r{/\w+\z}, "/#{name}")

  def sql(server, statement)
    connection = PG.connect(at(server, "postgres"))
    connection.exec(statement).values.flatten
  ensure
    connection&.close
  end
  private_class_method :make_template, :make, :at, :sql
end
