# frozen_string_literal: true

require "argon2"
require "openssl"
require "socket"
require_relative "../support/certificate"
require_relative "../support/nginx"
require_relative "../support/plain"
require_relative "../support/processes"
require_relative "../../lib/bavard/store/shows"
require_relative "../../lib/bavard/store/stages"

# nginx in front, set as ops/nginx/bavard.conf says: TLS, who asks, WebSockets, and what is not for everybody.
class NginxInFrontTest < Minitest::Test
  include Wait

  HOST = "live.reedmere.example"

  def setup
    TestDatabase.use(:house)
    TestDatabase.clean
    @tls = OwnPorts.one
    @plain = OwnPorts.one
    @app = RunningApp.new(env: {"BAVARD_ADDRESS" => "https://#{HOST}", "BAVARD_HOSTS" => HOST, "BAVARD_PROXIES" => "127.0.0.1"}).start
    @nginx = Nginx.new { |folder| Certificate.make(folder, HOST) && settings(folder) }.start(@tls)
  end

  def teardown
    @nginx.remove
    @app.stop
    TestDatabase.use(:house)
  end

  # What ships, with ports and files of this test's.
  def settings(folder)
    Nginx.shipped("bavard.conf")
      .sub("127.0.0.1:4600", "127.0.0.1:#{@app.port}").sub("listen 80", "listen 127.0.0.1:#{@plain}").sub("listen 443", "listen 127.0.0.1:#{@tls}")
      .gsub("/etc/ssl/bavard", folder)
  end

  def connect
    tcp = TCPSocket.new("127.0.0.1", @tls)
    context = OpenSSL::SSL::SSLContext.new.tap { |made| made.verify_mode = OpenSSL::SSL::VERIFY_NONE }
    OpenSSL::SSL::SSLSocket.new(tcp, context).tap do |socket|
      socket.sync_close = true
      socket.hostname = HOST
      socket.connect
    end
  rescue SystemCallError
    nil
  end

  # @return [String] the whole answer, or so much of a WebSocket's as there is
  def ask(path, until_there = nil, **headers)
    socket = connect
    lines = {"Host" => HOST, "Connection" => "close", **headers.transform_keys(&:to_s)}.map { |name, value| "#{name}: #{value}\r\n" }.join
    socket.write("GET #{path} HTTP/1.1\r\n#{lines}\r\n")
    return socket.read unless until_there

    read = +""
    read << socket.readpartial(65_536) until read.include?(until_there)
    read
  ensure
    socket&.close
  end

  def test_pages_sockets_and_what_is_not_for_everybody
    page = ask("/account/login")
    assert_match(%r{\AHTTP/1\.1 200}, page)
    assert_includes page.downcase, "strict-transport-security: max-age=31536000"
    assert_match(/set-cookie: .*secure/i, page)
    assert_match(%r{\AHTTP/1\.1 404}, ask("/metrics"))
    assert_match(%r{\AHTTP/1\.1 200}, ask("/healthz/live"))
    assert_match(%r{\AHTTP/1\.1 421}, ask("/account/login", Host: "evil.example"))
    assert_includes TCPSocket.new("127.0.0.1", @plain).tap { |plain| plain.write("GET /feeds HTTP/1.0\r\nHost: #{HOST}\r\n\r\n") }.read, "Location: https://#{HOST}/feeds"
    assert_socket
  end

  # A screen of a stage, through the proxy.
  def assert_socket
    db = TestDatabase.db
    show = Bavard::Store::Shows.new(db).create(db[:accounts].insert(email: "a@reedmere.example", password_hash: "none"), name: "One", host_name: "Odalys")
    stage = Bavard::Store::Stages.new(db).create(show.id, name: "Main")
    said = ask("/air/#{stage.token}/live", '"at"', Connection: "Upgrade", Upgrade: "websocket", "Sec-WebSocket-Version": "13",
      "Sec-WebSocket-Key": "dGhlIHNhbXBsZSBub25jZQ==", Origin: "https://#{HOST}")
    assert_match(%r{\AHTTP/1\.1 101}, said)
  end

  # Where somebody is signed in is where nginx was asked from, whatever they say of themselves.
  def test_who_asks_is_who_connected_to_nginx
    db = TestDatabase.db
    account = db[:accounts].insert(email: "a@reedmere.example", password_hash: Argon2::Password.create("reeds-and-water-42", t_cost: 1, m_cost: 8))
    Bavard::Store::Shows.new(db).create(account, name: "One", host_name: "Odalys")
    page = ask("/account/login")
    body = URI.encode_www_form("_csrf" => page[/name="_csrf" value="([^"]+)"/, 1], "login" => "a@reedmere.example", "password" => "reeds-and-water-42")
    said = post("/account/login", body, Cookie: page[/^set-cookie: ([^;]+)/i, 1], "X-Forwarded-For": "203.0.113.7", "X-Real-IP": "203.0.113.7", Forwarded: "for=203.0.113.7")
    assert_match(%r{\AHTTP/1\.1 302}, said)
    assert_equal ["127.0.0.1"], db[:account_active_session_keys].select_map(:address)
  end

  def post(path, body, **headers)
    socket = connect
    lines = {Host: HOST, Connection: "close", Origin: "https://#{HOST}", "Content-Type": "application/x-www-form-urlencoded", "Content-Length": body.bytesize, **headers}
    socket.write("POST #{path} HTTP/1.1\r\n#{lines.map { |name, value| "#{name}: #{value}\r\n" }.join}\r\n#{body}")
    socket.read
  ensure
    socket&.close
  end
end
