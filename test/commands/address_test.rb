# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/start/address"

# Links are the same whoever gives them: the start, the application, bin/admin.
class AnnouncedAddressTest < Minitest::Test
  def address(**env) = Bavard::Start::Address.of(env.transform_keys(&:to_s))

  def test_it_is_what_was_set_without_a_slash_at_its_end
    assert_equal "https://live.reedmere.example", address(BAVARD_ADDRESS: " https://live.reedmere.example/ ", PORT: "4700")
  end

  def test_where_nothing_was_set_it_is_where_it_listens
    assert_equal "http://127.0.0.1:4600", address
    assert_equal "http://127.0.0.1:4700", address(BAVARD_ADDRESS: "", PORT: "4700")
    assert_equal "http://[::1]:4600", address(BAVARD_BIND: "::1")
  end

  def test_where_it_listens_on_every_address_it_is_one_that_a_browser_opens
    assert_equal "http://127.0.0.1:4600", address(BAVARD_BIND: "0.0.0.0")
    assert_equal "http://[::1]:4600", address(BAVARD_BIND: "::")
  end

  def test_other_computers_are_told_of_where_they_reach_it_and_nobody_said_as_what
    anywhere = ->(**env) { Bavard::Start::Address.anywhere?(env.transform_keys(&:to_s)) }
    assert_equal [true, true], [anywhere.call(BAVARD_BIND: "0.0.0.0"), anywhere.call(BAVARD_BIND: "::")]
    assert_equal [false, false], [anywhere.call, anywhere.call(BAVARD_BIND: "0.0.0.0", BAVARD_ADDRESS: "https://live.reedmere.example")]
  end
end
