# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/start/lean"

# How much room there is for a process's objects, and for what that begins.
class LeanTest < Minitest::Test
  Lean = Bavard::Start::Lean
  SLOTS = "print GC.stat(:heap_available_slots)"
  SLOTS_OF_A_CHILD = %(require "#{File.expand_path("../../lib/bavard/start/lean", __dir__)}"; Bavard::Start::Lean.only_here; exec("ruby", "-e", #{SLOTS.inspect})).freeze

  def slots(script, env) = IO.popen({"RUBYOPT" => nil, Lean::ROOM => nil, **env}, ["ruby", "-e", script], &:read).to_i

  def test_an_application_has_room_from_the_beginning_and_what_it_begins_has_not
    env = Lean.env({})
    room = Integer(env.fetch(Lean::ROOM))
    assert_operator slots(SLOTS, env), :>, room * 0.99
    assert_operator slots(SLOTS_OF_A_CHILD, env), :<, room / 10
  end

  def test_what_somebody_has_set_counts_instead
    set = Lean.env({Lean::ROOM => "50000"})
    refute_includes set, Lean::ROOM
    assert_equal Lean::SET.size - 1, set.size
  end
end
