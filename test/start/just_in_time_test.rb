# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/just_in_time"

class JustInTimeTest < Minitest::Test
  SEEN = "print RubyVM::YJIT.enabled?, ENV.values_at(*%w[RUBYOPT RUBY_YJIT_ENABLE]).inspect"
  SEEN_BY_A_CHILD = %(require "#{File.expand_path("../../lib/bavard/just_in_time", __dir__)}"; Bavard::JustInTime.only_here; exec("ruby", "-e", #{SEEN.inspect})).freeze

  def seen(script, **env) = IO.popen({"RUBYOPT" => nil, "RUBY_YJIT_ENABLE" => nil, **env}, ["ruby", "-e", script], &:read)

  def test_it_is_on_for_a_process_and_not_for_what_that_begins
    on = Bavard::JustInTime.on({"RUBYOPT" => "-W1", "RUBY_YJIT_ENABLE" => "1"})
    assert_equal %(true["#{on["RUBYOPT"]}", nil]), seen(SEEN, **on)
    assert_match(/\A--yjit --yjit-exec-mem-size=64 -W1\z/, on["RUBYOPT"])
    assert_equal 'false["-W1", nil]', seen(SEEN_BY_A_CHILD, **on)
  end

  def test_whoever_runs_bavard_can_do_without
    assert_equal({"RUBY_YJIT_ENABLE" => nil, "RUBYOPT" => "-W1"}, Bavard::JustInTime.on({"RUBYOPT" => "--yjit --yjit-exec-mem-size=64 -W1", "RUBY_YJIT_ENABLE" => "0"}))
  end

  # Once for each process, whatever the machine: what it is about.
  def test_it_takes_the_room_it_says
    rss = ->(**env) { seen("print File.read('/proc/self/status')[/VmRSS:\\s+(\\d+)/, 1]", **env).to_i / 1024 }
    plain = rss.call
    assert_operator rss.call(**Bavard::JustInTime.on({})) - plain, :<, Bavard::JustInTime::ROOM_MB + 20
  end
end
