# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/web/http/bare_page"

# What is answered where no station can.
class BarePageTest < Minitest::Test
  BarePage = Bavard::Web::BarePage
  BROWSER = {"REQUEST_METHOD" => "GET", "PATH_INFO" => "/feeds", "HTTP_ACCEPT" => "text/html,application/xhtml+xml,*/*;q=0.8"}.freeze

  def answer(status, words = "The database does not answer just now.\n", **more)
    BarePage.answer(BROWSER.merge(more.transform_keys(&:to_s)), status, words)
  end

  def test_who_opened_a_page_gets_one_that_asks_again_where_that_may_help
    status, headers, (body,) = answer(503)
    assert_equal [503, "text/html; charset=utf-8", "2"], [status, *headers.values_at("content-type", "retry-after")]
    assert_includes body, "<h1>One moment</h1>"
    assert_includes body, "The database does not answer just now.</p>"
    assert_includes body, %(<meta http-equiv="refresh" content="2">)
    _, headers, (body,) = answer(500)
    assert_nil headers["retry-after"]
    assert_includes body, "<h1>That did not work</h1>"
    refute_includes body, "refresh"
  end

  def test_what_was_sent_is_not_sent_again_by_itself
    _, _, (body,) = answer(503, REQUEST_METHOD: "POST")
    assert_includes body, "The database does not answer just now."
    refute_includes body, "refresh"
  end

  def test_on_the_broadcast_picture_nothing_is_said
    [503, 500, 400].product(%w[/air/some-token /air/some-token/behind]).each do |status, path|
      status_too, _, (body,) = answer(status, PATH_INFO: path)
      assert_equal [status, BarePage::EMPTY], [status_too, body]
    end
    assert_match %r{<body></body>}, BarePage::EMPTY
    assert_match(/http-equiv="refresh"/, BarePage::EMPTY)
  end

  def test_programs_are_told_in_text
    [{"HTTP_ACCEPT" => "*/*"}, {"HTTP_ACCEPT" => nil}, {"REQUEST_METHOD" => "PUT"}].each do |more|
      status, headers, body = BarePage.answer(BROWSER.merge(more), 503, "Gone.\n")
      assert_equal [503, "text/plain; charset=utf-8", ["Gone.\n"]], [status, headers["content-type"], body], more
    end
  end

  def test_nothing_in_it_becomes_markup
    _, _, (body,) = answer(500, "<script>alert(1)</script>")
    refute_includes body, "<script>"
    assert_includes body, "&lt;script&gt;"
  end
end
