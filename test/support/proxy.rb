# frozen_string_literal: true

require "socket"

# Stands between a page and the application, and can be cut or stalled: a network that fails while both ends are well.
class Proxy
  READ_BYTES = 65_536

  attr_reader :port

  # @param target [Integer, String] a port, or the path of a socket
  def initialize(target)
    @target = target
    @server = TCPServer.new("127.0.0.1", 0)
    @port = @server.addr[1]
    @pairs = Queue.new
    @open = true
    @stranded = []
    @lock = Mutex.new
    @goes_on = ConditionVariable.new
    @thread = Thread.new { loop { take(@server.accept) } }
  end

  # Breaks every connection and lets no new one through.
  def cut
    @open = false
    close(@pairs.pop) until @pairs.empty?
  end

  # @param count [Integer] new connections that still come through
  def let_in(count) = @left = count

  def mend
    @left = nil
    @open = true
  end

  # Breaks every connection, of which only those are told who began it.
  def strand
    until @pairs.empty?
      client, server = @pairs.pop
      @stranded << server
      shut(client)
    end
  end

  # Nothing goes through, and nobody is told; what was on its way comes in one heap once it goes on.
  def stall = @lock.synchronize { @stalled = true }

  def go_on
    @lock.synchronize do
      @stalled = false
      @goes_on.broadcast
    end
  end

  def stop
    go_on
    @thread.kill
    @server.close
    cut
  end

  private

  def take(client)
    return client.close unless @open && !(@left && (@left -= 1).negative?)

    server = @target.is_a?(String) ? UNIXSocket.new(@target) : TCPSocket.new("127.0.0.1", @target)
    @pairs << [client, server]
    [[client, server], [server, client]].each { |from, to| Thread.new { pump(from, to) } }
  rescue SystemCallError
    client.close
  end

  def pump(from, to)
    loop do
      bytes = from.readpartial(READ_BYTES)
      @lock.synchronize { @goes_on.wait(@lock) while @stalled }
      to.write(bytes)
    end
  rescue EOFError
    to.close_write unless @stranded.include?(to)
  rescue SystemCallError, IOError
    # Whoever is cut off at one end is cut off at the other.
    close([from, to]) unless @stranded.intersect?([from, to])
  end

  def close(sockets)
    sockets.each { |socket| shut(socket) }
  end

  def shut(socket)
    socket.shutdown unless socket.closed?
  rescue SystemCallError, IOError
    nil
  end
end
