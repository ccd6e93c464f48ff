# frozen_string_literal: true

require "websocket/driver"
require_relative "../support/platform_browser"
require_relative "../../lib/bavard/feeds/activities"

# Adding each kind of feed, as a host does it.
class PlatformsTest < PlatformBrowserTest
  def test_each_of_three_platforms_and_all_three_marks_on_air
    add("Oxbow", channel: "reedmere")
    add("Lantern", channel: "https://lantern.example/watch/#{@lantern.state["number"]}")
    add("Skein", room: "reedmere")
    open_screen(link)
    [oxbow, @lantern, @skein].each { |platform| platform.say("hello from #{platform.class} #{platform.web_port}") }
    on_screen do
      assert_selector ".line", count: 3
      assert_equal %w[#5fb8d6 #63c58a #e58fb0], page.all(".line .mark path", visible: :all).map { |path| path["fill"] }.sort
      assert_equal 3, page.evaluate_script("new Set([...document.querySelectorAll('.line .mark path')].map((path) => path.getAttribute('d'))).size")
    end
    @skein.post("/delete", "id" => @skein.lines.first["id"])
    @lantern.post("/silence", "login" => "birdbath")
    on_screen { assert_selector ".line", count: 1 }
  end

  def test_pictures_that_platforms_send_along_come_from_us
    [["Oxbow", oxbow, :channel], ["Skein", @skein, :room]].each do |name, platform, field|
      add(name, field => "reedmere")
      platform.say("🦆 :owl: from #{name}", login: "kestrel_ann")
    end
    open_screen(link)
    on_screen do
      assert_selector ".emote img[alt=':owl:']", count: 2
      assert_selector "img.badge[data-badge=subscriber]", count: 2
      hosts = page.evaluate_script("performance.getEntriesByType('resource').map((entry) => new URL(entry.name).port)").uniq
      assert_equal [@app.port.to_s], hosts
    end
    visit "/dress"
    assert_selector ".shelf[aria-label='From Skein'] .emote-button", text: ":owl:"
    # Four that Oxbow's description names, worn or not, and what was worn on Skein.
    assert_selector ".badge-button", count: 5
  end

  def test_what_is_wrong_is_said_before_it_counts
    choose("Lantern")
    within("#add") do
      click_on "Connect", exact: true
      assert_selector ".error-line", text: "Enter “Channel” or “Today’s number”."
      find("summary", text: "More").click
      fill_in "lantern.number", with: "0000-0000"
      click_on "Connect", exact: true
      assert_selector ".error-line", text: "Lantern does not know “0000-0000”."
    end
    choose("Skein")
    within("#add") do
      fill_in "skein.room", with: "nowhere"
      click_on "Connect", exact: true
      assert_selector ".error-line", text: "Skein does not know “nowhere”."
    end
    assert_equal 0, TestDatabase.db[:feeds].count
    within("#add") { click_on "Keep it anyway" }
    lane("Skein") { assert_selector ".chip", text: "needs another address" }
  end

  def test_todays_number_is_entered_and_the_next_one_found_by_its_channel
    add("Lantern", channel: "lantern.example/watch/#{@lantern.state["number"]}")
    @lantern.post("/broadcast", "on" => "0")
    lane("Lantern") do
      assert_selector ".chip", text: "needs today’s broadcast"
      assert_text "This broadcast is over."
      fill_in "Channel", with: "reed mere"
      click_on "Read there"
      assert_selector ".error-line", text: "“reed mere” cannot be it"
      fill_in "Channel", with: "reedmere"
      click_on "Read there"
      assert_selector ".chip", text: "nobody is broadcasting"
    end
    2.times do
      @lantern.post("/broadcast", "on" => "1")
      lane("Lantern") { assert_selector ".chip", text: "live" }
      @lantern.post("/broadcast", "on" => "0")
      lane("Lantern") { assert_selector ".chip", text: "nobody is broadcasting" }
    end
  end

  def test_a_feed_reads_elsewhere_and_can_be_left_as_it_was
    add("Skein", room: "reedmere")
    lane("Skein") do
      find("summary").click
      click_on "Read elsewhere"
      click_on "Leave it as it was"
      assert_no_selector ".address"
      find("summary").click
      click_on "Read elsewhere"
      assert_field "Room", with: "reedmere"
      fill_in "Room", with: "nowhere"
      click_on "Read there"
      assert_selector ".error-line", text: "Skein does not know “nowhere”."
      fill_in "Room", with: "fenlight"
      click_on "Read there"
      assert_no_selector ".address"
      assert_selector ".chip", text: "live"
    end
    assert_equal({"room" => "fenlight"}, TestDatabase.db[:feeds].get(:address).to_h)
  end

  def test_an_address_of_ones_own_takes_what_its_example_sends
    choose("An address of your own")
    within("#add") do
      fill_in "name", with: "A button"
      click_on "Make the address"
    end
    assert_no_text(%r{in/[\w-]{20}})
    refute_match(%r{/in/[\w-]{20}|-hmac '[\w-]{20}}, find("#inbox-curl").value)
    click_on "Show them"
    example = wait_for("the example") { find("#inbox-curl").value[/\Abody=.*\z/m] }
    within("#inbox") { click_on "Done" }
    assert system("bash", "-c", "#{example} | grep -q taken")
    lane("A button") { assert_selector ".lane-line", text: "hello from a shell" }
    address, key = example.match(/-hmac '([^']+)'.*curl -s '([^']+)'/m).captures.reverse
    assert_equal [{"taken" => "n9"}, {"error" => "That is not JSON.", "field" => "body"}], over_websocket(address, key, JSON.generate(NOTE), "{oh no")
    lane("A button") { assert_selector ".lane-line", text: "hello over a socket" }
    assert_empty over_websocket(address, "another key", JSON.generate(NOTE))
  end

  NOTE = {type: "Create", actor: "ann", object: {type: "Note", id: "n9", mediaType: "text/plain", content: "hello over a socket"}}.freeze

  # @return [Array<Hash>] what each message was answered with; nothing where the line was not opened
  def over_websocket(address, key, *messages)
    now = Time.now.to_i.to_s
    uri = URI("#{address}/live?timestamp=#{now}&signature=#{Bavard::Feeds::Activities::Signature.of(key, now, "live")}")
    socket = TCPSocket.new(uri.host, uri.port)
    answers = []
    driver = WebSocket::Driver.client(Struct.new(:url, :socket) { def write(bytes) = socket.write(bytes) }.new(uri.to_s.sub("http", "ws"), socket))
    driver.on(:open) { messages.each { |message| driver.text(message) } }
    # Now and then an empty object comes, so that the line is heard to be there.
    driver.on(:message) { |event| JSON.parse(event.data).then { |answer| answers << answer unless answer.empty? || answer.key?("at") } }
    driver.on(:error) { socket.close_read }
    driver.start
    driver.parse(socket.readpartial(65_536)) until answers.size == messages.size
    answers
  rescue IOError
    answers
  ensure
    socket&.close
  end

  def test_a_busy_chat_into_the_draft_alone
    choose("Skein")
    within("#add") do
      fill_in "skein.room", with: "reedmere"
      find("summary", text: "More").click
      find("label", text: "Into the draft alone").click
      click_on "Connect", exact: true
    end
    lane("Skein") { assert_selector ".chip", text: "draft alone" }
    open_screen(link)
    @skein.say("only for the draft")
    lane("Skein") { assert_selector ".lane-line", text: "only for the draft" }
    on_screen { assert_no_selector ".line" }
    lane("Skein") do
      find("summary").click
      click_on "On air too"
      assert_no_selector ".chip", text: "draft alone"
    end
    @skein.say("now for all")
    on_screen { assert_selector ".line", text: "now for all" }
  end
end
