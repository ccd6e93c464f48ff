# frozen_string_literal: true

require "minitest/autorun"
require "rack"
require "rack/files"
require "socket"
require "tempfile"
require_relative "../../lib/bavard/web/http/outflow"
require_relative "../support/wait"

# Who has a place among those to whom a large file goes out, and until when.
class OutflowTest < Minitest::Test
  include Wait

  Outflow = Bavard::Web::Outflow
  BYTES = 300_000

  def setup
    @file = Tempfile.new("large").tap { |file| file.write("x" * BYTES) && file.flush }
    @outflow = Outflow.new.start
  end

  def teardown
    @outflow.stop
    @file.close!
  end

  # @return [Array] the answer to somebody who asks for it
  def asked(address = "192.0.2.1")
    env = {"REQUEST_METHOD" => "GET", "PATH_INFO" => "/#{File.basename(@file.path)}", "rack.hijack?" => true, "REMOTE_ADDR" => address}
    @outflow.hand_over(env, Rack::Files.new(File.dirname(@file.path)).call(env))
  end

  # As a server does whose reader is there.
  #
  # @return [UNIXSocket] what the reader reads from
  def hand_over(answer)
    ours, theirs = UNIXSocket.pair
    answer[1].fetch("rack.hijack").call(ours)
    answer[2].close
    theirs
  end

  def test_each_reader_gets_all_of_it
    answer = asked
    assert_equal [200, BYTES.to_s], [answer[0], answer[1]["content-length"]]
    assert_equal BYTES, hand_over(answer).read.bytesize
  end

  # The server finds the line closed before it has said anything.
  def test_whoever_was_gone_before_the_answer_has_no_place
    (Outflow::MOST_OF_ONE_ADDRESS * 2).times do
      status, _, body = asked
      assert_equal 200, status
      2.times { body.close }
    end
    assert_equal 0, @outflow.count
    assert_equal BYTES, hand_over(asked).read.bytesize
  end

  def test_so_many_go_out_to_one_household_and_more_to_others
    [%w[192.0.2.1 192.0.2.1 192.0.2.2], %w[2001:db8:0:7::1 2001:db8:0:7::2 2001:db8:0:8::1]].each do |one, same, another|
      readers = Array.new(Outflow::MOST_OF_ONE_ADDRESS) { |number| hand_over(asked(number.odd? ? one : same)) }
      assert_equal 503, asked(one).first
      assert_equal BYTES, hand_over(asked(another)).read.bytesize
      readers.each(&:read)
      wait_for("their places") { @outflow.count < 1 }
      assert_equal BYTES, hand_over(asked(one)).read.bytesize
    end
  end
end
