# frozen_string_literal: true

require_relative "../support/nginx"
require_relative "../support/prepared"

# The whole of it with nginx and Nchan in front, set as ops/nginx has it: screens and pages follow there, and what is on air goes on when
# either of the two is killed.
class OverRelayTest < PreparedTest
  def prepare_in_front
    @in_front, @secured, @frames = Array.new(3) { OwnPorts.one }
    prepare(own: true, feed: feed_address, env: {"BAVARD_RELAY" => "http://127.0.0.1:#{@frames}", "BAVARD_PROXIES" => "127.0.0.1"})
    @nginx = Nginx.new(relay: true) { |folder| settings(folder) }.start(@in_front)
    @started << Struct.new(:nginx) { def stop = nginx.remove }.new(@nginx)
    Capybara.app_host = "http://127.0.0.1:#{@in_front}"
    wait_for("the relay") { gauge("relay_up") == 1 }
    until_live
  end

  # As it ships, without TLS and with ports of this test's.
  def settings(folder)
    pages = File.join(folder, "relay-pages.conf").tap { |file| File.write(file, Nginx.shipped("relay-pages.conf")) }
    server = Nginx.shipped("bavard.conf").sub("127.0.0.1:4600", "127.0.0.1:#{@app.port}").sub("listen 80", "listen 127.0.0.1:#{@secured}")
      .sub("listen 443 ssl", "listen 127.0.0.1:#{@in_front}").gsub(/^ *ssl_certificate.*$/, "").sub("/etc/nginx/bavard.d/*.conf", pages)
    "#{Nginx.shipped("relay.conf").gsub("127.0.0.1:4650", "127.0.0.1:#{@frames}")}\n#{server}"
  end

  def gauge(name) = Net::HTTP.get(URI("#{@app.address}/metrics"))[/^bavard_#{name} (\d+)/, 1].to_i
  def link = "http://127.0.0.1:#{@in_front}/air/#{@stage.token}"

  def act(what, text)
    line = wait_for("the line to be in the log") { TestDatabase.db[:lines].where(text:).get(:id) }
    answer = @hosts_browser.post_json("/prompter/", "/prompter/act", do: what, line:)
    assert_equal "200", answer.code, answer.body
  end

  def test_what_is_said_taken_away_and_told_of_screens_goes_over_it
    prepare_in_front
    open_screen(link)
    sign_in "/links"
    assert_text "1 screen"
    server.say("ann", "over the relay")
    on_screen { assert_selector ".line", text: "over the relay" }
    # Each of a screen and of the host's page.
    assert_operator gauge("pages_relayed"), :>=, 2
    assert_equal gauge("pages"), gauge("pages_relayed")
    # What the screen says of itself comes back the same way.
    assert_text "shows r1"
    act "pull", "over the relay"
    on_screen { assert_no_selector ".line" }
    click_on "New link"
    on_screen { assert_no_selector ".piece" }
  end

  def test_either_is_killed_and_what_is_on_air_goes_on
    prepare_in_front
    open_screen(link)
    server.say("ann", "before")
    on_screen { assert_selector ".line", text: "before" }
    wait_for("it to be in the log") { TestDatabase.db[:lines].where(text: "before").any? }
    server.cut
    @app.kill
    @app.start
    until_live
    until_said("after the first")
    @nginx.stop("KILL")
    wait_for("it to be known") { gauge("relay_up").zero? && gauge("pages_relayed").zero? }
    @nginx.start(@in_front)
    until_said("after the second")
    on_screen { assert_equal ["after the first", "after the second", "before"], all(".line").map { |line| line.text[/before|after.*/] }.sort }
  end

  def until_said(text)
    wait_for("the screen to be back") { gauge("pages_relayed").positive? }
    server.say("ann", text)
    on_screen { assert_selector ".line", text: }
  end
end
