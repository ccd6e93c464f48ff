# frozen_string_literal: true

# Connections of somebody who wants others to wait, in a process of its own.
#   ruby bench/stand_still.rb WHAT PORT MANY
# Prints "ready" when all are open; ends with its standard input.
require "socket"

LARGE = "/assets/vendor/bulma/bulma.min.css"
PART = "4000\r\n#{"x" * 0x4000}\r\n".freeze
# What each says first, and what it goes on saying; nil where it says nothing more.
WAYS = {
  "silent" => ["", nil],
  "half a head" => ["GET /account/login HTTP/1.1\r\nHost: x\r\nX-Slow: ", "y"],
  "never reading" => ["GET #{LARGE} HTTP/1.1\r\nHost: x\r\n\r\n", nil],
  "slow bodies" => ["POST /account/login HTTP/1.1\r\nHost: x\r\nContent-Length: 60000\r\n\r\n", "z"],
  "endless heads" => ["GET / HTTP/1.1\r\nHost: x\r\n", "X-#{"y" * 200}: #{"z" * 4000}\r\n"],
  "bodies in parts" => ["POST /account/login HTTP/1.1\r\nHost: x\r\nTransfer-Encoding: chunked\r\n\r\n", PART]
}.freeze

what, port, many = ARGV
first, more = WAYS.fetch(what)

# One that is cut off is opened again.
def open_one(port, first)
  socket = Socket.new(:INET, :STREAM)
  socket.setsockopt(Socket::SOL_SOCKET, Socket::SO_RCVBUF, 2048)
  socket.connect(Addrinfo.tcp("127.0.0.1", Integer(port)))
  socket.write(first)
  socket
end

sockets = Array.new(Integer(many)) { open_one(port, first) }
$stdout.puts("ready")
$stdout.flush
until $stdin.wait_readable(0.5)
  sockets.map! do |socket|
    socket.write_nonblock(more, exception: false) if more
    socket
  rescue SystemCallError, IOError
    socket.close
    open_one(port, first)
  end
end
