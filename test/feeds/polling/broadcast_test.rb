# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/polling/broadcast"

class BroadcastTest < Minitest::Test
  Broadcast = Bavard::Feeds::Polling::Broadcast

  def test_a_number_however_it_is_given
    ["7741-0392", " 77410392 ", "https://lantern.example/watch/7741-0392?t=5", "lantern.example/b/77410392",
      "https://x.example/?broadcast=7741-0392&a=1"].each do |given|
      assert_equal "7741-0392", Broadcast.number(given), given
    end
    assert_nil Broadcast.number("  ")
  end

  def test_what_holds_no_number_says_how_one_looks
    ["hello", "1234", "https://x.example/nothing", "123456789012"].each do |given|
      error = assert_raises(Bavard::Error, given) { Broadcast.number(given) }
      assert_equal "number", error.field
      assert_includes error.message, "7741-0392"
    end
  end

  def test_a_channel
    assert_equal "reedmere", Broadcast.channel("@Reedmere ")
    assert_raises(Bavard::Error) { Broadcast.channel("a/../b") }
  end
end
