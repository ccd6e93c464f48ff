# frozen_string_literal: true

require "open3"
require "yaml"
require_relative "../support/web_test"
require_relative "../support/minimal_irc"

# What operators look at is read by what they read it with (Debian's Prometheus), and names nothing that is not there.
class MetricsTest < WebTest
  OPS = File.expand_path("../../ops", __dir__)

  def setup
    super
    @server = MinimalIrc.new
    make_show_on(@server).then { |record| @record = record }
    @show = @shows.run(@record.id)
    wait_for("the feed") { @server.clients.positive? }
  end

  def teardown
    super
    @server.stop
  end

  # @return [String] what it said
  def promtool(*words, **more)
    said, status = Open3.capture2e({"TMPDIR" => nil}, "promtool", *words, **more)
    assert_predicate status, :success?, said
    said
  end

  def metrics
    get "/metrics"
    assert_equal 200, last_response.status
    last_response.body
  end

  def value(name) = metrics[/^#{Regexp.escape(name)} (\S+)$/, 1]&.to_r

  # Those of the scraper itself aside.
  def named(text) = text.scan(/\bbavard_[a-z_]+/).map { |name| name.delete_suffix("_bucket") }.uniq
  def there = metrics.scan(/^# TYPE (\S+)/).flatten

  def test_prometheus_reads_it
    said = promtool("check", "metrics", stdin_data: metrics)
    assert_empty said
  end

  def test_what_it_says_is_so
    lane = @show.lanes.each_value.first
    assert_equal 1, value("bavard_shows_awake")
    assert_equal 1, value(%(bavard_feed_wanted{show="#{@record.id}",feed="#{lane.feed.id}",kind="irc"}))
    @server.say("ann", "one")
    wait_for("the line to be counted") { value(%(bavard_lines_total{action="pass"})) == 1 }
    assert_equal 1, value(%(bavard_arrival_to_sent_seconds_count{show="#{@record.id}"}))
    assert_equal 1, value("bavard_feed_state{show=\"#{@record.id}\",feed=\"#{lane.feed.id}\",kind=\"irc\",state=\"live\"}")
    assert_equal clock.now_ms/1000r, value("bavard_feed_heard_seconds{show=\"#{@record.id}\",feed=\"#{lane.feed.id}\",kind=\"irc\"}")
    line = @show.ask { |show| show.lines.to_a.last }
    @show.ask { |show| show.pull_line(line.id, "Odalys") }
    assert_equal 1, value(%(bavard_pulls_total{show="#{@record.id}"}))
    @show.ask { |show| show.want_feed(lane.feed.id, false) }
    assert_equal 0, value(%(bavard_feed_wanted{show="#{@record.id}",feed="#{lane.feed.id}",kind="irc"}))
    assert_operator value("bavard_memory_bytes"), :>, 20_000_000
    assert_operator value("bavard_open_files"), :<, value("bavard_open_files_most")
  end

  # What a host calls a feed cannot become a line of metrics.
  def test_names_of_hosts_stay_out_of_it
    refute_includes metrics, @record.name
  end

  def test_alerts_rest_on_what_is_there_and_do_what_they_say
    rules = "#{OPS}/prometheus/rules.yml"
    promtool("check", "rules", rules)
    promtool("test", "rules", File.expand_path("rules_test.yml", __dir__))
    exprs = YAML.load_file(rules)["groups"].flat_map { |group| group["rules"] }
    assert_empty exprs.flat_map { |rule| named(rule["expr"]) } - there
    tried = YAML.load_file(File.expand_path("rules_test.yml", __dir__))["tests"].flat_map { |test| test["alert_rule_test"] }
    assert_empty exprs.map { |rule| rule["alert"] } - tried.select { |test| test["exp_alerts"] }.map { |test| test["alertname"] }
  end

  def test_the_board_asks_for_what_is_there
    exprs = JSON.parse(File.read("#{OPS}/grafana/board.json"))["panels"].flat_map { |panel| panel["targets"] }.map { |target| target["expr"] }
    assert_empty exprs.flat_map { |expr| named(expr) } - there
    rules = {"groups" => [{"name" => "board", "rules" => exprs.each_with_index.map { |expr, number| {"record" => "board:#{number}", "expr" => expr} }}]}
    file = File.join(Dir.mktmpdir, "board.yml")
    File.write(file, YAML.dump(rules))
    promtool("check", "rules", file)
  end

  def test_only_whom_the_operator_lets_reads_it
    get "/metrics", {}, "REMOTE_ADDR" => "203.0.113.9"
    assert_equal 404, last_response.status
    @site.metrics = Bavard::Web::Operations.readers("203.0.113.0/24")
    get "/metrics", {}, "REMOTE_ADDR" => "203.0.113.9"
    assert_equal 200, last_response.status
    get "/metrics"
    assert_equal 404, last_response.status
    get "/metrics", {}, "REMOTE_ADDR" => "nonsense"
    assert_equal 404, last_response.status
    assert_raises(Bavard::Error) { Bavard::Web::Operations.readers("10.0.0.0/99") }
  end
end
