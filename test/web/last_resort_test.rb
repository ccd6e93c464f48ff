# frozen_string_literal: true

require "rack/mock"
require_relative "../support/plain"
require_relative "../support/test_database"
require_relative "../../lib/bavard/web/http/last_resort"

# What is answered when all in front of a page has failed.
class LastResortTest < Minitest::Test
  # Remembers what it is told.
  class Site
    attr_reader :told

    def initialize = @told = []
    def log = self
    def mishaps = self
    # How much is left.
    attr_accessor :free_kb

    def disk = Bavard::Live::Disk.new(-> { free_kb }).tap(&:look)
    def error(words, _error) = @told << words
    def fault(where, words, _error) = @told << [where, words]
    def rejected(where, why) = @told << [where, why]
  end

  def asked(error, free_kb: nil, **headers)
    @site = Site.new.tap { |site| site.free_kb = free_kb }
    app = Bavard::Web::LastResort.new(->(_env) { raise error })
    Rack::MockRequest.new(app).get("/", {"bavard.site" => @site, **headers.transform_keys(&:to_s)})
  end

  def test_each_kind_is_answered_in_its_words_logged_and_counted
    {Sequel::DatabaseConnectionError.new("gone") => [503, /database does not answer/, ["a page failed"]],
     Sequel::PoolTimeout.new("full") => [503, /database does not answer/, ["a page failed"]],
     ArgumentError.new("invalid byte") => [400, /cannot be read/, [[:web, "ArgumentError"]]],
     RuntimeError.new("secret words") => [500, /went wrong on our side/, [[:web, "a page failed"]]]}.each do |error, (status, words, told)|
      answer = asked(error)
      assert_equal [status, told, "text/plain; charset=utf-8"], [answer.status, @site.told, answer.content_type], error
      assert_match words, answer.body
      refute_includes answer.body, "secret"
    end
  end

  def test_a_browser_gets_a_page_and_the_broadcast_picture_stays_empty
    error = Sequel::DatabaseConnectionError.new("gone")
    page = asked(error, HTTP_ACCEPT: "text/html")
    assert_equal [503, "text/html; charset=utf-8"], [page.status, page.content_type]
    assert_includes page.body, "What is on air goes on"
    assert_equal Bavard::Web::BarePage::EMPTY, asked(error, HTTP_ACCEPT: "text/html", PATH_INFO: "/air/some-token").body
  end

  # Somebody can make room; nobody can mend a database that says no more than that it is away.
  def test_a_disk_without_room_is_told_by_its_name
    {Errno::ENOSPC.new => nil, Sequel::DatabaseConnectionError.new("gone") => 0, disk_full => nil}.each do |error, free_kb|
      answer = asked(error, free_kb:)
      assert_equal [503, "#{Bavard::Live::Disk::FULL}\n"], [answer.status, answer.body], error
    end
    refute_includes asked(Sequel::DatabaseConnectionError.new("gone"), free_kb: Bavard::Live::Disk::FULL_KB).body, "no room"
  end

  # As the database says it.
  def disk_full
    TestDatabase.db.run("DO $$ BEGIN RAISE EXCEPTION USING ERRCODE = 'disk_full'; END $$")
  rescue Sequel::DatabaseError => error
    error
  end

  def test_a_pages_script_is_answered_as_it_expects
    answer = asked(Sequel::DatabaseConnectionError.new("gone"), HTTP_X_REQUESTED_WITH: "XMLHttpRequest")
    assert_equal [503, "application/json", ["error"]], [answer.status, answer.content_type, JSON.parse(answer.body).keys]
    assert_match(/database does not answer/, JSON.parse(answer.body)["error"])
  end
end
