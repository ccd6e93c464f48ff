# frozen_string_literal: true

require "rack/mock"
require_relative "../support/plain"
require_relative "../../lib/bavard/web/http/request_ids"

# By which word a request is found in the log.
class RequestIdsTest < Minitest::Test
  SHARED = [200, {"a" => "b"}.freeze, ["x"]].freeze

  def ask(id = nil, answer: SHARED)
    seen = nil
    app = Bavard::Web::RequestIds.new(lambda { |_env|
      seen = SemanticLogger.named_tags[:request]
      answer
    })
    answered = Rack::MockRequest.new(app).get("/", id ? {"HTTP_X_REQUEST_ID" => id} : {})
    [seen, answered[Bavard::Web::RequestIds::NAME]]
  end

  def test_the_proxys_stays
    assert_equal %w[0f3a9b21c4 0f3a9b21c4], ask("0f3a9b21c4")
    assert_empty SemanticLogger.named_tags
  end

  # Whoever sends one writes no line of the log with it.
  def test_what_is_none_is_replaced
    ["short", "a" * 65, "0f3a9b21c4\n2026 fault", "<script>alert(1)</script>", "\xFF" * 10, "", nil].each do |id|
      seen, told = ask(id)
      assert_match(/\A\h{16}\z/, told, id.inspect)
      assert_equal seen, told
    end
    refute_equal ask, ask
  end
end
