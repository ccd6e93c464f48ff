# frozen_string_literal: true

require_relative "../../lib/bavard/feeds/platform"
require_relative "../feeds/described/examples"
require_relative "../feeds/described/small_server"
require_relative "../support/web_test"

# A platform that somebody described: chosen, asked about, tried, read, and kept with its secrets sealed.
class DescribedFeedsTest < WebTest
  def setup
    @says = []
    @server = SmallServer.new { |path, headers| answer(path, headers) }
    super
    sign_up
  end

  def teardown
    super
    @server.stop
  end

  def platforms
    kettle = Examples.description("kettle", base: @server.address, secrets: {"key" => {"label" => "API key"}}, headers: {"x-key" => "{key}"})
    {"kettle" => Bavard::Feeds::Platform.of(kettle)}
  end

  def answer(path, headers)
    return [404, {}, "{}"] unless path.start_with?("/rooms/reedmere/")
    return [403, {}, "{}"] unless headers["x-key"] == "k-1"

    [200, {}, JSON.generate("data" => {"messages" => @says.slice!(0..), "mark" => "m", "wait" => 200})]
  end

  def connect(**given) = send_form("/feeds/", {"platform" => "kettle"}.merge(given.to_h { |name, value| ["kettle.#{name}", value] }))
  def show = @shows.run(@record.id)

  def test_the_form_asks_for_what_the_description_asks
    get "/feeds"
    assert_includes last_response.body, 'value="platform:kettle"'
    assert_match(/<label class="label" for="kettle\.room">Room.*name="kettle\.room" type="text" placeholder="reedmere"/, last_response.body)
    assert_match(/API key.*name="kettle\.key" type="password"/, last_response.body)
  end

  def test_what_is_missing_or_wrong_names_its_field
    {{key: "k-1"} => "kettle.room", {room: "a b", key: "k-1"} => "kettle.room", {room: "reedmere"} => "kettle.key"}.each do |given, field|
      assert_equal [field, 422], [connect(**given)["field"], last_response.status], given
    end
    assert_match(/Kettle does not know “elsewhere”/, connect(room: "elsewhere", key: "k-1")["error"])
    assert_match(/does not let us read this/, connect(room: "reedmere", key: "wrong")["error"])
    assert_empty stores.feeds.of_show(@record.id)
  end

  def test_it_is_read_as_any_chat_and_its_secret_is_sealed
    found = connect(room: "reedmere", key: "k-1")
    assert_equal "Reading Kettle.", found["found"], found
    feed = stores.feeds.find(found["id"])
    assert_equal ["Kettle", "described", {"room" => "reedmere"}, {"key" => "k-1"}], [feed.name, feed.kind, feed.address, JSON.parse(feed.password)]
    refute_includes db[:feeds].where(id: feed.id).first.inspect, "k-1"
    wait_for("it to be live") { show.ask { |running| running.lane(feed.id).state.state == :live } }
    @says << {"type" => "said", "id" => 7, "by" => {"name" => "ann", "label" => "Ann", "flags" => %w[mod]}, "html" => "see <b>the</b> wing"}
    wait_for("the line") { show.ask { |running| running.lines.to_a.any? { |kept| kept.line.text == "see the wing" && kept.line.person.roles.include?("moderator") } } }
    @says << {"type" => "unsaid", "id" => 7}
    wait_for("it to be gone") { show.ask { |running| running.lines.to_a.all? { |kept| kept.state.name == :deleted } } }
    wait_for("where it goes on to be kept") { stores.feeds.find(feed.id).cursor == {"since" => "m"} }
  end
end
