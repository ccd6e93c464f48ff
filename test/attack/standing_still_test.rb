# frozen_string_literal: true

require "minitest/autorun"
require "net/http"
require "socket"
require_relative "../../lib/bavard/web/http/outflow"
require_relative "../support/processes"
require_relative "../support/wait"

# What a stranger gains with connections that stand still, or never end: nobody else waits. Against the application as it runs.
class StandingStillTest < Minitest::Test
  include Wait

  # More than there are threads to answer.
  MANY = 60
  # A film that no buffer between server and reader holds as a whole.
  LARGE_BYTES = 6 * 1024 * 1024
  LARGE = "/films/#{"5" * 32}.webm".freeze

  def self.app
    @app ||= begin
      # With a database of its own: shows of other tests are theirs.
      TestDatabase.use(:front)
      RunningApp.new.start.tap do |app|
        Minitest.after_run { app.stop }
        File.binwrite(laid(app).tap { |path| FileUtils.mkdir_p(File.dirname(path)) }, Random.new(1).bytes(LARGE_BYTES))
      end
    ensure
      TestDatabase.use(:house)
    end
  end

  def self.laid(app) = File.join(app.folder, LARGE)

  def setup
    @app = self.class.app
    @open = []
  end

  def teardown = @open.each(&:close)

  def connect(receive: nil)
    socket = Socket.new(:INET, :STREAM)
    socket.setsockopt(Socket::SOL_SOCKET, Socket::SO_RCVBUF, receive) if receive
    socket.connect(Addrinfo.tcp("127.0.0.1", @app.port))
    @open << socket
    socket
  end

  def many(**options) = Array.new(MANY) { connect(**options).tap { |socket| yield socket } }

  def assert_answers(path = "/account/login")
    assert_equal "200", Net::HTTP.get_response(URI("#{@app.address}#{path}")).code
  end

  def film = File.binread(self.class.laid(@app))

  def test_connections_that_say_nothing_or_half_of_a_head
    many { |_socket| nil }
    many { |socket| socket.write("GET /account/login HTTP/1.1\r\nHost: x\r\nX-Slow: ") }
    assert_answers
  end

  def test_readers_that_never_read
    waiting = many(receive: 2048) { |socket| socket.write("GET #{LARGE} HTTP/1.1\r\nHost: x\r\n\r\n") }
    wait_for("the files to be on their way") { waiting.all? { |socket| socket.wait_readable(0) } }
    assert_answers
    assert_answers("/healthz")
  end

  # Readers of other tests may have the places of this address until the application finds that they are gone.
  #
  # @return [Array(String, String)] head and body of the answer, once there is room
  def large_file(*headers, **options)
    socket = first = nil
    wait_for("those of other tests to be gone") do
      socket = connect(**options)
      socket.write(["GET #{LARGE} HTTP/1.1", "Host: x", *headers, "", ""].join("\r\n"))
      first = socket.gets
      !first.include?(" 503 ")
    end
    "#{first}#{socket.read}".split("\r\n\r\n", 2)
  end

  def test_whoever_reads_slowly_gets_all_of_it_in_the_end
    head, body = large_file(receive: 2048)
    assert_equal film, body.b
    assert_match(/content-length: #{body.bytesize}/i, head)
    assert_match(/content-security-policy/i, head)
  end

  def test_a_part_of_a_large_file
    head, body = large_file("Range: bytes=1000-3000999")
    assert_match(%r{\AHTTP/1.1 206 .*content-range: bytes 1000-3000999/}mi, head)
    assert_equal film[1000, 3_000_000], body.b
  end

  # @return [String] the first line of the answer
  def status(socket) = wait_for("an answer") { socket.wait_readable(0) && socket.gets.to_s }[%r{\AHTTP/1.1 (\d+)}, 1]

  def test_a_body_that_is_too_large_by_its_own_word
    {"/account/login" => 70_000, "/now/1/text1/#{"0" * 32}" => 20_000, "/in/#{"a" * 40}" => 70_000, "/dress/files/bring" => 1_000_000_000}.each do |path, bytes|
      socket = connect
      socket.write("POST #{path} HTTP/1.1\r\nHost: x\r\nContent-Length: #{bytes}\r\n\r\n")
      assert_equal "413", status(socket), path
    end
  end

  def test_a_body_in_parts_without_an_end
    socket = connect
    socket.write("POST /account/login HTTP/1.1\r\nHost: x\r\nTransfer-Encoding: chunked\r\n\r\n")
    part = "4000\r\n#{"x" * 0x4000}\r\n"
    sent = 0
    wait_for("it to be cut off") do
      sent += part.bytesize if socket.write(part)
      socket.wait_readable(0)
    rescue Errno::EPIPE, Errno::ECONNRESET
      true
    end
    assert_operator sent, :<, 2 * 1024 * 1024
    assert_answers
  end

  def test_a_head_without_an_end
    socket = connect
    socket.write("GET / HTTP/1.1\r\nHost: x\r\n")
    wait_for("it to be cut off") do
      socket.write("X-#{"y" * 200}: #{"z" * 4000}\r\n")
      socket.wait_readable(0)
    rescue Errno::EPIPE, Errno::ECONNRESET
      true
    end
    assert_answers
  end

  def reader = connect(receive: 2048).tap { |socket| socket.write("GET #{LARGE} HTTP/1.1\r\nHost: x\r\n\r\n") }

  # What the application has not seen to be closed yet counts too.
  #
  # @return [Array<Socket>] of readers to whom the file goes out, as many as there may be
  def readers_in_all_places
    readers = []
    wait_for("those of other tests to be gone") do
      readers.each(&:close)
      readers = Array.new(Bavard::Web::Outflow::MOST_OF_ONE_ADDRESS) { reader }
      readers.all? { |socket| status(socket) == "200" }
    end
    readers
  end

  # As a player that is asked for another film at once, and again.
  def test_readers_who_are_gone_before_the_answer_take_nobodys_place
    Array.new(Bavard::Web::Outflow::MOST_OF_ONE_ADDRESS * 3) { reader }.each(&:close)
    readers_in_all_places.each(&:close)
  end

  def test_a_file_larger_than_it_may_go_out_so_often_to_one_address
    readers = readers_in_all_places
    assert_equal %w[503 503 503 503 503], Array.new(5) { status(reader) }
    readers.each(&:close)
    @open.clear
    wait_for("the others to be gone") { Net::HTTP.get_response(URI("#{@app.address}#{LARGE}"), {"accept-encoding" => "identity"}).code == "200" }
  end
end
