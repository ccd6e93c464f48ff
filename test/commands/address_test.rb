# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/start/address"

# Links are the same whoever gives them: the start, the application, bin/admin.
class AddressTest < Minitest::Test
  def address(**env) = Bavard::Start::Address.of(env.transform_keys(&:to_s))

  def test_it_is_what_was_set_without_a_slash_at_its_end
    assert_equal "https://live.reedmere.example", address(BAVARD_ADDRESS: " https://live.reedmere.example/ ", PORT: "4700")
  end

  def test_where_nothing_was_set_it_is_where_it_listens
    assert_equal "http://127.0.0.1:4600", address
    assert_equal "http://127.0.0.1:4700", address(BAVARD_ADDRESS: "", PORT: "4700")
    assert_equal "http://[::1]:4600", address(BAVARD_BIND: "::1")
  end
end
