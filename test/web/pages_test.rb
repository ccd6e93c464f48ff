# frozen_string_literal: true

require "zlib"
require_relative "../support/minimal_irc"
require_relative "../support/web_test"

class PagesTest < WebTest
  Assets = Bavard::Web::Assets
  ASSETS = Assets::FOLDER

  def test_every_page_has_a_strict_policy
    sign_up
    %w[/feeds /gate /dress /log/ /stage /links /account/login /air/none /nowhere /healthz].each do |path|
      get path
      policy = last_response.headers["content-security-policy"]
      assert_includes policy, "script-src 'self';", path
      refute_match(/unsafe|\*|https?:/, policy, path)
    end
  end

  def test_no_page_has_inline_script_style_or_handlers
    sign_up
    make_stage
    stage = "/stage/#{@stage.id}"
    ["/feeds", "/gate", "/dress", "/log/", stage, "#{stage}/draft", "/links", "/air/#{@stage.token}", "/account/change-password",
      "/account/otp-setup"].each do |path|
      get path
      assert_equal 200, last_response.status, path
      refute_match(/<script(?![^>]*\ssrc=)|<style|\sstyle=|\son[a-z]+=/i, last_response.body, path)
      refute_match(%r{(?:src|href|action)="(?:https?:)?//}, last_response.body, path)
    end
  end

  def test_every_page_says_which_it_is
    sign_up
    db[:accounts].update(operator: true)
    pages = %w[/feeds /feeds/describe/ /gate /people/ /log/ /dress /dress/cast/ /dress/cues/ /dress/files/ /dress/fellows/ /stage /links /links/report
      /operator/ /prompter/ /feeds/nowhere]
    titles = pages.to_h { |path| [path, (follow_redirect! while get(path).redirect?) || last_response.body[/<title>(.*?) ·/, 1]] }
    assert_empty(titles.select { |_, title| title.to_s.strip.empty? })
    assert_equal titles.values.uniq, titles.values
    assert_equal ["/feeds/nowhere"], titles.select { |_, title| title == "Nothing here" }.keys
  end

  def test_a_form_from_elsewhere_is_refused
    sign_up
    post "/feeds/", {"paste" => "irc://x.example/#a"}
    assert_equal 403, last_response.status
    assert_empty stores.feeds.of_show(@record.id)
  end

  def test_hostile_words_are_escaped
    sign_up(show: %(<script>"x"</script>))
    get "/feeds"
    assert_includes last_response.body, "&lt;script&gt;"
    refute_includes last_response.body, "<script>\"x\""
  end

  def test_one_host_cannot_touch_what_is_anothers
    sign_up(email: "one@reedmere.example")
    make_stage
    feed = stores.feeds.create(@record.id, kind: "irc", name: "One", shape: "circle", colour: "#5fb8d6",
      address: {"host" => "127.0.0.1", "port" => 1, "tls" => false, "channel" => "#x", "nick" => nil})
    clear_cookies
    sign_up(email: "two@reedmere.example")
    %w[connect disconnect remove put-back mapping].each do |act|
      send_form("/feeds/#{feed.id}/#{act}")
      assert_includes [404, 404], last_response.status, act
    end
    %w[put-on-air undo clear rehearse backdrop].each do |act|
      send_form("/stage/#{@stage.id}/#{act}")
      assert_equal 404, last_response.status, act
    end
    send_form("/links/#{@stage.id}/new-link")
    assert_equal 404, last_response.status
    get "/stage/#{@stage.id}/live", {}, {"HTTP_CONNECTION" => "Upgrade", "HTTP_UPGRADE" => "websocket"}
    assert_equal 404, last_response.status
    assert_equal @stage.token, stores.stages.find(@stage.id).token
  end

  def test_adding_a_feed_by_pasting_and_what_is_wrong_with_it
    sign_up
    assert_equal "channel", send_form("/feeds/", {"paste" => "irc://x.example"})["field"]
    assert_equal 422, last_response.status
    refused = send_form("/feeds/", {"paste" => "IRC://127.0.0.1:1/%23Dawn", "nick" => "", "password" => ""})
    assert_equal ["Nothing answers at 127.0.0.1, port 1.", true], refused.values_at("error", "anyway")
    assert_empty stores.feeds.of_show(@record.id)
    send_form("/feeds/", {"paste" => "IRC://127.0.0.1:1/%23Dawn", "nick" => "", "password" => "", "anyway" => "1"})
    feed = stores.feeds.of_show(@record.id).first
    assert_equal ["dawn", "#dawn", 1, "circle"], [feed.name, feed.address["channel"], feed.address["port"], feed.shape]
    send_form("/feeds/", {"paste" => "127.0.0.1#other", "anyway" => "1"})
    assert_equal %w[circle diamond], stores.feeds.of_show(@record.id).map(&:shape)
  end

  def test_a_feed_added_as_the_first_thing_of_all_is_read_once
    sign_up
    server = MinimalIrc.new
    send_form("/feeds/", {"paste" => "127.0.0.1:#{server.port}#a"})
    wait_for("the feed") { server.clients.positive? }
    @shows.run(@record.id).ask { |show| show.want_feed(show.lanes.keys.first, false) }
    wait_for("everybody to be gone") { Thread.list.none? { |thread| thread.name.to_s.start_with?("feed-") } }
  ensure
    server&.stop
  end

  def test_the_mapping_is_read_and_kept
    sign_up
    id = send_form("/feeds/", {"paste" => "127.0.0.1:1#a", "anyway" => "1"})["id"]
    get "/feeds/#{id}/mapping"
    assert_includes JSON.parse(last_response.body)["entries"].map { |entry| entry["entry"] }, "display_name"
    assert_equal "colour", send_form("/feeds/#{id}/mapping", {"colour" => "<>"})["field"]
    send_form("/feeds/#{id}/mapping", {"colour" => "x/colour", "display_name" => "x/name", "anybody" => "colour"})
    until_written
    assert_equal ["x/colour"], stores.feeds.find(id).mapping["colour"]
  end

  def test_an_unknown_link_is_an_empty_page_with_nothing_to_read
    get "/air/#{"x" * 32}"
    assert_equal 404, last_response.status
    assert_equal "", last_response.body[%r{<body.*</body>}m].gsub(/<[^>]*>/, "").strip
  end

  # Whatever is made of a link: on the picture nobody reads anything.
  def test_what_is_no_link_at_all_is_an_empty_page_too
    sign_up
    make_stage
    {"/air" => 404, "/air/" => 404, "/air/%FF" => 404, "/air/%00" => 404, "/air/%FF/behind" => 404, "/air/#{"a" * 5000}" => 404, "/air/%" => 404, "/air/#{@stage.token}/beside" => 404, "/air/a/b/c/d" => 404,
     "/air/#{@stage.token}/said/none.wav" => 404, "/air/a/said/1.wav" => 404}.each do |path, status|
      answered, _, body = app.call(Rack::MockRequest.env_for("/").merge("PATH_INFO" => path, "HTTP_ACCEPT" => "text/html"))
      text = body.each.to_a.join
      assert_equal [status, ""], [answered, text[%r{<body.*</body>}m].to_s.gsub(/<[^>]*>/, "").strip], path
      refute_match(/not found|bad request/i, text, path)
    end
  end

  def test_a_slash_behind_a_link_is_no_other_link
    sign_up
    make_stage
    ["", "/behind"].each do |side|
      get "/air/#{@stage.token}#{side}/"
      assert_equal 200, last_response.status
      assert_includes last_response.body, %(data-socket="/air/#{@stage.token}/live")
    end
  end

  def test_the_air_page_sets_no_cookie_and_needs_none
    sign_up
    make_stage
    clear_cookies
    get "/air/#{@stage.token}"
    assert_equal 200, last_response.status
    assert_nil last_response.headers["set-cookie"]
  end

  def test_options_that_are_not_understood_are_named_while_editing_and_not_on_air
    sign_up
    make_stage
    get "/stage/#{@stage.id}/draft?Size=30&sparkle=1"
    assert_includes last_response.body, "Not understood in the link: sparkle=1"
    assert_includes last_response.body, "30px"
    get "/air/#{@stage.token}?Size=30&sparkle=1"
    refute_includes last_response.body, "Not understood"
    assert_includes last_response.body, "30px"
  end

  def test_hostile_options_do_no_harm
    sign_up
    make_stage
    ["%", "a[b", "size[]=1&size[x]=2", "%FF%FE=1", "a=1&" * 5000, "face=\"><script>", "=&&=;"].each do |query|
      status, _, body = app.call(Rack::MockRequest.env_for("/air/#{@stage.token}").merge("QUERY_STRING" => query, "HTTP_ACCEPT" => "text/html"))
      assert_equal 200, status, query[0, 40]
      text = body.each.to_a.join
      refute_includes text, "><script>"
      assert_includes text, %(data-socket="/air/#{@stage.token}/live"), query[0, 40]
      assert_equal "", text[%r{<body.*</body>}m].gsub(/<[^>]*>/, "").strip, query[0, 40]
    end
  end

  # Ours it is not: nobody is called for it, whoever sends it however often.
  def test_a_query_that_cannot_be_read_is_refused_and_no_fault_of_ours
    stations = Bavard::Web::App::STATIONS.keys.map { |path| "#{path}/" } + %w[/ /prompter/]
    links = ["/mic/none", "/prompter/#{"a" * 32}", "/people/join/none"]
    sign_up
    (stations + links).product(["%", "a=1&a[b]=2", "a=1&" * 5000]).each do |path, query|
      status, _, body = app.call(Rack::MockRequest.env_for(path, "HTTP_COOKIE" => cookies).merge("QUERY_STRING" => query, "HTTP_ACCEPT" => "text/html"))
      assert_equal 400, status, "#{path}?#{query[0, 20]}"
      text = body.each.to_a.join
      assert_includes text, "That request cannot be read."
      assert_match(%r{href="/">Go on}, text, path) if stations.include?(path)
    end
    get "/metrics"
    refute_match(/bavard_faults_total\{/, last_response.body)
  end

  def cookies = rack_mock_session.cookie_jar.for(URI("http://example.org/"))

  def test_no_form_value_brings_a_page_down
    sign_up
    make_stage
    values = [nil, "", "\0", "\xFF\xFE", "x" * 5000, ["a"], {"a" => "b"}, "١٢", "-1", "99999999999999999999", "NaN", "{{7*7}}"]
    paths = {"/feeds/" => %w[paste host port tls channel nick password name], "/gate/left-out" => %w[name feed minutes], "/gate/use" => %w[set], "/gate/sets" => %w[name],
             "/stage/#{@stage.id}/rehearse" => %w[script], "/stage/#{@stage.id}/backdrop" => %w[backdrop], "/links/#{@stage.id}/test" => %w[count]}
    somewhere = {"host" => "127.0.0.1", "port" => "1"}
    paths.each do |path, names|
      names.product(values).each do |name, value|
        send_form(path, somewhere.merge(name => value))
        assert_operator last_response.status, :<, 500, "#{path} #{name}=#{value.inspect}"
      end
    end
    assert_equal 0, means.meters.registry.get(:bavard_faults_total).get(labels: {place: "web"}).to_i
  end

  def test_no_edit_brings_a_stage_down
    sign_up
    make_stage
    bodies = ["", "{", "[]", "7", "null", '"x"', "[" * 500, "\xFF", '{"do":"set"}', '{"do":"add","kind":"chat","values":{"x":1e999}}',
      '{"do":"add","kind":"chat","gesture":{}}', '{"do":"put","piece":{"id":"chat7","kind":"chat"},"at":-5}']
    bodies.each do |body|
      send_json("/stage/#{@stage.id}/edits", body)
      assert_operator last_response.status, :<, 500, body[0, 60]
    end
  end

  def test_ids_that_are_none_are_not_found
    sign_up
    %w[/stage/x /stage/0x1 /stage/99999999999999999999 /stage/-1 /feeds/%00/mapping].each do |path|
      get path
      assert_includes [400, 404, 422], last_response.status, path
    end
  end

  def test_a_page_that_finds_no_room_says_so
    sign_up
    @shows.define_singleton_method(:run) { |_| raise Errno::ENOSPC }
    get "/feeds"
    assert_equal 503, last_response.status
    assert_includes last_response.body, Bavard::Live::Disk::FULL
  end

  def test_hosts_and_operators_see_how_a_disk_fills_up_and_has_room_again
    sign_up
    @shows.run(@record.id)
    disk = Bavard::Live::Disk
    [[disk::LOW_KB - 1, disk::LOW, true, "is nearly full"], [0, disk::FULL, false, "is full"], [disk::LOW_KB, nil, true, "has room"]].each do |free_kb, words, ok, state|
      left_on_disk(free_kb)
      wait_for("the host to be told: #{words}") { (clock.now_ms += 3000) && hub.frames("show:#{@record.id}").last&.fetch("trouble") == words }
      get "/healthz"
      assert_equal [200, ok, state], [last_response.status, *JSON.parse(last_response.body).values_at("ok", "disk")]
    end
  end

  # Viewers see nothing of it, and the page comes back by itself.
  def test_a_link_that_cannot_be_looked_up_while_the_database_is_away_is_an_empty_picture
    token = "t" * 32
    get "/air/#{token}"
    assert_equal 404, last_response.status
    nothing = last_response.body
    @shows.define_singleton_method(:by_token) { |_| raise Sequel::DatabaseConnectionError, "away" }
    get "/air/#{token}"
    assert_equal 200, last_response.status
    assert_equal nothing.sub('data-socket=""', %(data-socket="/air/#{token}/live")), last_response.body
  end

  def test_operators_see_health_and_figures
    get "/healthz"
    assert_equal({"ok" => true, "database" => "answers", "clock_ahead_ms" => 0, "disk" => "has room", "log" => {"waiting" => 0, "in_files" => [], "lost" => 0, "shedding" => []},
                  "shows" => {"awake" => 0, "begun" => true, "cut_off" => false}}, JSON.parse(last_response.body))
    get "/healthz/live"
    assert_equal [200, {"ok" => true}], [last_response.status, JSON.parse(last_response.body)]
    get "/healthz/ready"
    assert_equal "answers", JSON.parse(last_response.body)["database"]
  end

  def test_assets_come_from_here_and_cannot_be_left
    get "/assets/css/lines.css"
    assert_equal 200, last_response.status
    %w[/assets/../Gemfile /assets/%2e%2e/Gemfile /assets/..%2fGemfile].flat_map { |path| [path, path.sub("assets", "assets/#{Assets::VERSION}")] }.each do |path|
      get path
      refute_equal 200, last_response.status, path
    end
  end

  def test_what_a_page_asks_for_by_version_is_never_asked_for_again
    sheet = Assets.at("css/lines.css")
    get "/account/login"
    assert_includes last_response.body, Assets.at("css/base.css")
    get sheet
    assert_equal [200, Assets::FOR_GOOD], [last_response.status, last_response["cache-control"]]
    ["/assets/css/lines.css", sheet.sub(Assets::VERSION, "0123456789ab")].each do |path|
      get path
      assert_equal [200, Assets::EACH_TIME], [last_response.status, last_response["cache-control"]], path
      get path, {}, "HTTP_IF_MODIFIED_SINCE" => last_response["last-modified"]
      assert_equal 304, last_response.status
    end
  end

  def test_texts_are_sent_compressed_to_whoever_takes_that
    sheet = File.binread("#{ASSETS}/css/lines.css")
    get Assets.at("css/lines.css"), {}, "HTTP_ACCEPT_ENCODING" => "br, gzip"
    assert_equal ["gzip", last_response.body.bytesize.to_s], last_response.headers.values_at("content-encoding", "content-length")
    sent = Zlib.gunzip(last_response.body)
    assert_equal sheet.gsub(%r{/\*.*?\*/}m, "").split, sent.split
    assert_equal sheet.count("\n"), sent.count("\n")
    ["", "gzip;q=0", "identity"].each do |takes|
      get Assets.at("css/lines.css"), {}, "HTTP_ACCEPT_ENCODING" => takes
      assert_equal [nil, sheet], [last_response["content-encoding"], last_response.body.b], takes
    end
    get Assets.at("vendor/fonts/fraunces-latin-wght-normal.woff2"), {}, "HTTP_ACCEPT_ENCODING" => "gzip"
    assert_nil last_response["content-encoding"]
  end

  # What lies within a text is no comment, whatever it looks like, and no text goes over several lines.
  def test_only_comments_and_what_lines_are_set_in_by_are_left_out_of_what_is_sent
    Dir["#{ASSETS}/js/**/*.js"].each do |file|
      text = File.read(file)
      assert_empty text.gsub(%r{^[ \t]*//[^\n]*$}, "").scan(/`(?:[^`\\]|\\.)*`/m).grep(/\n/), file
      get Assets.at(file.delete_prefix("#{ASSETS}/")), {}, "HTTP_ACCEPT_ENCODING" => "gzip"
      sent = Zlib.gunzip(last_response.body).force_encoding("UTF-8").lines
      wrong = text.lines.zip(sent).reject { |before, after| before.lstrip == after.lstrip || (after == "\n" && before.lstrip.start_with?("//")) }
      assert_empty wrong, file
    end
  end

  # In bytes, as it goes over the wire.
  def sent(name)
    get Assets.at(name), {}, "HTTP_ACCEPT_ENCODING" => "gzip"
    assert_equal [200, "gzip"], [last_response.status, last_response["content-encoding"]], name
    last_response.body.bytesize
  end

  # What many pages want together comes as one, and says all of it.
  def test_sheets_that_belong_together_come_as_one
    get Assets.at("css/pieces.css"), {}, "HTTP_ACCEPT_ENCODING" => ""
    assert_equal [200, "text/css", Assets::FOR_GOOD], [last_response.status, last_response["content-type"], last_response["cache-control"]]
    whole = last_response.body.dup.force_encoding("UTF-8")
    Assets::JOINED.fetch("/css/pieces.css").each { |file| assert_includes whole, File.read(file) }
    get Assets.at("css/pieces.css"), {}, "HTTP_ACCEPT_ENCODING" => "gzip"
    assert_equal whole.gsub(%r{/\*.*?\*/}m, "").split, Zlib.gunzip(last_response.body).force_encoding("UTF-8").split
  end

  # Letters that move are loaded once a cue wants them, and what is heard once this screen is the one.
  # JS and CSS of the air page, gzipped one by one as they go over the wire, without fonts.
  def test_the_air_page_is_light
    scripts = Dir["#{ASSETS}/js/link/*.js"].map { |file| "js/link/#{File.basename(file)}" } - %w[card_keys films letters sounds spoken].map { |name| "js/link/#{name}.js" }
    sheets = File.read("#{ASSETS}/../lib/bavard/web/links/link_page.erb").scan(%r{(?:css|vendor)/\w+\.css}) - ["css/draft.css"]
    assert_includes sheets, "css/pieces.css"
    assert_operator (scripts + sheets).sum { |name| sent(name) }, :<=, 40 * 1024
  end

  def test_every_vendored_thing_has_its_licence
    %w[bulma lucide].each { |name| assert_path_exists "#{ASSETS}/vendor/#{name}/LICENCE" }
    faces = JSON.parse(File.read("#{ASSETS}/vendor.json"))["faces"]
    faces.each { |face| assert_includes File.read("#{ASSETS}/vendor/fonts/#{face["slug"]}/LICENCE"), "SIL" }
  end
end
