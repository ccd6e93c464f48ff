# frozen_string_literal: true

require "rack/mock"
require_relative "../support/plain"
require_relative "../../lib/bavard/web/http/last_resort"

# What is answered when all in front of a page has failed.
class LastResortTest < Minitest::Test
  # Remembers what it is told.
  class Site
    attr_reader :told

    def initialize = @told = []
    def log = self
    def mishaps = self
    def error(words, _error) = @told << words
    def fault(where, words, _error) = @told << [where, words]
    def rejected(where, why) = @told << [where, why]
  end

  def asked(error, **headers)
    @site = Site.new
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

  def test_a_pages_script_is_answered_as_it_expects
    answer = asked(Sequel::DatabaseConnectionError.new("gone"), HTTP_X_REQUESTED_WITH: "XMLHttpRequest")
    assert_equal [503, "application/json", ["error"]], [answer.status, answer.content_type, JSON.parse(answer.body).keys]
    assert_match(/database does not answer/, JSON.parse(answer.body)["error"])
  end
end
