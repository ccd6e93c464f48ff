# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/proxy"

# The process killed, the database gone: what viewers see goes on.
class CrashTest < PreparedTest
  def test_what_stood_stands_again_once_with_what_was_said_meanwhile
    prepare(own: true, feed: oxbow.address)
    5.times { |number| say("line #{number}") }
    open_screen(link) { assert_selector ".line", count: 5 }
    until_logged
    @app.kill
    say("said while it was down")
    @app.start
    on_screen do
      assert_selector ".line", text: "said while it was down"
      assert_equal ["line 0", "line 1", "line 2", "line 3", "line 4", "said while it was down"], texts
    end
    open_screen(link, name: :fresh) { assert_selector ".line", count: 6 }
  end

  def test_lines_have_the_time_left_that_they_had
    prepare(own: true, feed: oxbow.address, pieces: [PIECE.merge("stay_ms" => 6000)])
    say("soon over")
    open_screen(link) { assert_selector ".line", text: "soon over" }
    until_logged
    shown_at = TestDatabase.db[:lines].get(:shown_at_ms)
    @app.kill
    @app.start
    on_screen { assert_no_selector ".line", text: "soon over" }
    assert_operator now_ms, :>=, shown_at + 6000
    assert_equal shown_at, TestDatabase.db[:lines].get(:shown_at_ms)
  end

  def test_a_line_deleted_while_the_application_was_down_goes
    prepare(own: true, feed: oxbow.address)
    say("to be deleted")
    say("to stay")
    open_screen(link) { assert_selector ".line", count: 2 }
    until_logged
    @app.kill
    oxbow.post("/delete", "id" => oxbow.lines.first["id"])
    @app.start
    on_screen { assert_no_selector ".line", text: "to be deleted" }
    on_screen { assert_selector ".line", text: "to stay", count: 1 }
  end

  def test_where_the_server_keeps_no_history_the_feed_shows_the_gap
    stand_on_screen("known")
    until_logged
    @app.kill
    server.cut
    @app.start
    sign_in
    assert_text(/Nothing is known from \d\d:\d\d:\d\d to \d\d:\d\d:\d\d/)
  end

  def test_without_the_database_lines_go_on_and_are_logged_once_it_is_back
    prepare(own: true, feed: feed_address)
    until_live
    open_screen(link)
    sign_in
    with_database_away do
      server.say("ann", "nothing stops us")
      on_screen { assert_selector ".line", text: "nothing stops us" }
      visit "/feeds"
      assert_text "The database does not answer just now"
      assert_equal "503", Net::HTTP.get_response(URI("#{@app.address}/healthz")).code
    end
    wait_for("the line to be in the log") { TestDatabase.db[:lines].where(text: "nothing stops us").count == 1 }
    # By itself.
    assert_text "What comes in"
  end

  # @return [Array<String>] what was said, in their order
  def texts_in(files) = files.sort.flat_map { |file| File.readlines(file).filter_map { |line| line[/said into nothing \d/] } }

  # What could not be written lies in files by then.
  def test_killed_while_the_database_is_away_it_keeps_what_came_in
    said = Array.new(3) { |number| "said into nothing #{number}" }
    prepare(own: true, feed: feed_address)
    until_live
    open_screen(link)
    with_database_away do
      said.each { |text| server.say("ann", text) }
      on_screen { assert_selector ".line", count: 3 }
      wait_for("all of it to lie in files") { texts_in(Dir[File.join(@app.folder, "unwritten", "*", "*")]) == said }
      @app.kill
    end
    @app.start
    assert_equal(said, TestDatabase.db[:lines].order(:id).select_map(:text))
    assert_empty Dir[File.join(@app.folder, "unwritten", "*", "*")]
  end

  # There, but it says nothing any more.
  def test_a_database_that_hangs_is_as_one_that_is_away
    between = database_behind_a_proxy
    prepare(own: true, feed: feed_address, env: {"DATABASE_URL" => TestDatabase.url.sub(%r{:\d+/}, ":#{between.port}/")})
    until_live
    open_screen(link)
    sign_in
    visit "/prompter/"
    server.say("ann", "not to be seen")
    on_screen { assert_selector ".line", text: "not to be seen" }
    find(".row", text: "not to be seen").click
    between.stall
    page.driver.browser.keyboard.type("x")
    on_screen { assert_no_selector ".line", text: "not to be seen" }
    wait_for("it to be noticed") { File.read(@app.log).include?("the database does not answer") }
    server.say("ann", "nothing stops us")
    on_screen { assert_selector ".line", text: "nothing stops us" }
    visit "/feeds"
    assert_text "The database does not answer just now"
    between.go_on
    wait_for("what was done and said to be kept") do
      TestDatabase.db[:deeds].where(show_id: @show.id).select_map(:what) == %w[pull] && TestDatabase.db[:lines].where(text: "nothing stops us").any?
    end
    assert_text "What comes in"
  end

  def test_without_the_database_whoever_was_there_pulls_and_brakes_at_once
    prepare(own: true, feed: feed_address)
    until_live
    open_screen(link)
    sign_in("/gate")
    visit "/prompter/"
    server.say("ann", "not to be seen")
    on_screen { assert_selector ".line", text: "not to be seen" }
    find(".row", text: "not to be seen").click
    with_database_away do
      page.driver.browser.keyboard.type("x")
      on_screen { assert_no_selector ".line", text: "not to be seen" }
      assert_selector ".row.pulled", text: "not to be seen"
      visit "/gate"
      page.driver.browser.keyboard.type("h")
      assert_text "Take the brake off"
      server.say("ann", "held by the brake")
      visit "/prompter/"
      assert_selector ".row.waits", text: "held by the brake"
      on_screen { assert_no_selector ".line", text: "held by the brake" }
      # Somebody who was not there is told why they get no further.
      assert_equal "503", Net::HTTP.post_form(URI("#{@app.address}/prompter/#{"x" * 32}/act"), {}).code
    end
    wait_for("what was done to be kept") { TestDatabase.db[:deeds].where(show_id: @show.id).select_order_map(:what) == %w[brake pull] }
  end

  def test_begun_while_the_database_is_away_it_says_so_and_goes_on_by_itself
    stand_on_screen("said before")
    sign_in
    until_logged
    @app.kill
    with_database_away do
      @app.begin_to_start
      wait_for("it to answer") { waits_for == "the database" }
      visit "/feeds"
      assert_text "Bavard waits for the database. What screens show stays there."
      on_screen { assert_selector ".line", text: "said before" }
      open_screen(link, name: :late) { assert_no_selector "main, p" }
    end
    assert_text "What comes in"
    until_live
    server.say("ann", "said after")
    [:screen, :late].each { |name| on_screen(name) { assert_selector ".line", text: "said after" } }
  end

  def test_a_database_that_goes_while_it_begins_is_waited_for
    between = begun_without_its_database
    assert_equal "the database", waits_for
    between.mend
    @app.until_it_answers
  end

  def test_whoever_ends_it_then_need_not_wait
    begun_without_its_database
    @app.stop
    refute_includes File.read(@app.log), "DatabaseConnectionError"
  end

  private

  # @return [Proxy] which lets nobody through but its first looks
  def begun_without_its_database
    between = database_behind_a_proxy
    # It looks whether the database is there, and whether it could lock shows; what it begins after that is refused.
    between.let_in(2)
    @app = RunningApp.new(env: {"DATABASE_URL" => TestDatabase.url.sub(%r{:\d+/}, ":#{between.port}/")})
    @started << @app
    @app.begin_to_start
    wait_for("it to wait") { File.read(@app.log).include?("waiting for the database: ") }
    between
  end

  # An application of our own, with one line that somebody said.
  def stand_on_screen(text)
    prepare(own: true, feed: feed_address)
    until_live
    server.say("ann", text)
    open_screen(link) { assert_selector ".line", text: }
  end

  def waits_for
    JSON.parse(Net::HTTP.get(URI("#{@app.address}/healthz")))["waits_for"]
  rescue SystemCallError, EOFError
    nil
  end

  def say(text)
    wait_for("the feed to be there") { oxbow_sees_us? }
    oxbow.post("/say", "login" => "birdbath", "text" => text)
  end

  # While the application is down nobody has to be there.
  def oxbow_sees_us?
    !@app.running? || (Net::HTTP.get(URI("#{@app.address}/metrics")) && live?)
  end

  def live?
    @live ||= wait_for("the feed to have been heard") { TestDatabase.db[:feeds].get(:heard_at_ms) }
  end

  def until_logged
    wait_for("the log to be written") do
      JSON.parse(Net::HTTP.get(URI("#{@app.address}/healthz")))["log"] == {"waiting" => 0, "in_files" => [], "lost" => 0, "shedding" => []}
    end
  end

  def texts = page.all(".line .text").map(&:text).reverse

  def now_ms = Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond)

  def database_behind_a_proxy
    TestDatabase.use(:house)
    Proxy.new(URI(TestDatabase.url).port).tap { |proxy| @started << proxy }
  end

  def with_database_away(&block) = TestDatabase.away(&block)
end
