# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/test_database"
require_relative "../../lib/bavard/store/database"

class DatabaseTest < Minitest::Test
  def setup
    @name = "beginning_#{Process.pid}"
    TestDatabase.db.run("CREATE DATABASE #{@name} TEMPLATE template0")
    @url = TestDatabase.url.sub(%r{/[^/?]+(?=\?|\z)}, "/#{@name}")
    @all = Array.new(3) { Bavard::Store::Database.open(@url) }
  end

  def teardown
    @all.each(&:disconnect)
    # Not by force: PostgreSQL's own cleaning may be at work in it, which it ends itself, and whoever owns a database may not.
    TestDatabase.db.run("DROP DATABASE #{@name}")
  end

  def test_several_that_begin_at_once_bring_it_up_to_date_once
    @all.map { |db| Thread.new { Bavard::Store::Database.migrate(db) } }.each(&:join)
    assert(@all.all? { |db| Bavard::Store::Database.ready?(db) })
    assert_equal Bavard::Store::Database.newest, @all.first[:schema_info].get(:version)
  end
end
