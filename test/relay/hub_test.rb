# frozen_string_literal: true

require "net/http"
require_relative "../support/plain"
require_relative "../support/relays"

# Of those who are not to follow any more, or come when they may not.
module RelayPartings
  def test_a_link_that_is_replaced_says_so_and_closes
    one, other = Array.new(2) { page }
    [one, other].each { |each| until_texts(each, 1) }
    hub.close(@topic)
    wait_for("the word") { [one, other].all? { |each| each.read.replaced? } }
    assert_equal [0, 0], [hub.size(@topic), hub.pages]
  end

  def test_those_are_cut_off_who_are_meant
    one = page
    until_texts(one, 1)
    hub.cut_where { |env| env["HTTP_HOST"] == "elsewhere.example" }
    publish({number: 1})
    assert_equal 1, until_texts(one, 2).last["number"]
    hub.cut_where { |env| env["REQUEST_URI"] || env["HTTP_HOST"] }
    wait_for("the word") { one.read.replaced? }
  end

  def test_pages_that_lose_their_line_may_come_again_and_others_keep_theirs
    one = page
    until_texts(one, 1)
    until_texts(other = page(Bavard::Relay::Topic.new("air:2")), 1)
    hub.let_go(@topic)
    wait_for("it to be gone") { one.read.gone? }
    refute_predicate one, :replaced?
    assert_equal [0, 1], [hub.size(@topic), hub.pages]
    refute_predicate other.read, :gone?
    until_texts(page, 1)
  end

  # What was true of them then may not be true any more.
  def test_whoever_was_looked_up_before_somebody_was_cut_off_comes_again
    nobody = Bavard::Relay::Topic.new("air:2")
    late = [-> { hub.close(nobody) }, -> { hub.cut_where { false } }].map do |cut|
      hub.cuts.tap { cut.call }.then { |cuts| page(cuts:) }
    end
    before = hub.cuts
    hub.cut_where(again: true) { false }
    until_texts(page(cuts: before), 1)
    assert_equal [[:opened], 1], [drained, hub.size(@topic)]
    assert_empty late.flat_map { |one| one.read.texts }
  end

  def test_nobody_begins_to_follow_what_is_over
    @topic.finish
    late = page
    until_texts(page(Bavard::Relay::Topic.new("air:2")), 1)
    assert_equal [[:opened], 0], [drained, hub.size(@topic)]
    assert_empty late.read.texts
  end
end

# What pages may rely on, whoever holds their lines.
module RelayContract
  include Wait
  include RelayPartings

  def setup
    @now_ms = 0
    @relay = relay(-> { @now_ms })
    @topic = Bavard::Relay::Topic.new("air:1", life: "life")
    @follower = Relays::Follower.new
  end

  def teardown = @relay&.stop

  def hub = @relay.hub
  def page(topic = @topic, **more) = @relay.page(topic, @follower, **more)

  def publish(change)
    hub.deliver(@topic, @topic.frame(change, -> { {all: change} }))
  end

  def until_texts(page, count)
    wait_for(-> { "#{count} messages, not #{page.texts.map { |text| text[0, 80] }}" }) { page.read.texts.size >= count }
    page.texts.map { |text| JSON.parse(text) }
  end

  def test_a_page_gets_the_picture_and_then_every_frame_in_order
    one = page
    until_texts(one, 1)
    20.times { |number| publish({number:}) }
    assert_equal (0..19).to_a, until_texts(one, 21).drop(1).map { |frame| frame["number"] }
  end

  def test_a_page_that_was_away_is_brought_up_to_now
    3.times { |number| publish({number:}) }
    assert_equal [1, 2], until_texts(page(last: "life:1"), 1).first["missed"].map { |frame| frame["number"] }
  end

  def test_what_a_page_says_reaches_who_follows_it
    one = page
    until_texts(one, 1)
    one.say("hello")
    assert_equal [:opened, "hello"], [@follower.happened.pop, @follower.happened.pop]
    one.socket.close
    assert_equal :closed, @follower.happened.pop
  end

  def test_garbage_from_a_page_costs_that_page_alone
    bad = page
    good = page
    until_texts(bad, 1)
    bad.socket.write("\x00\xFF garbage #{"y" * 50_000}")
    publish({number: 1})
    wait_for("the good one to have it") { newest(good) == 1 }
    wait_for("the bad page to be gone") { @follower.happened.size.positive? && drained.include?(:closed) }
  end

  def test_a_page_hears_that_its_line_holds_and_how_long_it_is
    one = page
    wait_for("two beats") { one.read.beats.size >= 2 }
    first, second = one.beats.map { |beat| JSON.parse(beat)["t"] }
    assert_operator second - first, :>=, Bavard::Relay::Hub::BEAT_EVERY_MS
  end

  def test_whether_all_is_there_is_answered_behind_all_of_it
    one = page
    until_texts(one, 1)
    publish({number: 1})
    one.say('{"here":7}')
    publish({number: 2})
    told = until_texts(one, 4).drop(1)
    assert_equal [nil, 7], told.find { |message| message["here"] }.values_at("number", "here")
    assert_operator told.index { |message| message["here"] }, :>=, 1
    one.say('{"here":"7"}')
    assert_equal [:opened, '{"here":"7"}'], [@follower.happened.pop, @follower.happened.pop]
  end

  # While it is behind, what was thrown away for it comes as a whole picture, and the answer behind that.
  def test_whether_all_is_there_is_answered_behind_the_picture_of_who_was_behind
    slow = page
    until_texts(slow, 1)
    20.times { |number| publish({number:, ballast: "x" * 40_000}) }
    slow.say('{"here":9}')
    wait_for("the answer") { slow.read.texts.any? { |text| text.start_with?('{"here":9') } }
    before = slow.texts.take_while { |text| !text.start_with?('{"here":9') }.map { |text| JSON.parse(text) }
    assert_equal 19, before.last.dig("all", "number") || before.last["number"]
  end

  def test_what_is_said_to_one_page_is_heard_by_no_other
    one, other = Array.new(2) { page }
    [one, other].each { |each| until_texts(each, 1) }
    hub.whisper(@topic, @follower.connections.first.id, '{"only":1}')
    publish({number: 1})
    wait_for("the word") { one.read.heard?('{"only":1}') }
    assert_equal 1, until_texts(other, 2).last["number"]
    refute other.heard?("only")
  end

  def test_pages_are_counted_and_what_is_sent_to_them
    pages = Array.new(3) { page }
    pages.each { |each| until_texts(each, 1) }
    before = hub.delivered
    publish({number: 1})
    pages.each { |each| until_texts(each, 2) }
    wait_for("the count") { hub.delivered == before + 3 }
    assert_equal [3, 3], [hub.size(@topic), hub.pages]
    pages.first.socket.close
    wait_for("one to be gone") { hub.size(@topic) == 2 }
  end

  def test_a_page_that_does_not_read_never_slows_another
    slow, quick = Array.new(2) { page }
    until_texts(quick, 1)
    40.times do |number|
      publish({number:, ballast: "x" * 40_000})
      until_texts(quick, number + 2)
    end
    assert_equal (0..39).to_a, until_texts(quick, 41).drop(1).map { |frame| frame["number"] }
    wait_for(-> { "the slow page to catch up, not #{slow.texts.map { |text| text[0, 60] }}" }) { newest(slow) == 39 }
  end

  def newest(page)
    last = JSON.parse(page.read.texts.last || "{}")
    last["number"] || last.dig("all", "number")
  end

  private

  def drained
    @seen ||= []
    @seen << @follower.happened.pop until @follower.happened.empty?
    @seen
  end
end

# Pages at the application itself, on real socket pairs, as the web server hands them over.
class HubTest < Minitest::Test
  include RelayContract

  def relay(clock) = Relays::Embedded.new(clock)

  def test_a_page_that_says_nothing_for_long_is_let_go
    one = page
    until_texts(one, 1)
    @now_ms = 20_000
    wait_for("the page to be let go") { (@now_ms += 50_000) && drained.include?(:closed) }
  end

  # What others send over a line of their own is answered, and nothing else is said but now and then.
  def test_those_are_let_go_who_are_meant_and_may_come_again
    one, other = Array.new(2) { page.tap { |each| until_texts(each, 1) } }
    before = hub.cuts
    hub.let_go_where { |env| env.equal?(@follower.connections.first.env) }
    wait_for("it to be gone") { one.read.gone? }
    refute_predicate one, :replaced?
    refute_predicate other.read, :gone?
    assert_operator hub.cuts, :>, before
  end

  def test_who_is_no_page_of_ours_hears_now_and_then_that_the_line_holds
    @topic = Bavard::Relay::Topic.new("inbox:1", timed: false)
    other = page
    ours = page(@topic = Bavard::Relay::Topic.new("air:2"))
    until_texts(other, 1)
    wait_for("two beats of ours") { ours.read.beats.size >= 2 }
    assert_empty other.read.beats
    @now_ms = 20_000
    wait_for("the word") { other.read.texts.include?("{}") }
    refute_includes ours.read.texts, "{}"
  end
end

# Pages at nginx with Nchan, set as ops/nginx has it.
class NchanTest < Minitest::Test
  include RelayContract

  def relay(clock) = Relays::OverNginx.new(clock)

  def test_whoever_says_too_much_is_cut_off
    one = page
    until_texts(one, 1)
    one.say("y" * 40_000)
    wait_for("it to be gone") { one.read.gone? && drained.include?(:closed) }
    assert_equal [:opened, :closed], drained
  end

  # It cannot tell any more who is gone.
  def test_after_nginx_was_killed_nobody_is_taken_to_be_there
    one = page
    until_texts(one, 1)
    @relay.nginx.stop("KILL")
    wait_for("everybody to be gone") { hub.pages.zero? && drained.include?(:closed) }
    refute_predicate hub, :there?
    publish({number: 1})
    @relay.nginx.start(@relay.frames_port)
    wait_for("the relay") { hub.there? }
    two = page(last: "life:0")
    assert_equal 1, until_texts(two, 1).first["missed"].first["number"]
    publish({number: 2})
    assert_equal 2, until_texts(two, 2).last["number"]
  end

  # As it does where it has few connections left.
  def test_nothing_is_lost_where_nginx_closes_the_line_by_which_frames_come
    closing = Relays::OverNginx.new(-> { @now_ms }, requests: 3)
    page = closing.page(@topic, @follower)
    40.times { |number| closing.hub.deliver(@topic, @topic.frame({number:}, -> { {} })) }
    assert_equal (0..39).to_a, until_texts(page, 41).drop(1).map { |frame| frame["number"] }
    assert_equal [:opened], drained
  ensure
    closing&.stop
  end

  # It may follow, and nginx does not know it yet.
  def test_a_page_that_is_cut_off_on_its_way_hears_nothing_for_long
    [-> { hub.close(@topic) }, -> { hub.let_go(@topic) }].each do |cut|
      @relay.meanwhile(&cut)
      late = page
      wait_for("it to be cut off") { late.read.gone? || late.closed_with }
      assert_equal 0, hub.size(@topic)
    end
  end

  # Nginx holds lines longer than we live.
  def test_pages_of_an_earlier_process_come_back
    one = page
    until_texts(one, 1)
    @relay.begin_anew(-> { @now_ms })
    wait_for("it to be cut off") { one.read.gone? }
    refute_predicate one, :replaced?
    publish({number: 1})
    assert_equal 1, until_texts(page, 1).first.dig("all", "number")
  end

  # Of a page that was counted and never came, or is gone without a word.
  def test_whoever_is_not_there_is_not_counted_for_long
    hub.follow({}, @topic, follower: @follower)
    one = page
    until_texts(one, 1)
    assert_equal 2, hub.size(@topic)
    @now_ms = Bavard::Relay::Nchan::LOOK_EVERY_MS + 1
    wait_for("it to be forgotten") { hub.size(@topic) == 1 }
    publish({number: 1})
    assert_equal 1, until_texts(one, 2).last["number"]
  end

  # By a key that is guessed nobody is heard, and what is asked from outside does not come to us.
  def test_nobody_speaks_for_another
    hub.heard("0" * 32, "hello")
    hub.gone("0" * 32)
    paths = ["/relay/heard", "/relay/gone", "/relay/follow/127.0.0.1:1/air-1/#{"0" * 32}", "/relay/to/127.0.0.1:1/air-1",
      "/relay/all/127.0.0.1:1"]
    answers = paths.map { |path| Net::HTTP.post(URI("http://127.0.0.1:#{@relay.pages_port}#{path}"), "hello", "X-Bavard-Page" => "0" * 32).code }
    assert_equal ["404"] * 5, answers
    assert_empty drained
  end
end

# Two nginx that follow one another over Redis.
class NchanOverRedisTest < Minitest::Test
  include RelayContract

  def relay(clock)
    @redis = Relays::Redis.new
    Relays::OverNginx.new(clock, redis: @redis.port)
  end

  def teardown
    super
    @redis.stop
  end

  def test_pages_at_another_nginx_hear_the_same_and_are_heard
    port = @relay.beside
    far = @relay.page(@topic, @follower, port:)
    near = page
    [far, near].each { |each| until_texts(each, 1) }
    20.times { |number| publish({number:}) }
    [far, near].each { |each| assert_equal (0..19).to_a, until_texts(each, 21).drop(1).map { |frame| frame["number"] } }
    far.say("hello")
    hub.whisper(@topic, @follower.connections.first.id, '{"only":1}')
    wait_for("the word") { far.read.heard?('{"only":1}') }
    wait_for("what it said") { drained.include?("hello") }
    hub.close(@topic)
    wait_for("both to be cut off") { [far, near].all? { |each| each.read.replaced? } }
  end
end
