# frozen_string_literal: true

require "json"
require "net/http"
require "puma"
require "puma/server"
require "semantic_logger"
require "socket"
require "uri"
require "websocket/driver"
require_relative "elsewhen"
require_relative "../../lib/bavard/relay/hub"
require_relative "../../lib/bavard/relay/nchan"
require_relative "../../lib/bavard/relay/topic"
require_relative "../../lib/bavard/web/links/live_sockets"
require_relative "../../lib/bavard/web/links/relay_calls"
require_relative "nginx"
require_relative "own_ports"
require_relative "wait"

# Relays as pages meet them, and pages at the other end.
module Relays
  # A page, without a browser: it says what it is told to, and keeps what comes.
  class Page
    # What tells nothing but that the line holds.
    BEAT = /\A\{"t":\d+\}\z/
    UPTO = /"upto":"\w+:(\d+)"/
    AT = /\A\{"at":"\w+:(\d+)"/
    # As much as the driver takes of an answer to its handshake, with what comes behind it.
    READ_BYTES = 4096
    PICTURE = /\A\{"at":"\w+:\d+","t":\d+,"(?:whole|missed)":/

    attr_reader :socket, :beats, :closed_with

    def initialize(socket)
      @socket = socket
      @texts = []
      @beats = []
      @driver = WebSocket::Driver.client(self)
      @driver.on(:message) { |event| (event.data.match?(BEAT) ? @beats : @texts) << event.data }
      @driver.on(:close) { |event| @closed_with = event.code }
      @driver.start
    end

    def url = "ws://bavard.example/air/x/live"
    def say(text) = @driver.text(text)

    def write(bytes)
      socket.write(bytes)
    rescue SystemCallError
      nil # it was let go
    end

    def read
      while (bytes = socket.read_nonblock(READ_BYTES, exception: false)).is_a?(String)
        @driver.parse(bytes)
      end
      @gone = true if bytes.nil?
      self
    rescue SystemCallError, IOError
      @gone = true
      self
    end

    # What came, as a page of ours takes it: from the first picture on, each frame once, in their order, and an answer once that is there which
    # it is about.
    #
    # @return [Array<String>]
    def texts
      first = @texts.index { |text| text.match?(PICTURE) } or return []
      last = -1
      owed = []
      [@texts[first], *@texts.first(first), *@texts.drop(first + 1)].flat_map do |text|
        number = text[AT, 1]&.to_i
        owed << text if number.nil?
        taken = number && (text.match?(PICTURE) || number > last) ? [text] : []
        last = number if taken.any?
        due, owed = owed.partition { |answer| answer[UPTO, 1].to_i <= last }
        taken + due
      end
    end

    def heard?(text) = @texts.any? { |one| one.include?(text) }

    # Whether it was told that its link is not valid any more, and cut off.
    def replaced? = (@closed_with == Bavard::Relay::Connection::REPLACED) || (gone? && heard?(Bavard::Relay::Nchan::REPLACED))
    def gone? = @gone || !@closed_with.nil?
  end

  # Remembers what pages did.
  class Follower
    attr_reader :happened, :connections

    def initialize
      @happened = Queue.new
      @connections = []
    end

    def opened(connection)
      @connections << connection
      happened << :opened
    end

    def heard(_connection, text) = happened << text
    def closed(_connection) = happened << :closed
  end

  # Pages come to the hub itself.
  class Embedded
    attr_reader :hub

    def initialize(clock)
      @hub = Bavard::Relay::Hub.new(clock:, log: SemanticLogger["test"]).start
    end

    def page(topic, follower, last: nil, cuts: nil)
      theirs, ours = UNIXSocket.pair
      page = Page.new(theirs)
      env = ours.readpartial(4096).lines.drop(1).filter_map { |line| line.chomp.split(": ", 2) if line.include?(": ") }
        .to_h { |key, value| ["HTTP_#{key.upcase.tr("-", "_")}", value] }
      @hub.join(ours, env.merge("REQUEST_METHOD" => "GET", "REQUEST_URI" => "/air/x/live"), topic, follower:, last:, cuts:)
      page
    end

    def stop = @hub.stop
  end

  # A Redis that keeps nothing on a disk.
  class Redis
    include Wait

    attr_reader :port

    def initialize
      @port = OwnPorts.one
      @pid = spawn(Elsewhen.env, "redis-server", "--port", port.to_s, "--bind", "127.0.0.1", "--save", "", "--appendonly", "no", out: File::NULL)
      wait_for("Redis") { Nginx.listens?(port) }
    end

    def stop
      Process.kill("TERM", @pid)
      Process.wait(@pid)
    end
  end

  # Pages come to nginx, set as ops/nginx has it; what it asks of the application, a few lines answer here.
  class OverNginx
    include Wait

    Site = Struct.new(:hub)

    attr_reader :hub, :nginx, :pages_port, :frames_port

    # @param redis [Integer, nil] the port of a Redis over which several follow one another
    # @param connections [Integer] how many nginx may have
    # @param requests [Integer] after so many it closes the line by which frames come
    def initialize(clock, redis: nil, connections: 512, requests: nil)
      @requests = requests
      @pages_port, @frames_port = Array.new(2) { OwnPorts.one }
      @redis = redis
      @app = Puma::Server.new(method(:answer), nil, {log_writer: Puma::LogWriter.null, max_threads: 4})
      @asked_port = @app.add_tcp_listener("127.0.0.1", 0).addr[1]
      @app.run
      @nginx = Nginx.new(relay: true, connections:) { settings }.start(@frames_port)
      @hub = Bavard::Relay::Nchan.new(Bavard::Relay::Hub.new(clock:, log: SemanticLogger["test"]), URI("http://127.0.0.1:#{@frames_port}"),
        here: "127.0.0.1:#{@asked_port}", clock:, log: SemanticLogger["test"]).start
      wait_for("the relay") { @hub.there? }
    end

    # @param port [Integer] of one of several
    def page(topic, follower, last: nil, cuts: nil, port: pages_port)
      @wanted = [topic, follower, last, cuts]
      page = Page.new(TCPSocket.new("127.0.0.1", port))
      wait_for(-> { "the page to be taken in: #{nginx.said}" }) { page.read && @wanted.nil? }
      page
    end

    # Another nginx, which follows the first over Redis.
    #
    # @return [Integer] the port at which pages come to it
    def beside
      pages, frames = Array.new(2) { OwnPorts.one }
      @beside = Nginx.new(relay: true) { settings(pages:, frames:) }.start(frames)
      # Until it has found Redis it lets every page go, which comes back then.
      wait_for(-> { "the other nginx to find Redis: #{@beside.said}" }) do
        Net::HTTP.post(URI("http://127.0.0.1:#{frames}/relay/to/elsewhere/begins"), "").is_a?(Net::HTTPSuccess)
      end
      pages
    end

    # That happens after a page was let in and before nginx knows of it.
    def meanwhile(&block) = @meanwhile = block

    # Whoever comes follows that.
    def follow(topic, follower) = @always = [topic, follower, nil]

    def stop
      @hub.stop
      [@nginx, @beside].compact.each(&:remove)
      @app.stop(true)
    end

    # Another process takes its place.
    def begin_anew(clock)
      @hub.stop
      @hub = Bavard::Relay::Nchan.new(Bavard::Relay::Hub.new(clock:, log: SemanticLogger["test"]), URI("http://127.0.0.1:#{@frames_port}"),
        here: "127.0.0.1:#{@asked_port}", clock:, log: SemanticLogger["test"]).start
      wait_for("the relay") { @hub.there? }
    end

    private

    def answer(env)
      env.update("bavard.site" => Site.new(@hub), "bavard.by_proxy" => true)
      if env["PATH_INFO"].start_with?("/relay/")
        return Bavard::Web::RelayCalls.new.call(env.merge("PATH_INFO" => env["PATH_INFO"].delete_prefix("/relay")))
      end

      topic, follower, last, cuts = @wanted || @always
      at = @hub.follow(env, topic, follower:, last:, cuts:)
      happen if @meanwhile
      (at ? [200, {"x-accel-redirect" => at}, []] : Bavard::Web::LiveSockets::AGAIN).tap { @wanted = nil }
    end

    # With all that is sent for it there: what is asked behind it was answered.
    def happen
      @meanwhile.call
      sent = Queue.new
      @hub.instance_variable_get(:@publisher).count("nobody") { sent << true }
      sent.pop
    end

    def settings(pages: @pages_port, frames: @frames_port)
      relay, inside = %w[relay.conf relay-pages.conf].map { |name| Nginx.shipped(name) }
      [relay, inside].each { |text| text.gsub!(/^( *)#( *)(?=nchan_redis|upstream|})/, '\1\2') } if @redis
      <<~CONF
        upstream bavard { server 127.0.0.1:#{@asked_port}; keepalive 4; }
        #{(@requests ? relay.sub(/keepalive_requests \d+/, "keepalive_requests #{@requests}") : relay).gsub("127.0.0.1:4650", "127.0.0.1:#{frames}").gsub("127.0.0.1:6379", "127.0.0.1:#{@redis}")}
        server {
          listen 127.0.0.1:#{pages};
          #{inside}
        }
      CONF
    end
  end
end
