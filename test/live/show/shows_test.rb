# frozen_string_literal: true

require_relative "../../support/live_test"
require_relative "../../../lib/bavard/live/show/places"
require_relative "../../../lib/bavard/store/workers"
require_relative "../../support/drawings"
require_relative "../../support/minimal_irc"

# Shows wake as somebody needs them, and sleep when nobody does.
class ShowsTest < LiveTest
  LATER_MS = Bavard::Live::Shows::REST_AFTER_MS + 1

  def setup
    super
    @server = MinimalIrc.new
    @record = make_show_on(@server)
    @token = stores.stages.find(@stage.id).token
  end

  def teardown
    super
    @server.stop
  end

  def begin_shows = @shows = Bavard::Live::Shows.new(means, lease:).start.await

  def unwanted = db[:feeds].update(wanted: false)
  def running = @shows.running.map(&:id)

  # As time goes by, until it sleeps or is known not to.
  def let_rest
    clock.now_ms += LATER_MS
    @shows.let_rest
    running
  end

  def another(email, **feed)
    account_id = db[:accounts].insert(email:, password_hash: "none")
    show = stores.shows.create(account_id, name: email, host_name: "Ibrahim")
    address = {"host" => "127.0.0.1", "port" => @server.port, "tls" => false, "channel" => "#reedmere", "nick" => nil}
    made = stores.feeds.create(show.id, kind: "irc", name: "Chat", shape: "circle", colour: "#5fb8d6", address:)
    db[:feeds].where(id: made.id).update({wanted: true, **feed})
    [show, made]
  end

  def test_a_show_without_a_wanted_feed_sleeps_until_it_is_asked_for
    unwanted
    begin_shows
    assert_empty running
    assert_equal @record.id, @shows.run(@record.id).id
    assert_equal [@record.id], running
  end

  def test_those_on_air_come_before_those_heard_last_and_both_before_the_others
    silent, = another("silent@reedmere.example")
    late, = another("late@reedmere.example", heard_at_ms: 2000)
    early, = another("early@reedmere.example", heard_at_ms: 1000)
    over, = another("over@reedmere.example", heard_at_ms: 1500)
    another("off@reedmere.example", wanted: false)
    stores.shows.keep_cues(@record.id, @record.cues.merge("began_ms" => 1))
    stores.shows.keep_cues(over.id, over.cues.merge("began_ms" => 1, "ended_ms" => 2))
    assert_equal [@record, late, over, early, silent].map(&:id), stores.shows.ids_by_need
  end

  def test_a_screen_wakes_it_by_its_link_and_a_link_that_is_none_wakes_nobody
    unwanted
    begin_shows
    assert_nil @shows.by_token("x" * 32)
    assert_empty running
    show, desk = @shows.by_token(@token)
    assert_equal [@record.id, @stage.id], [show.id, desk.stage.id]
    assert_same show, @shows.by_stage(@stage.id).first
    assert_nil @shows.by_stage(0)
  end

  def test_what_is_sent_to_an_address_wakes_whose_it_is
    _, feed = another("inbox@reedmere.example", kind: "inbox", address: Sequel.pg_jsonb({"token" => "t" * 32}), wanted: false)
    unwanted
    begin_shows
    assert_nil @shows.by_inbox("u" * 32)
    assert_equal feed.id, @shows.by_inbox("t" * 32).last.id
  end

  def test_it_sleeps_once_nobody_has_needed_it_and_wakes_as_it_was
    unwanted
    begin_shows
    first = @shows.run(@record.id)
    first.ask { |show| show.desk(@stage.id).editor.edit({"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 50}}) }
    until_written
    @shows.let_rest
    assert_equal [@record.id], running
    until_at_rest(first)
    assert_empty let_rest
    again = @shows.run(@record.id)
    refute_same first, again
    assert_equal 50, again.ask { |show| show.desk(@stage.id).stage.draft["pieces"].first["text_size_px"] }
  end

  # What is still to be kept is kept a moment later.
  def until_at_rest(show)
    wait_for("nothing to be due") { (clock.now_ms += 1000) && show.at_rest? }
  end

  def test_whoever_holds_one_that_has_gone_to_sleep_asks_the_one_that_is_awake
    unwanted
    begin_shows
    first = @shows.run(@record.id)
    until_at_rest(first)
    let_rest
    assert_equal @record.name, first.ask(&:record).name
    assert_equal [@record.id], running
    refute_same first, @shows.run(@record.id)
    assert_same @shows.run(@record.id), first.ask { |show| show }
  end

  # As where the database was away for a while.
  def test_it_wakes_with_all_that_was_still_to_be_written
    unwanted
    begin_shows
    goes_on = Queue.new
    journal.later { goes_on.pop }
    journal.deed(:shows, :rename, @record.id, name: "Reedmere at dusk", host_name: "Odalys")
    waking = Thread.new { @shows.run(@record.id) }
    wait_for("it to be waited for") { waking.stop? }
    goes_on << true
    assert_equal "Reedmere at dusk", waking.value.record.name
  end

  # What a page has of an earlier life is no beginning of what came since: it would keep what was taken away meanwhile.
  def test_a_screen_that_was_away_while_it_slept_gets_a_whole_picture
    unwanted
    begin_shows
    first = @shows.run(@record.id)
    until_at_rest(first)
    had = topics_of(first).map { |topic| position(topic, 3) }
    let_rest
    again = @shows.run(@record.id)
    refute_same first, again
    topics_of(again).zip(had) do |topic, last|
      position(topic, 6)
      assert JSON.parse(topic.catch_up(last))["whole"], topic.name
    end
  end

  def test_who_comes_in_the_moment_in_which_it_goes_to_sleep_or_elsewhere_comes_again
    unwanted
    begin_shows
    first = @shows.run(@record.id)
    until_at_rest(first)
    refute(topics_of(first).any?(&:over?))
    let_rest
    assert(topics_of(first).all?(&:over?))
    assert_equal [{"let_go" => true}], hub.frames("air:#{@stage.id}").last(1)
    assert_equal [true, false], [hub.let_go?(show: @record.id, inbox: true), hub.let_go?(show: @record.id, microphone: 1)]
    again = topics_of(@shows.run(@record.id))
    @shows.finish(@record.id)
    assert(again.all?(&:over?))
  end

  def topics_of(show) = [show.topic, show.prompter.topic, show.desks.fetch(@stage.id).air_topic, show.desks.fetch(@stage.id).draft_topic]

  # @return [String] what its pages have after so many more frames
  def position(topic, frames)
    Array.new(frames) { JSON.parse(topic.frame({}, -> { {} }))["at"] }.last
  end

  def test_a_page_keeps_it_awake
    unwanted
    begin_shows
    show = @shows.run(@record.id)
    until_at_rest(show)
    %W[show:#{@record.id} prompter:#{@record.id} air:#{@stage.id} draft:#{@stage.id}].each do |topic|
      hub.sizes[topic] = 1
      assert_equal [@record.id], let_rest, topic
      hub.sizes[topic] = 0
    end
    assert_empty let_rest
  end

  def test_a_wanted_feed_and_what_waits_keep_it_awake
    begin_shows
    assert_equal [@record.id], let_rest
    show = @shows.run(@record.id)
    show.ask { |one| one.want_feed(one.lanes.keys.first, false) }
    until_at_rest(show)
    brake = Bavard::Core::Gate::Brake.read({"kind" => "slow", "minutes" => "60"}, now_ms: clock.now_ms)
    show.ask { |one| one.use_gate(one.record.gate.merge("brake" => brake.to_h.transform_keys(&:to_s))) }
    assert_equal [@record.id], let_rest
  end

  def test_many_who_come_at_once_find_one_show
    unwanted
    begin_shows
    found = Array.new(8) { Thread.new { @shows.run(@record.id) } }.map(&:value)
    assert_equal 1, found.uniq(&:object_id).size
  end

  def test_another_process_may_have_it_while_it_sleeps
    unwanted
    begin_shows
    until_at_rest(@shows.run(@record.id))
    assert_empty let_rest
    other = Bavard::Store::Lease.new(TestDatabase.url)
    assert other.take(@record.id)
    assert_raises(Bavard::Busy) { @shows.run(@record.id) }
  ensure
    other&.close
  end

  # As the operator's page says it.
  def test_where_it_runs_where_that_is_elsewhere
    unwanted
    other = Bavard::Store::Lease.new(TestDatabase.url)
    there = Bavard::Store::Workers.new(db, other, "10.0.0.6:4600").tap(&:enter)
    here = Bavard::Store::Workers.new(db, lease, "10.0.0.5:4600").tap(&:enter)
    @shows = Bavard::Live::Shows.new(means, lease:, places: Bavard::Live::Places.new(here, hub: @hub, ids: means.ids, lines: stores.lines))
    assert_nil @shows.elsewhere(@record.id)
    other.take(@record.id)
    there.place(@record.id)
    assert_equal "10.0.0.6:4600", @shows.elsewhere(@record.id)
    assert_equal "10.0.0.6:4600", assert_raises(Bavard::Live::Elsewhere) { @shows.run(@record.id) }.address
    other.release(@record.id)
    assert_nil @shows.elsewhere(@record.id)
    @shows.run(@record.id)
    assert_equal [nil, "10.0.0.5:4600"], [@shows.elsewhere(@record.id), here.place_of(@record.id)]
  ensure
    other&.close
  end

  def test_a_show_that_is_gone_is_said_to_be
    begin_shows
    assert_raises(Bavard::Gone) { @shows.run(0) }
  end

  # One that is awake for nobody has no place among those that are told of pictures.
  def test_those_that_sleep_hear_of_nothing
    unwanted
    begin_shows
    show = @shows.run(@record.id)
    until_at_rest(show)
    heard = []
    show.define_singleton_method(:picture_came) { |address| heard << address }
    let_rest
    @pictures.bring("https://reedmere.example/a", Drawings.svg, @record.id)
    wait_for("the picture") { @pictures.at("https://reedmere.example/a", @record.id) }
    assert_empty heard
  end
end
