# frozen_string_literal: true

require_relative "../../lib/bavard/store/workers"
require_relative "../support/in_front"
require_relative "../support/prepared"
require_relative "../support/proxy"

# Several processes share the shows, with nginx in front set as ops/nginx has it: pages reach a show wherever it runs, one that is killed is
# stood in for, and what is to go on elsewhere does.
class WorkersTest < PreparedTest
  include InFront

  SHOWS = 4

  # A show with a feed and a screen; {PreparedTest} makes one.
  Other = Struct.new(:show, :stage, :browser)

  # @param second [Hash] what else the second finds in its environment
  def begin_all(second = {})
    port = OwnPorts.block_of(2)
    @ports = [port, port + 1]
    prepare(own: true, feed: feed_address, env: of(0), port: @ports.first)
    @others = Array.new(SHOWS - 1) { another_show }
    @second = RunningApp.new(port: @ports.last, folder: @app.folder, env: {**of(1), **second}).tap { |app| @started << app }.start
    begin_in_front([@app, @second], "relay-pages.conf", "workers.conf")
    until_shared
  end

  def until_shared
    wait_for(-> { "each to have its share: #{places}" }) { places.values.tally.values == [SHOWS / 2] * 2 }
    until_all_read
  end

  def until_all_read(*apps)
    apps = [@app, @second] if apps.empty?
    wait_for("all feeds to read") do
      apps.sum { |app| Net::HTTP.get(URI("#{app.address}/metrics")).scan(/^bavard_feed_state\{.*state="live".*\} 1$/).size } == SHOWS
    end
  end

  def of(nth) = {**relay_env, "BAVARD_WORKER" => "127.0.0.1:#{@ports[nth]}", "BAVARD_NTH" => nth.to_s, "BAVARD_FIRST_PORT" => @ports.first.to_s}

  def another_show
    account = @account_id
    show = @show
    stage = @stage
    make_show(0)
    add_feed_at(feed_address)
    put_pieces_on_air([PIECE], 1920, 1080)
    Other.new(@show, @stage, @account_id)
  ensure
    @account_id = account
    @show = show
    @stage = stage
  end

  def places = workers.places
  def workers = Bavard::Store::Workers.new(TestDatabase.db)
  def shows = [Other.new(@show, @stage, @account_id), *@others]
  def app_of(show) = [@app, @second].find { |app| places[show.id] == "127.0.0.1:#{app.port}" }
  def link_of(one) = "http://127.0.0.1:#{in_front}/air/#{one.stage.token}"

  def open_all = shows.each { |one| open_screen(link_of(one), name: :"screen#{one.show.id}") { assert_selector ".piece" } }

  def all_show(*texts)
    shows.each do |one|
      on_screen(:"screen#{one.show.id}") { texts.each { |text| assert_selector ".line", text:, count: 1 } }
    end
  end

  # The log is written behind what is painted.
  #
  # @return [Array<Integer>] the ids of its lines, which are so many
  def kept(count)
    ids = wait_for("the log to have #{count} lines") { TestDatabase.db[:lines].select_map(:id).then { |all| all if all.size >= count } }
    assert_equal count, ids.size
    ids
  end

  def test_pages_reach_a_show_wherever_it_runs
    begin_all
    open_all
    server.say("ann", "to everybody")
    all_show("to everybody")
    assert_equal SHOWS, kept(SHOWS).uniq.size
    shows.each do |one|
      browser = HostsBrowser.new("http://127.0.0.1:#{in_front}")
      browser.sign_in("host#{one.browser}@reedmere.example", PASSWORD)
      line = wait_for("the line to be in the log") { TestDatabase.db[:lines].where(show_id: one.show.id).get(:id) }
      # What is sent is taken by one of the two, whichever is asked first.
      4.times { assert_equal "200", browser.post_json("/gate", "/gate/brake", {kind: "off"}).code }
      assert_equal "200", browser.post_json("/prompter/", "/prompter/act", {do: "pull", line:}).code
      on_screen(:"screen#{one.show.id}") { assert_no_selector ".line" }
    end
    wait_for("the deeds to be in the log") { TestDatabase.db[:deeds].where(what: "pull").count == SHOWS }
  end

  def test_one_is_killed_and_the_other_stands_in
    begin_all
    open_all
    server.say("ann", "before")
    all_show("before")
    wait_for("it to be in the log") { TestDatabase.db[:lines].where(text: "before").count == SHOWS }
    @second.kill
    wait_for(-> { "the first to have all: #{places}" }) { places.values.uniq == ["127.0.0.1:#{@app.port}"] }
    wait_for("all screens to be back") { gauge(@app, "pages_relayed") >= SHOWS }
    until_all_read(@app)
    server.say("ann", "after")
    all_show("before", "after")
    # Whoever is there again gets a share again.
    @second.start
    until_shared
    wait_for("all screens to be back") { gauge(@app, "pages_relayed") + gauge(@second, "pages_relayed") >= SHOWS }
    server.say("ann", "again")
    all_show("before", "after", "again")
  end

  def test_after_the_database_was_away_each_show_goes_on_where_it_was
    begin_all
    open_all
    before = places
    TestDatabase.away do
      wait_for("both to know") { [@app, @second].all? { |app| gauge(app, "database_up").zero? } }
      server.say("ann", "meanwhile")
      all_show("meanwhile")
    end
    # Whoever is asked first does not have it for that: in the very moment in which nobody has a lock.
    wait_for("both to be there again") do
      shows.each { |one| Net::HTTP.get_response(URI(link_of(one))) }
      workers.alive.size == 2
    end
    wait_for("both to say so") { [@app, @second].all? { |app| gauge(app, "database_up") == 1 } }
    wait_for("all to be locked again") { Bavard::Store::Lease.held(TestDatabase.db, Bavard::Store::Lease::KIND).count == SHOWS }
    server.say("ann", "after")
    all_show("meanwhile", "after")
    assert_equal before, places
    refute_includes File.read(@app.log), "taken over"
    assert_equal [SHOWS / 2] * 2, [gauge(@app, "shows_awake"), gauge(@second, "shows_awake")]
  end

  # The one that reaches it takes over, and until then nothing is done twice.
  def test_where_one_alone_does_not_reach_the_database_its_shows_go_on_where_it_is_reached
    line = Proxy.new(URI(TestDatabase.url).port)
    @started << line
    begin_all("DATABASE_URL" => TestDatabase.url.sub(%r{:\d+/}, ":#{line.port}/"))
    open_all
    server.say("ann", "before")
    all_show("before")
    kept(SHOWS)
    moved = shows.select { |one| app_of(one.show) == @second }
    line.cut
    wait_for(-> { "the first to have all: #{places}" }) { places.values.uniq == ["127.0.0.1:#{@app.port}"] }
    until_all_read(@app)
    wait_for("the second to have let go") { gauge(@second, "cut_off") == 1 && gauge(@second, "shows_awake").zero? }
    assert JSON.parse(Net::HTTP.get(URI("#{@second.address}/healthz"))).dig("shows", "cut_off")
    wait_for("all screens to be back") { gauge(@app, "pages_relayed") >= SHOWS }
    server.say("ann", "after")
    all_show("before", "after")
    kept(SHOWS * 2)
    pull_everything_of(moved)
    line.mend
    wait_for("the second to be one of two again") { gauge(@second, "cut_off").zero? && workers.alive.size == 2 }
    until_shared
    server.say("ann", "again")
    all_show("again")
    kept(SHOWS * 3)
  end

  # Whoever of the two is asked, the one that reaches the database does it.
  def pull_everything_of(moved)
    moved.each do |one|
      browser = HostsBrowser.new("http://127.0.0.1:#{in_front}")
      browser.sign_in("host#{one.browser}@reedmere.example", PASSWORD)
      TestDatabase.db[:lines].where(show_id: one.show.id).select_map(:id).each do |line|
        assert_equal "200", browser.post_json("/prompter/", "/prompter/act", {do: "pull", line:}).code
      end
      on_screen(:"screen#{one.show.id}") { assert_no_selector ".line" }
    end
  end

  def test_a_show_goes_on_elsewhere_where_somebody_asks_for_that
    begin_all
    open_all
    server.say("ann", "before")
    all_show("before")
    from = app_of(@show)
    to = ([@app, @second] - [from]).first
    workers.ask_for(@show.id, "127.0.0.1:#{to.port}")
    wait_for(-> { "it to be there: #{places}" }) { app_of(@show) == to }
    # The other has fewer then, and is given one: whoever spoke on the way would not be heard.
    until_shared
    wait_for("all screens to be back") { gauge(@app, "pages_relayed") + gauge(@second, "pages_relayed") >= SHOWS }
    server.say("ann", "after")
    all_show("before", "after")
  end
end
