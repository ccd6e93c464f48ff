# frozen_string_literal: true

require "socket"

# The least that is an IRC server (RFC 1459): no capabilities, tags, ids or times. In this process, on loopback.
class MinimalIrc
  attr_reader :port, :heard

  # @param greeting [Proc, nil] what a client gets instead of a welcome
  def initialize(greeting: nil, tls: nil, port: 0)
    @greeting = greeting
    @server = TCPServer.new("127.0.0.1", port)
    @port = @server.addr[1]
    @tls = tls
    @heard = Queue.new
    @clients = []
    @thread = Thread.new { accept }
  end

  def say(nick, text)
    write(":#{nick}!#{nick}@host PRIVMSG #reedmere :#{text}\r\n")
  end

  # Bytes as they are, to all clients.
  def write(bytes)
    @clients.dup.each do |client|
      client.write(bytes)
    rescue SystemCallError
      @clients.delete(client)
    end
  end

  def clients = @clients.size

  # Cuts everybody off.
  def cut
    @clients.each(&:close)
    @clients.clear
  end

  def stop
    @thread.kill
    @server.close
    cut
  end

  private

  def accept
    loop do
      client = @server.accept
      client = secured(client) if @tls
      Thread.new { talk(client) } if client
    end
  end

  def secured(client)
    OpenSSL::SSL::SSLSocket.new(client, @tls).tap { |socket| socket.sync_close = true }.accept
  rescue OpenSSL::SSL::SSLError, SystemCallError
    nil # whoever did not trust it, or went: the next may
  end

  def talk(client)
    nick = nil
    while (line = client.gets)
      @heard << line.chomp
      command, argument = line.split
      case command
      when "CAP" then client.write(":min 421 * CAP :Unknown command\r\n")
      when "NICK" then nick = argument
      when "USER" then @greeting ? @greeting.call(client, nick) : client.write(":min 001 #{nick} :Welcome\r\n")
      when "JOIN"
        client.write(":#{nick}!u@host JOIN #{argument}\r\n")
        @clients << client
      when "PING" then client.write(":min PONG min :still-there\r\n")
      end
    end
  rescue SystemCallError, IOError
    nil
  end
end
