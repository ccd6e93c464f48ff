# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/lines"
require_relative "../support/web_test"

# What the Air station tells of the way to the screens.
class AirTest < WebTest
  Kept = Struct.new(:id, :line, :state, :shown)
  Line = Struct.new(:origin, :arrived_at_ms, :shown_at_ms)
  State = Struct.new(:name)

  def setup
    super
    sign_up
    get "/feeds"
  end

  def show = @shows.running.first
  def times = JSON.parse(get("/links/times").body)

  def test_how_long_lines_took_to_a_screen_with_the_hold_they_are_told_without
    assert_equal [0, 0], times.values_at("lines", "hold_ms")
    send_json("/gate/hold", {"ms" => 4000})
    show.ask do |one|
      now_ms = one.now_ms
      [20, 41, 60].each_with_index do |took, id|
        one.screen_times.painted(Kept.new(id, Line.new(:feed, now_ms - took, now_ms - took), State.new(:aired)), now_ms, 0)
      end
    end
    assert_equal [3, 41, 60, 4000], times.values_at("lines", "half_ms", "most_ms", "hold_ms")
    assert_equal 3, times["bars"].sum
  end

  def test_it_stands_on_the_page_before_there_is_anything_to_tell
    assert_includes get("/links/").body, "Waiting for a line that a screen paints."
  end

  # What is looked at before a broadcast.

  def checks = JSON.parse(get("/links/checks").body)["checks"].to_h { |check| [check["key"], check] }

  # As the page presses it.
  def mend(key)
    path, sends, form = checks.fetch(key)["mend"].values_at("path", "sends", "form")
    form ? send_form(path, sends) : send_json(path, sends)
    assert_equal 200, last_response.status, last_response.body
  end

  def stage_id = db[:stages].get(:id)

  def edit(edit) = send_json("/stage/#{stage_id}/edits", edit)

  def test_a_new_show_is_told_what_is_missing
    assert_equal({"feeds" => "No chat is read", "screens" => "No screen shows it yet"}, checks.values.reject { |check| check["well"] }.to_h { |check| check.values_at("key", "title") })
    send_form("/lead/stage")
    assert_equal "Nothing of Main is on air", checks["on_air"]["title"]
    mend("on_air")
    assert_equal [true, "Main r1."], checks["on_air"].values_at("well", "words")
  end

  def test_each_press_mends_what_it_is_offered_for
    send_form("/lead/stage")
    mend("on_air")
    edit("do" => "set", "piece" => "chat1", "values" => {"x" => 1900, "text_colour" => "#808080", "plate_for" => "none", "stay_by" => "time", "stay_ms" => 3000, "keep_last" => 0})
    mend("on_air")
    show.ask { |one| one.desk(stage_id).show(::Lines.line(1, "a line that takes some time to read " * 4, at_ms: clock.call)) }
    send_json("/gate/brake", {"kind" => "hold_all"})
    assert_equal({"on_air" => true, "legible" => false, "lasting" => false, "hidden" => false, "gate" => false},
      checks.slice("on_air", "legible", "lasting", "hidden", "gate").transform_values { |check| check["well"] })
    %w[legible lasting hidden gate].each { |key| mend(key) }
    mend("on_air")
    assert_empty checks.values_at("on_air", "lasting", "hidden", "gate").reject { |check| check["well"] }
    assert_operator checks["legible"]["words"][/[\d.]+/].to_f, :>, 1.5
  end

  def test_a_file_that_is_gone_from_the_disk_is_missed
    send_form("/lead/stage")
    id = send_form("/stage/#{stage_id}/files", "kind" => "picture", "file" => Rack::Test::UploadedFile.new(StringIO.new(Drawings.png(300, 200)), "image/png", original_filename: "wren.png")).dig("file", "id")
    edit("do" => "add", "kind" => "picture", "values" => {"pictures" => [{"file" => id, "seconds" => 4}]})
    mend("on_air")
    assert_equal [true, "1 picture."], checks["files"].values_at("well", "words")
    Dir["#{pictures_folder}/**/#{id}-*"].each { |file| File.delete(file) }
    assert_equal [false, "1 file not there", "The picture of Main."], checks["files"].values_at("well", "title", "words")
  end

  # A broadcast's report.

  def said(text, after_ms: 0, **more)
    at_ms = clock.call + after_ms
    line = ::Lines.line((at_ms * 1000) + (@said = @said.to_i + 1), text, at_ms:, feed_id: feed.id, **more)
    stores.lines.add(@record_id ||= db[:shows].get(:id), [Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false, [])])
  end

  def feed
    @feed ||= stores.feeds.create(db[:shows].get(:id), kind: "irc", name: "<b>Oxbow</b>", shape: "ring", colour: "#63c58a",
      address: {"host" => "127.0.0.1", "port" => 1, "tls" => false, "channel" => "#y", "nick" => nil}, password: nil)
  end

  def test_the_report_of_a_show_in_which_nothing_happened
    assert_includes get("/links/report").body, "Nothing came in between these times."
    assert_equal 0, JSON.parse(get("/links/report/json").body)["lines"]
  end

  def test_the_report_is_of_the_last_broadcast_or_of_what_is_asked_for
    said("before", after_ms: -5000)
    show.ask(&:begin_broadcast)
    said("within")
    said("within too", after_ms: 2000)
    clock.now_ms += 60_000
    show.ask(&:end_broadcast)
    said("after", after_ms: 1000)
    clock.now_ms += 60_000
    report = JSON.parse(get("/links/report/json").body)
    assert_equal [2, ["<b>Oxbow</b>"]], [report["lines"], report["feeds"].map { |one| one["name"] }]
    body = get("/links/report").body
    assert_includes body, "&lt;b&gt;Oxbow&lt;/b&gt;"
    refute_includes body, "<b>Oxbow"
    from = Time.at((clock.call / 1000) - 3600).strftime("%FT%H:%M")
    assert_equal 4, JSON.parse(get("/links/report/json?#{Rack::Utils.build_query("from" => from, "to" => Time.at((clock.call / 1000) + 60).strftime("%FT%H:%M"))}").body)["lines"]
    assert_equal "text/csv; charset=utf-8", get("/links/report/csv").content_type
    assert_includes last_response.headers["content-disposition"], "broadcast.csv"
  end

  def test_times_that_cannot_be_are_refused_in_words
    {"from=nonsense" => "A time is written as", "from=2026-11-24T05:30&to=2026-11-23T05:30" => "It ends before it begins", "from=2020-01-01" => "no more than 7 days",
     "from=99999999999999999-01-01" => "It ends before it begins", "from[]=x" => "A time is written as"}.each do |query, words|
      body = get("/links/report?#{query}").body
      assert_equal 422, last_response.status, query
      assert_includes body, words, query
    end
    assert_equal 404, get("/links/report/pdf").status
  end

  def test_what_a_link_says_of_its_screen_reaches_the_page_and_is_told_before
    told = JSON.parse(get("/links/options?#{Rack::Utils.build_query("options" => "?Badges=off&pieces=chat,goal&only=sparkle&goal.size=40&seconds=8")}").body)
    assert_equal [["badges: none", "seconds shown: 8 s", "goal: text size: 40 px", "only chat, goal"], ["only=sparkle"]], told.values_at("understood", "not_understood")
    link = URI(send_form("/lead/stage")["link"]).path
    options = JSON.parse(CGI.unescapeHTML(get("#{link}?Badges=off&pieces=chat,goal&goal.size=40&lines=3").body[/data-options="([^"]+)"/, 1]))
    assert_equal({"css" => {}, "parts" => {"badges" => "none"}, "lines" => 3, "only" => %w[chat goal],
                  "of" => {"goal" => {"css" => {"--text-size" => "40px"}, "parts" => {}}}}, options)
    refute_includes get("#{link}?pieces=%22%3E%3Cscript%3E").body, "<script>"
  end

  # The second row.

  def test_it_leads_back_to_the_piece_that_somebody_came_from_and_nowhere_else
    back = ->(from) { get("/dress/cues/?#{Rack::Utils.build_query("from" => from)}").body[/<li class="push"><a href="([^"]*)"/, 1] }
    assert_equal "/stage/3#alerts12", back["3.alerts12"]
    ["", "3", "3.alerts", "javascript:alert(1)", "//elsewhere.example", "3.a1\nx", "#{"9" * 19}.chat1", "3.<b>1"].each { |from| assert_nil back[from], from }
    assert_nil get("/dress/cues/?from[]=3.chat1").body[/<li class="push">/]
  end

  def rooms = get(@path).body[%r{<nav class="rooms".*?</nav>}m].to_s.scan(/<a href="([^"]+)"( aria-current="page")?>([^<]+)(?:<span class="figure"[^>]*>(\d+))?/)

  def test_stations_with_more_than_one_room_show_them_with_their_figures
    {"/links/report" => ["/links", "/links/report"], "/dress/cast/" => %w[/dress /dress/cast/ /dress/cues/ /dress/files/ /dress/fellows/],
     "/log/" => %w[/gate /people/ /log/], "/feeds" => %w[/feeds /feeds/describe/]}.each do |path, all|
      @path = path
      assert_equal [all, [path]], [rooms.map(&:first), rooms.select { |room| room[1] }.map(&:first)]
    end
    @path = "/dress/cues/"
    assert_equal ["0", "0", Bavard::Core::Cues::Cue.defaults.size.to_s], rooms.values_at(3, 1, 2).map(&:last)
    assert_empty rooms.reject { |path, *| get(path).status == 200 }
    refute_includes get("/stage").body, 'class="rooms"'
  end

  def test_a_busy_show_leaves_rooms_without_figures_and_the_log_to_be_read
    busy = ->(*) { raise Bavard::Busy, "The show is busy." }
    show.stub(:ask, busy) do
      @path = "/log/"
      assert_equal ["/gate", nil], rooms.first.values_at(0, 3)
      assert_equal 200, last_response.status
      assert_equal 503, get("/links/").status
    end
  end
end
