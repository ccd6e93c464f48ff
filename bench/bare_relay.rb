# frozen_string_literal: true

# The floor for latency: from an IRC socket to a WebSocket and nothing else, in Bavard's place.
#   ruby bench/bare_relay.rb PORT_OF_IRC PORT_OF_WEB
require "json"
require "socket"
require "websocket/driver"

PAGE = <<~HTML
  <!doctype html><meta charset="utf-8"><body><script>
  new WebSocket("ws://" + location.host + "/live").onmessage = ({ data }) => {
    const line = document.createElement("p"), number = data.match(/bench-\\d+/);
    line.setAttribute("elementtiming", number); line.textContent = data;
    document.body.append(line); if (document.body.children.length > 10) document.querySelector("p").remove();
  };
  </script>
HTML
Wire = Struct.new(:socket, :env) do
  def url = "ws://bench/live"
  def write(bytes) = socket.write(bytes)
end
pages = []
web = TCPServer.new("127.0.0.1", Integer(ARGV[1]))
Thread.new do
  loop do
    socket = web.accept
    head = (line = "") && [].tap { |lines| lines << line.chomp while (line = socket.gets) && line != "\r\n" }
    env = head.drop(1).to_h { |one| one.split(": ", 2).then { |key, value| ["HTTP_#{key.upcase.tr("-", "_")}", value] } }
    unless head[0].include?("/live")
      next socket.write("HTTP/1.1 200 OK\r\ncontent-type: text/html\r\nconnection: close\r\n\r\n#{PAGE}") && socket.close
    end

    driver = WebSocket::Driver.rack(Wire.new(socket, env.merge("REQUEST_METHOD" => "GET")))
    driver.start
    pages << driver
  end
end
irc = TCPSocket.new("127.0.0.1", Integer(ARGV[0]))
irc.write("NICK bare\r\nUSER bare 0 * :bare\r\nJOIN #dawn\r\n")
$stdout.write("ready\n")
$stdout.flush
while (line = irc.gets)
  pages.each { |page| page.text(line.scrub.chomp) } if line.include?("PRIVMSG")
end
