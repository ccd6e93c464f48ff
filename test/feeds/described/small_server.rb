# frozen_string_literal: true

require "puma"
require "puma/server"
require "websocket/driver"

# A made-up platform's server, in this process: answers over HTTP as it is told to, streams events, and holds WebSockets.
class SmallServer
  # A line to a client that is open: what came, and what is said on it.
  Line = Struct.new(:env, :io, :driver, :heard) do
    def write(bytes) = io.write(bytes)
    def say(message) = driver.text(message.is_a?(String) ? message : JSON.generate(message))
  end

  attr_reader :asked, :lines, :address

  # @param answer [#call] gets [method, path with query, headers]; gives [status, headers, body], a body that is an Enumerator is streamed
  def initialize(&answer)
    @answer = answer
    @asked = Queue.new
    @lines = Queue.new
    @server = Puma::Server.new(method(:call), nil, {min_threads: 0, max_threads: 8, log_writer: Puma::LogWriter.null, environment: "production"})
    @address = "http://127.0.0.1:#{@server.add_tcp_listener("127.0.0.1", 0).local_address.ip_port}"
    @server.run
  end

  def stop = @server.stop(true)

  private

  def call(env)
    path = [env["PATH_INFO"], env["QUERY_STRING"]].reject(&:empty?).join("?")
    headers = env.select { |name, _| name.start_with?("HTTP_") }.transform_keys { |name| name.delete_prefix("HTTP_").downcase.tr("_", "-") }
    @asked << [env["REQUEST_METHOD"], path, headers]
    return upgrade(env) if WebSocket::Driver.websocket?(env)

    status, more, body = @answer.call(path, headers)
    [status, {"content-type" => "application/json"}.merge(more), body.is_a?(String) ? [body] : body]
  end

  def upgrade(env)
    env["rack.hijack"].call
    line = Line.new(env, env["rack.hijack_io"], nil, Queue.new)
    line.driver = WebSocket::Driver.rack(line, protocols: ["reeds.1"])
    line.driver.on(:message) { |message| line.heard << (message.data.start_with?("{") ? JSON.parse(message.data) : message.data) }
    line.driver.start
    @lines << line
    Thread.new { read(line) }
    [-1, {}, []]
  end

  def read(line)
    loop { line.driver.parse(line.io.readpartial(4096)) }
  rescue IOError, SystemCallError
    nil # the client has gone
  end
end
