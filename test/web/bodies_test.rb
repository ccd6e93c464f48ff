# frozen_string_literal: true

require "minitest/autorun"
require "puma"
require "puma/server"
require "socket"
require_relative "../../lib/bavard/web/http/in_time"

# How much a request may bring, and how long it may take.
class BodiesTest < Minitest::Test
  Bodies = Bavard::Web::Bodies

  def test_every_place_has_its_bound
    {"/account/login" => Bodies::USUAL_BYTES, "/stage/3/edits" => Bodies::EDITS_BYTES, "/stage/3/files" => Bodies::BROUGHT_BYTES,
     "/stage/3/copy-in/tell" => Bavard::Copies::Reading::LARGEST_BYTES + Bodies::FORM_BYTES, "/gate/keep" => Bodies::RULES_BYTES,
     "/stage/3/pieces/now_line1/live" => (200 * 1024) + Bodies::FORM_BYTES, "/dress/shelves/upload" => 256 * 1024 * 1024,
     "/dress/shelves/uploads" => Bodies::USUAL_BYTES, "/x/dress/files/bring" => Bodies::USUAL_BYTES, "" => Bodies::USUAL_BYTES, nil => Bodies::USUAL_BYTES,
     "/dress/cast/teo/pictures/face" => Bodies::PICTURES_BYTES, "/dress/fellows/12/clips" => Bodies::BROUGHT_BYTES, "\xff/gate/" => Bodies::USUAL_BYTES}.each do |path, bytes|
      assert_equal bytes, Bodies.most(path), path.inspect
    end
  end

  def test_pages_are_told_in_patterns_their_scripts_read
    Bodies.limits.each { |place, bytes| assert place.start_with?("^/") && !place.match?(/\\[Az]/) && bytes.positive?, place }
  end

  # A client of Puma's over a pair of sockets, at a time of our own.
  def client
    ours, theirs = UNIXSocket.pair
    made = Puma::Client.new(theirs, {})
    made.supported_http_methods = :any
    now = 100.0
    made.define_singleton_method(:now) { now }
    yield made, ours, ->(seconds) { now += seconds }
  ensure
    [ours, theirs].each(&:close)
  end

  def test_a_head_that_dribbles_is_waited_for_all_together
    client do |made, ours, pass|
      ours.write("GET / HTTP/1.1\r\nX: ")
      refute made.try_to_finish
      9.times do
        ours.write("y")
        pass.call(1)
        refute made.try_to_finish
      end
      pass.call(2)
      assert_raises(Puma::ConnectionError) { made.try_to_finish }
    end
  end

  def test_a_body_has_the_time_that_its_bound_takes
    client do |made, ours, pass|
      ours.write("POST /account/login HTTP/1.1\r\nContent-Length: 1000\r\n\r\n")
      refute made.try_to_finish
      pass.call(13)
      refute made.try_to_finish
      pass.call(2)
      assert_raises(Puma::ConnectionError) { made.try_to_finish }
    end
  end

  def test_the_next_request_on_the_line_has_a_time_of_its_own
    client do |made, ours, pass|
      ours.write("GET / HTTP/1.1\r\n\r\n")
      assert made.try_to_finish
      pass.call(60)
      made.reset
      ours.write("GET / HTTP/1.1\r\n\r\n")
      assert made.try_to_finish
    end
  end

  def test_more_than_its_place_allows
    client do |made, ours, _pass|
      ours.write("POST /account/login HTTP/1.1\r\nContent-Length: 65537\r\n\r\n")
      assert_raises(Puma::HttpParserError) { made.try_to_finish }
      assert_equal 413, made.error_status_code
    end
    client do |made, ours, _pass|
      ours.write("POST /gate/keep HTTP/1.1\r\nContent-Length: 65537\r\n\r\n")
      refute made.try_to_finish
    end
  end
end
