# frozen_string_literal: true

require "io/wait"
require "json"
require "openssl"
require "socket"
require_relative "../support/certificate"
require_relative "../support/elsewhen"
require_relative "../support/hosts_browser"
require_relative "../support/machine"
require_relative "../support/plain"
require_relative "../support/proxy"
require_relative "../../lib/bavard/feeds/activities"
require_relative "../../lib/bavard/store/database"

# An operator's day, from an empty machine to an account that is removed. Whatever is typed stands in docs/operating.md, and is typed as it stands.
class OperatorsDayTest < Minitest::Test
  include Wait

  HOST = "live.reedmere.example"
  OPERATING = File.read(File.join(Machine::PROJECT, "docs/operating.md"))
  PASSWORD = "reeds-and-water-42"
  IBRAHIM = "ibrahim@reedmere.example"
  # Within what one address may send in a minute.
  FLOOD = 600
  # As a page's, which then asks anew.
  PATIENCE_S = 5
  # Nobody answers, or no longer.
  AWAY = [SystemCallError, EOFError, OpenSSL::SSL::SSLError, Timeout::Error].freeze
  # host:: their browser; sent_to, key:: where lines of theirs are sent, and what signs them; air:: the link of the stage that shows them
  Show = Struct.new(:host, :sent_to, :key, :air)

  def setup
    why_not = Machine.impossible
    skip(why_not) if why_not
    @machine = Machine.new.start
    @machine.cd(Machine::BROUGHT)
    @door = Proxy.new(@machine.door(443))
  end

  def teardown
    @door&.stop
    @machine&.stop
  end

  # @return [Array<String>] lines to type that stand under a heading, without what is said of them
  def commands(heading)
    part = OPERATING[/^##+ #{Regexp.escape(heading)}\n(.*?)(?=^##|\z)/m, 1] || flunk("nothing is said of #{heading}")
    part.scan(/^ {4}(.+)$/).flatten.map { |line| line.sub(/ +# .*/, "") }
  end

  # @param but [Regexp, nil] what is typed at another time
  # @return [Hash{String => String}] what each line said
  def type_all(heading, but: nil, **env)
    lines = commands(heading).grep_v(but || /\A\z/)
    refute_empty lines
    lines.to_h { |line| [line, type(line, **env)] }
  end

  def type(line, **env)
    said, fine = @machine.type(line, **env)
    assert fine, "#{line}\n#{said}\n#{journal}"
    said
  end

  def journal = @machine.type("tail -n 20 /var/log/*.journal /var/lib/bavard/log/bavard.log /var/log/nginx/error.log 2>&1").first
  def browser = HostsBrowser.new("https://127.0.0.1:#{@door.port}", named: HOST, patience_s: 10)

  def test_from_an_empty_machine_to_a_restored_one
    first = install
    stand_in_front
    @operator = make_account(first, "odalys@reedmere.example", "Dawn watch")
    three_hosts
    many_screens
    flood
    crash
    several_processes
    begin_again
    backup
    upgrade
    somebody_goes
  end

  # @return [String] the address of the first account
  def install
    said = type_all("From nothing to the first host", SETTINGS: "BAVARD_ADDRESS BAVARD_HOSTS BAVARD_PROXIES")
    @machine.cd("/opt/bavard")
    said.fetch("journalctl -u bavard")[%r{Begin +https://#{HOST}(/\S+)}o, 1]
  end

  def stand_in_front
    type("mkdir -p /etc/ssl/bavard")
    Certificate.make(@machine.path("/etc/ssl/bavard"), HOST)
    type_all("In front: nginx and TLS")
    wait_for("nginx to answer") { answers?("/account/login") }
    assert_equal "404", browser.get("/metrics").code
    assert_includes type("ruby -rnet/http -e 'print Net::HTTP.get(URI(%(http://127.0.0.1:4600/metrics)))'"), "bavard_database_up 1"
  end

  def answers?(path)
    browser.get(path).code == "200"
  rescue *AWAY
    false
  end

  def make_account(path, email, show)
    browser.tap do |host|
      made = host.send_page(path, "login" => email, "password" => PASSWORD, "show_name" => show, "host_name" => email[/\w+/])
      assert_equal "302", made.code, made.body
    end
  end

  # Each with a chat that sends, and a stage.
  def three_hosts
    said = type_all("Accounts", but: /close|reopen|remove|collect/)
    assert_match(/#{IBRAHIM} +Ferry watch \(2\)/o, type("bin/admin"))
    assert_match(/made.*#{IBRAHIM}/o, said.fetch("bin/admin deeds"))
    ibrahim = browser.tap { |host| host.sign_in(IBRAHIM, said.fetch("bin/admin password #{IBRAHIM}")[/signs in with (\S+), and/, 1]) }
    nils = make_account(URI(said.fetch('bin/admin invite "Nils of the ferry"').strip).request_uri, "nils@reedmere.example", "Nets")
    @odalys, @ibrahim, @nils = [@operator, ibrahim, nils].map { |host| with_a_show(host) }
    [@odalys, @ibrahim, @nils].each { |show| assert_shown(show, "good morning") }
  end

  def with_a_show(host)
    made = JSON.parse(host.post_form("/feeds/", "/feeds/", kind: "inbox", name: "A button").body)
    stage = JSON.parse(host.post_json("/feeds/", "/lead/stage", {}).body)
    assert_equal "200", host.post_form("/feeds/", "/stage/#{stage["stage"]}/put-on-air", {}).code
    assert_includes made.dig("inbox", "address"), "https://#{HOST}/in/"
    Show.new(host, URI(made["inbox"]["address"]).path, made["inbox"]["secret"], URI(stage["link"]).path)
  end

  # @return [String] status
  def send_line(show, text)
    body = JSON.generate("type" => "Create", "actor" => "ann", "object" => {"type" => "Note", "mediaType" => "text/plain", "content" => text})
    at = Elsewhen.here.to_i
    browser.send_body(show.sent_to, body, "Bavard-Timestamp" => at.to_s,
      "Bavard-Signature" => Bavard::Feeds::Activities::Signature.of(show.key, at, body)).code
  rescue *AWAY
    "nobody"
  end

  # Sent once it is taken, and painted by whoever looks then.
  # @return [String] what a screen that began then was told
  def assert_shown(show, text)
    wait_for(-> { "#{text} to be taken\n#{journal}" }) { send_line(show, text) == "202" }
    assert_stands(show, text)
  end

  def assert_stands(show, text)
    wait_for(-> { "#{text} to be on air\n#{journal}" }) { told(show.air, until_there: text) }
  end

  # @return [String, nil] what a screen that begins now is told until it is to paint that; nil where it is cut off before, or not answered
  def told(air, until_there:)
    socket = screen(air)
    read = +""
    until read.include?(until_there)
      return unless socket.pending.positive? || socket.to_io.wait_readable(PATIENCE_S)

      read << socket.readpartial(65_536)
    end
    read
  rescue *AWAY
    nil
  ensure
    socket&.close
  end

  def screen(air)
    context = OpenSSL::SSL::SSLContext.new.tap { |made| made.verify_mode = OpenSSL::SSL::VERIFY_NONE }
    socket = OpenSSL::SSL::SSLSocket.new(TCPSocket.new("127.0.0.1", @door.port), context).tap { |made| made.sync_close = true }
    socket.connect
    socket.write("GET #{air}/live HTTP/1.1\r\nHost: #{HOST}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nOrigin: https://#{HOST}\r\n" \
                 "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n")
    socket
  end

  def many_screens
    type_all("Many screens")
    assert_shown(@ibrahim, "over the relay")
  end

  # What one host is flooded with is that host's.
  def flood
    statuses = Array.new(FLOOD / 100) { |nth| Thread.new { Array.new(100) { |at| send_line(@nils, "flood #{nth} #{at}") } } }.flat_map(&:value).tally
    assert_empty statuses.keys - %w[202 503]
    assert_shown(@ibrahim, "beside a flood")
    wait_for("all that was taken to be written") { type("bin/admin use")[/Nets .* (\d+) lines/, 1].to_i == statuses.fetch("202") + 1 }
  end

  # All of it at once, as where the power fails; systemd begins it anew.
  def crash
    type("pkill -KILL -f '[l]ib/bavard/(start/run|serve).rb'; pkill -KILL postgres")
    assert_shown(@ibrahim, "after the crash")
    assert_stands(@ibrahim, "beside a flood")
  end

  def several_processes
    type_all("Several processes", but: /bin.admin/)
    assert_shown(@ibrahim, "in one of two")
    wait_for("both to be there") { type("bin/admin workers").scan("127.0.0.1:46").size == 2 }
    assert_includes type(commands("Several processes").grep(/move/).first), "Show 2 goes on at 127.0.0.1:4601"
    wait_for("it to be there") { type("bin/admin workers")[/4601 .*shows.* 2\b/] }
    assert_shown(@ibrahim, "moved on")
  end

  def begin_again
    type_all("What runs when")
    wait_for("it to begin anew") { type("journalctl -u bavard").include?("Beginning anew.") }
    assert_shown(@ibrahim, "begun again")
    assert_stands(@ibrahim, "moved on")
  end

  def backup
    file = "/var/backups/bavard-monday.tar.gz"
    before = lines_of("Ferry watch")
    type("echo In the net: a reed warbler > /var/lib/bavard/now/net.txt")
    type_all("Backup, restore and upgrade")
    assert_equal "600", type("stat -c %a #{file}").strip
    assert_operator lines_of("Ferry watch"), :>=, before
    assert_includes type("cat /var/lib/bavard/now/net.txt"), "a reed warbler"
    # Whoever was signed in is.
    assert_equal "200", @ibrahim.host.get("/gate/state").code
    [@odalys, @ibrahim].each { |show| assert_shown(show, "out of a backup") }
    assert_stands(@ibrahim, "moved on")
    assert_includes type("bin/admin deeds"), "restored bavard-monday.tar.gz"
    assert_includes refused("bin/admin backup #{file}"), "there already"
    assert_includes refused("bin/admin restore #{file}"), "There is something in /var/lib/bavard"
    nothing_half(file)
    type_all("One show")
    assert_includes type("bin/admin"), "host@reedmere.example  Ferry watch (4)"
  end

  def lines_of(show) = type("bin/admin use")[/#{show} .* (\d+) lines/, 1].to_i

  # @return [String] what it said, where it did not go well
  def refused(line, **env)
    said, fine = @machine.type(line, **env)
    refute fine, "#{line}\n#{said}"
    said
  end

  # Nothing of what cannot be restored leaves anything behind, and what was cut off is taken up again.
  def nothing_half(file)
    elsewhere = {BAVARD_DATA: "/var/lib/elsewhere", PORT: "4700"}
    type("echo no backup > /tmp/other.tar.gz; head -c -2000 #{file} > /tmp/cut.tar.gz")
    assert_includes refused("bin/admin restore /tmp/other.tar.gz", **elsewhere), "is no backup of a Bavard"
    assert_includes refused("bin/admin restore /nowhere.tar.gz", **elsewhere), "There is no /nowhere.tar.gz"
    refused("ls /var/lib/elsewhere")
    assert_includes refused("bin/admin restore /tmp/cut.tar.gz", **elsewhere), "tar said"
    refused("bin/admin use", **elsewhere)
    assert_includes refused("bin/start", **elsewhere), "was cut off"
    type("bin/admin restore #{file}", **elsewhere)
    assert_includes type("bin/admin", **elsewhere), IBRAHIM
  end

  # To a version with a table more, and back.
  def upgrade
    newest = Bavard::Store::Database.newest
    type("/srv/bavard/bin/install --into /srv/made && mv /srv/made/opt/bavard /srv/newer")
    File.write(@machine.path("/srv/newer/lib/bavard/store/migrations/#{format("%03d", newest + 1)}_next.rb"),
      "Sequel.migration { change { create_table(:nexts) { Integer :id } } }\n")
    there, back = commands("Upgrade").then { |lines| [lines.take(3), lines.drop(3)] }
    there.each { |line| type(line) }
    assert_shown(@ibrahim, "in the newer version")
    back.each { |line| type(line) }
    refute_includes assert_shown(@ibrahim, "in the older one again"), "in the newer version"
  end

  def somebody_goes
    said = commands("Accounts").grep(/close|reopen|remove|collect/).to_h { |line| [line, type(line)] }
    assert_equal 4, said.size
    status = nil
    wait_for(-> { "nothing to be taken any more, not #{status}" }) { (status = send_line(@ibrahim, "still here?")) == "404" }
    wait_for(-> { "its screens to find nothing, not #{status}" }) { (status = browser.get(@ibrahim.air).code) == "404" }
    refute_includes type("bin/admin"), IBRAHIM
    assert_match(/removed.*#{IBRAHIM}/o, type("bin/admin deeds"))
    assert_shown(@odalys, "good night")
  end
end
