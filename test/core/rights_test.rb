# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/core/rights"

class RightsTest < Minitest::Test
  Rights = Bavard::Core::Rights

  def test_each_role_may_what_those_below_it_may
    may = Rights::ROLES.to_h { |role| [role, Rights::NEEDS.keys.select { |what| Rights.may?(role, what) }] }
    assert_equal({"owner" => %i[read act direct own], "director" => %i[read act direct], "moderator" => %i[read act], "reader" => %i[read]}, may)
    refute Rights.may?(nil, :read)
  end
end
