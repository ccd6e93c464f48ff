# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/start/address"

# What is printed, and what links in letters begin with, can be opened.
class ReachedAddressTest < Minitest::Test
  Address = Bavard::Start::Address

  def test_where_it_listens_is_where_it_is_reached
    assert_equal "http://127.0.0.1:4600", Address.of({})
    assert_equal "http://10.0.0.4:80", Address.of({"BAVARD_BIND" => "10.0.0.4", "PORT" => "80"})
    assert_equal "http://[fd00::4]:4600", Address.of({"BAVARD_BIND" => "fd00::4"})
  end

  def test_every_address_is_none_that_a_browser_opens
    assert_equal "http://127.0.0.1:4600", Address.of({"BAVARD_BIND" => "0.0.0.0"})
    assert_equal "http://[::1]:4600", Address.of({"BAVARD_BIND" => "::"})
  end

  def test_what_the_operator_says_counts
    env = {"BAVARD_BIND" => "0.0.0.0", "BAVARD_ADDRESS" => " https://chat.reedmere.example/ "}
    assert_equal "https://chat.reedmere.example", Address.of(env)
    refute Address.anywhere?(env)
  end

  def test_where_nobody_has_told_it_a_name_it_says_that_there_are_others
    assert Address.anywhere?({"BAVARD_BIND" => "0.0.0.0"})
    assert Address.anywhere?({"BAVARD_BIND" => "::"})
    refute Address.anywhere?({"BAVARD_BIND" => "127.0.0.1"})
    refute Address.anywhere?({})
  end
end
