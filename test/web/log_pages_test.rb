# frozen_string_literal: true

require_relative "../support/lines"
require "minitest/mock"
require_relative "../support/web_test"
require_relative "../../lib/bavard/live/rehearsal/playback"

class LogPagesTest < WebTest
  def setup
    super
    sign_up
    feed = stores.feeds.create(@record.id, kind: "irc", name: "Marsh", shape: "circle", colour: "#5fb8d6", address: {})
    entries = [["hello <script>alert(1)</script>", "ann"], ["!ring", "bob"]].each_with_index.map do |(text, login), number|
      line = Lines.line((clock.call * 1000) + number, text, at_ms: clock.call + number, login:, feed_id: feed.id, platform_id: "m#{number}")
      verdict = login == "bob" ? Bavard::Core::Gate::Verdict.new(:drop, "command_lines", "!ring") : Bavard::Core::Gate::PASS
      Bavard::Store::Lines::Entry.new(line, verdict, login == "ann", false,
        [["received", clock.call, nil], ["judged", clock.call, verdict.rule || "passed"], ["shown", clock.call, "aired"],
          ["painted", clock.call, ["Main", "a browser"]], ["edited", clock.call, "hallo"]])
    end
    stores.lines.add(@record.id, entries)
  end

  def test_what_came_in_with_its_steps_and_every_character_harmless
    get "/log/"
    assert_includes last_response.body, "hello &lt;script&gt;alert(1)&lt;/script&gt;"
    refute_includes last_response.body, "<script>alert"
    assert_includes last_response.body, "kept off: Command lines"
    assert_includes last_response.body, "Gate let it through"
  end

  def test_searching
    get "/log/", {"person" => "@Bob"}
    assert_includes last_response.body, "!ring"
    refute_includes last_response.body, "hello"
    get "/log/", {"text" => "nothing of this"}
    assert_includes last_response.body, "Nothing that fits"
    get "/log/", {"from" => "not a time"}
    assert_equal 422, last_response.status
    assert_includes last_response.body, "A time is written as in"
  end

  def test_every_export_has_both_lines_or_says_why_not
    {"csv" => "text/csv", "jsonl" => "application/jsonl", "activities" => "application/activity+json", "vtt" => "text/vtt"}.each do |format, type|
      get "/log/export/#{format}"
      assert last_response.headers["content-type"].start_with?(type), format
      assert_includes last_response.body, "hello", format
      assert_equal format != "vtt", last_response.body.include?("!ring"), format
    end
    get "/log/export/jsonl", {"person" => "bob"}
    assert_equal 1, last_response.body.lines.size
    get "/log/export/exe"
    assert_equal 404, last_response.status
  end

  def test_whoever_meets_a_busy_program_is_told_when_to_ask_again
    Bavard::Web::ExportStream::PLACES.stub(:take?, false) { get "/log/export/csv" }
    assert_equal [503, "2"], [last_response.status, last_response.headers["retry-after"]]
    assert_includes last_response.body, "Another export"
  end

  def test_an_export_is_played_back_into_the_draft_alone
    make_stage
    get "/log/export/jsonl"
    file = Rack::Test::UploadedFile.new(StringIO.new(last_response.body), "application/jsonl", true, original_filename: "log.jsonl")
    answer = send_form("/stage/#{@stage.id}/play", {"file" => file, "speed" => "0.1"})
    assert_equal 2, answer["lines"]
    assert_equal Bavard::Live::Script::LOG, @shows.run(@record.id).ask { |show| show.desk(@stage.id).room.report(show.now_ms)[:key] }
    assert_equal "file", send_form("/stage/#{@stage.id}/play", {"speed" => "1"})["field"]
  end

  def test_how_long_it_is_kept
    assert_equal "days", send_form("/log/keep", {"days" => "0"})["field"]
    2.times { send_form("/log/keep", {"days" => "30"}) }
    assert_equal 30, stores.shows.find(@record.id).keep_days
    until_written
    assert_equal [["keep", "30 days"]], db[:deeds].select_map(%i[what about])
  end

  # Only where their name is typed once more: it cannot be taken back.
  def test_a_viewer_who_wants_to_be_forgotten
    feed = db[:feeds].get(:id)
    get "/log/"
    refute_includes last_response.body, "wants to be forgotten"
    get "/log/", {"person" => "@Ann"}
    assert_includes last_response.body, "1 entry on Marsh"
    assert_equal "typed", send_form("/log/erase", {"feed" => feed, "login" => "ann", "typed" => "an"})["field"]
    get "/log/"
    assert_includes last_response.body, "hello"
    assert_equal 1, send_form("/log/erase", {"feed" => feed, "login" => "ann", "typed" => " ann "})["lines"]
    get "/log/"
    refute_includes last_response.body, "hello"
    assert_includes last_response.body, ">erased<"
    assert_empty(@shows.run(@record.id).ask { |show| show.lines.to_a.select { |kept| kept.line.person.login == "ann" } })
    until_written
    assert_equal [["erase", "1 line"]], db[:deeds].select_map(%i[what about])
  end

  def test_nothing_is_erased_while_what_was_said_last_is_not_written
    journal = @shows.run(@record.id).ask(&:journal)
    answer = journal.stub(:all_of?, false) { send_form("/log/erase", {"feed" => db[:feeds].get(:id), "login" => "ann", "typed" => "ann"}) }
    assert_equal 503, last_response.status
    assert_includes answer["error"], "Nothing of it was erased yet"
    assert_equal 1, db[:lines].where(login: "ann").count
  end

  def test_another_hosts_log_is_not_to_be_seen
    clear_cookies
    @csrf = nil
    sign_up(email: "other@reedmere.example")
    get "/log/"
    refute_includes last_response.body, "hello"
    get "/log/export/csv"
    refute_includes last_response.body, "hello"
  end
end
