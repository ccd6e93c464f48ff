# frozen_string_literal: true

require_relative "../support/web_test"

# Where a new show's host is led: who is, until when, and what is made on the way.
class LeadAppTest < WebTest
  def setup
    super
    sign_up
  end

  def show = @shows.running.first
  def lead = show.ask { |one| one.record.lead }
  def whereto(path) = get(path).then { last_response.redirect? ? URI(last_response.location).path : path }

  def test_a_new_show_opens_on_it_until_it_is_put_aside
    assert_equal "/lead/", whereto("/")
    assert_equal "/lead/", whereto("/lead/")
    assert_includes last_response.body, "Chat comes in"
    send_form("/lead/leave")
    assert_equal "/feeds", whereto("/")
    assert_includes get("/feeds").body, %(href="/lead/")
    send_form("/lead/take-up")
    assert_equal "/lead/", whereto("/")
  end

  # What comes to stand there later moves everything below it, from under a mouse.
  def test_the_small_ways_stand_on_their_pages_from_the_beginning
    get "/feeds"
    assert_match(/data-lead="platform" hidden>/, last_response.body)
    send_form("/lead/leave")
    get "/feeds"
    assert_match(%r{data-lead="platform"><summary>.*<b>A second platform</b><span class="said figure">0 of 3</span>}m, last_response.body)
    show.ask { |one| one.record.small_leads = {"platform" => {"over" => true}} }
    get "/feeds"
    assert_match(/data-lead="platform" hidden>/, last_response.body)
    assert_match(/data-lead="voices"><summary>/, last_response.body)
  end

  def test_the_stage_is_made_once_for_a_host_who_knows_nothing
    made = send_form("/lead/stage")
    assert_equal made, send_form("/lead/stage")
    assert_match %r{\Ahttp://.+/air/[\w-]{32}\z}, made["link"]
    assert_equal [1920, 1080, 60], made["size"].values_at("width", "height", "frame_rate")
    stage = show.ask { |one| one.desk(made["stage"]).stage }
    assert_equal [["chat"], "none", 0], [stage.draft["pieces"].map { |piece| piece["kind"] }, stage.backdrop, stage.revision]
    assert_equal ["reading", 5], stage.draft["pieces"].first.values_at("stay_by", "keep_last")
    assert_equal 1, db[:stages].count
  end

  def test_it_is_not_over_before_all_of_it_was_seen
    send_form("/lead/finish")
    assert_equal 422, last_response.status
    assert lead
    all = Bavard::Core::Lead::Steps::TITLES.keys.to_h { |key| [key, 1] }
    show.ask { |one| one.record.lead = one.record.lead.merge("done" => all) }
    send_form("/lead/finish")
    assert_nil lead
    assert_equal ["/feeds", "/feeds"], [whereto("/"), whereto("/lead/")]
    refute_includes get("/feeds").body, %(href="/lead/")
    wait_for("it to be kept") { db[:shows].where(id: @record.id).get(:lead).nil? }
  end

  def test_what_is_done_is_kept_and_told
    send_form("/stage/#{send_form("/lead/stage")["stage"]}/backdrop", {"backdrop" => "white"})
    report = show.ask { |one| one.lead.report(one.now_ms) }
    assert_equal [%w[now done later later later], false], [report[:steps].map { |step| step[:state] }, report[:left]]
    wait_for("it to be kept") { db[:shows].where(id: @record.id).get(:lead)&.dig("done", "picture") }
    send_form("/lead/leave")
    assert_equal({left: true}, show.ask { |one| one.lead.report(one.now_ms) })
  end

  def small = show.ask { |one| one.small_leads.report(one.now_ms) }

  def test_those_that_come_after_it_wait_for_it_and_are_over_once_all_of_it_was_seen
    get "/"
    assert_empty small
    send_form("/lead/leave")
    assert_equal %w[platform voices alerts moderators], small.keys
    send_form("/lead/small/moderators/over")
    assert_equal 422, last_response.status
    show.ask do |one|
      one.deed("invite", "Odalys", about: "Teo")
      one.deed("join", "Teo")
      one.deed("pull", "Odalys", detail: {"was" => "aired"})
      one.deed("pull", "Teo", detail: {"was" => "held"})
    end
    assert_equal %w[done done now], small["moderators"][:steps].map { |step| step[:state] }
    show.ask { |one| one.record.small_leads = {"moderators" => {"done" => {"invited" => 1, "joined" => 1, "pulled" => 1}}} }
    assert_equal %w[done done done], small["moderators"][:steps].map { |step| step[:state] }
    assert_includes get("/people/").body, 'data-lead="moderators"'
    send_form("/lead/small/moderators/over")
    assert_equal [200, %w[platform voices alerts]], [last_response.status, small.keys]
    refute_includes get("/people/").body, 'data-lead="moderators"'
    wait_for("it to be kept") { db[:shows].where(id: @record.id).get(:small_leads)&.dig("moderators", "over") }
    send_form("/lead/small/sparkle/over")
    assert_equal 422, last_response.status
  end

  # @param badges [Array<String>] as a feed tells them
  def painted(name, badges = [])
    person = Bavard::Core::Chat::Person.new(1, name, name, nil, badges)
    line = Struct.new(:person, :feed_id).new(person, 1)
    show.ask { |one| one.lead.painted(Bavard::Live::ScreenTimes::Time.new(one.now_ms, 41, line)) }
  end

  def steps = show.ask { |one| one.lead.report(one.now_ms)[:steps] }.to_h { |step| [step[:key], step[:state]] }

  def test_a_line_of_the_hosts_own_proves_nothing
    get "/feeds"
    painted("odalys", ["host"])
    assert_equal "later", steps["proof"]
    painted("ann")
    assert_equal "done", steps["proof"]
  end

  def test_an_outfit_that_was_tried_over_what_is_on_air_is_not_on_air
    stage = "/stage/#{send_form("/lead/stage")["stage"]}"
    send_form("#{stage}/put-on-air")
    send_json("#{stage}/edits", {"do" => "outfit", "outfit" => "quiet"})
    assert_equal "later", steps["look"]
    send_form("#{stage}/put-on-air")
    assert_equal "done", steps["look"]
  end

  def test_a_host_who_was_led_already_and_whoever_only_helps_are_not
    get "/feeds"
    show.ask { |one| one.record.lead = nil }
    assert_equal "/feeds", whereto("/")
    assert_nil show.ask { |one| one.lead.report(one.now_ms) }
    %w[leave take-up].each { |what| assert_equal({"done" => true}, send_form("/lead/#{what}")) }
    assert_nil lead
  end
end
