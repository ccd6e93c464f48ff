# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../bench/pipeline"

# What a line costs, in objects that are made for it: a count that no other work on the machine changes.
class ObjectsALineTest < Minitest::Test
  # Of those that cutting up a line and escaping its words takes.
  MOST = 1.5

  def test_an_ordinary_line_makes_half_more_than_what_a_bare_parse_makes
    made = Bench::Pipeline.new.objects
    assert_operator made[:ours], :<=, MOST * made[:bare]
    assert_operator made[:bare], :>, 50
  end
end
