# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/web/http/stands_back"

# How a request goes on in another process.
class ThereTest < Minitest::Test
  There = Bavard::Web::There
  Shows = Struct.new(:instead)
  Site = Struct.new(:shows)

  def test_it_is_sent_on_by_whoever_stands_in_front
    status, headers, body = There.answer({"bavard.by_proxy" => true}, "10.0.0.6:4600")
    assert_equal [200, {"x-accel-redirect" => "@bavard_worker", "x-bavard-worker" => "10.0.0.6:4600", "x-bavard-hops" => "1"}, []], [status, headers, body]
    status, headers, = There.answer({"bavard.by_proxy" => true, "HTTP_X_BAVARD_HOPS" => "2"}, "b")
    assert_equal [200, "3"], [status, headers["x-bavard-hops"]]
  end

  # Two that each know it to be with the other.
  def test_it_is_not_sent_on_for_ever
    assert_equal [503, [There::MOVING]], There.answer({"bavard.by_proxy" => true, "HTTP_X_BAVARD_HOPS" => "3"}, "b").values_at(0, 2)
  end

  def test_while_it_is_on_its_way_the_broadcast_picture_stays_empty
    env = {"bavard.by_proxy" => true, "HTTP_X_BAVARD_HOPS" => "3", "REQUEST_METHOD" => "GET", "HTTP_ACCEPT" => "text/html"}
    assert_equal [503, [Bavard::Web::BarePage::EMPTY]], There.answer({**env, "PATH_INFO" => "/air/some-token"}, "b").values_at(0, 2)
    assert_includes There.answer({**env, "PATH_INFO" => "/feeds"}, "b")[2].first, There::MOVING.strip
  end

  def test_nobody_who_comes_by_themselves_is_sent_anywhere
    status, headers, = There.answer({"HTTP_X_BAVARD_HOPS" => "0"}, "b")
    assert_equal 503, status
    refute_includes headers.keys, "x-accel-redirect"
  end

  def stands_back(path, instead)
    app = Bavard::Web::StandsBack.new(->(_env) { [204, {}, []] })
    app.call({"PATH_INFO" => path, "bavard.by_proxy" => true, "bavard.site" => Site.new(Shows.new(instead))})
  end

  def test_one_that_is_cut_off_does_nothing_itself
    assert_equal 204, stands_back("/gate/hold", nil).first
    %w[/ /gate/hold /air/abc/live /assetsx].each { |path| assert_equal "b", stands_back(path, "b")[1]["x-bavard-worker"], path }
    %w[/assets/mark.svg /relay/gone].each { |path| assert_equal 204, stands_back(path, "b").first, path }
  end
end
