# frozen_string_literal: true

require "time"
require_relative "wire"

module Oxbow
  # One connection to the stand-in, from any IRC client.
  class Client
    OFFERED = "message-tags server-time batch account-tag echo-message sasl=PLAIN draft/chathistory " \
              "draft/event-playback draft/message-redaction"
    CAPABILITIES = OFFERED.split.map { |offer| offer[/\A[^=]+/] }
    PAGE = 100
    GARBAGE = "@=;;;\\\\ :: \xFF\xFE 999999 #reedmere :\u0001\u0001"

    attr_reader :nick

    def initialize(socket, channel, mischief)
      @socket = socket
      @channel = channel
      @mischief = mischief
      @granted = []
      @lock = Mutex.new
      @nick = nil
    end

    def run
      while (line = @socket.gets("\n", Wire::LONGEST))
        answer(*Wire.parse(line))
        break if @quit
      end
    rescue SystemCallError, IOError
      nil
    ensure
      @channel.leave(self)
      @socket.close
    end

    def cut = @socket.shutdown

    def echo? = @granted.include?("echo-message")

    # Sends a channel's event the way this client asked for it.
    def deliver(event, batch: nil)
      return if event.kind == "REDACT" && !@granted.include?("draft/message-redaction")
      return if event.kind == "TAGMSG" && !@granted.include?("message-tags")

      @mischief.dawdle unless batch
      write(GARBAGE) if @mischief.on?("garbage")
      write(Wire.event(event, @channel.name, @granted, batch))
    end

    def write(line)
      @lock.synchronize { @socket.write("#{line}\r\n") }
    rescue SystemCallError, IOError
      nil
    end

    private

    def answer(tags, command, params)
      return if command != "QUIT" && @mischief.on?("stall")

      case command
      when "CAP" then capabilities(params)
      when "AUTHENTICATE" then authenticate(params.first)
      when "NICK" then named(params.first)
      when "USER" then welcome(user: true)
      when "PING" then write(":oxbow PONG oxbow :#{params.last}")
      when "QUIT" then @quit = true
      when nil, "PONG", "PASS", "MODE", "WHO" then nil
      else in_channel(tags, command, params)
      end
    end

    def in_channel(tags, command, params)
      return write(":oxbow 451 * :You have not registered") unless @welcomed

      case command
      when "JOIN" then joined(params.first)
      when "PRIVMSG" then said(tags, params)
      when "REDACT" then @channel.delete(params[1], nick:) if params[1]
      when "CHATHISTORY" then history(params)
      when "TOPIC" then params[1] ? @channel.topic = params[1] : topic
      when "NAMES" then names
      else write(":oxbow 421 #{nick} #{command} :Unknown command")
      end
    end

    def capabilities(params)
      case params.first&.upcase
      when "LS" then write(":oxbow CAP * LS :#{OFFERED}").tap { @negotiating = true }
      when "REQ"
        wanted = params.last.to_s.split
        return write(":oxbow CAP * NAK :#{wanted.join(" ")}") if (wanted - CAPABILITIES).any?

        @granted |= wanted
        write(":oxbow CAP * ACK :#{wanted.join(" ")}")
      when "END"
        @negotiating = false
        welcome
      end
    end

    # PLAIN: any of the viewers, with the word "marsh".
    def authenticate(given)
      return write("AUTHENTICATE +") if given == "PLAIN"

      _, login, password = given.to_s.unpack1("m").split("\0")
      known = @channel.viewers.any? { |viewer| viewer["login"] == login } || login == "odalys"
      return write(":oxbow 904 #{nick || "*"} :SASL authentication failed") unless known && password == "marsh"

      write(":oxbow 903 #{nick || "*"} :SASL authentication successful")
    end

    def named(wanted)
      return write(":oxbow 431 * :No nickname given") if wanted.to_s.empty?
      return write(":oxbow 433 * #{wanted} :Nickname is already in use") if @channel.nicks.include?(wanted) && wanted != nick

      write(":#{nick} NICK :#{wanted}") if @welcomed
      @nick = wanted[0, 60]
      welcome
    end

    def welcome(user: false)
      @user ||= user
      return if @welcomed || @negotiating || !@user || !nick

      @welcomed = true
      write(":oxbow 001 #{nick} :Welcome to Oxbow, #{nick}")
      write(":oxbow 005 #{nick} CHANTYPES=# CHATHISTORY=#{PAGE} NETWORK=Oxbow :are supported by this server")
      write(":oxbow 422 #{nick} :There is no message of the day")
    end

    def joined(name)
      return refuse if @mischief.on?("limit")
      return write(":oxbow 403 #{nick} #{name} :No such channel") unless name&.casecmp?(@channel.name)

      write(":#{nick}!#{nick}@oxbow JOIN #{@channel.name}")
      topic
      names
      @channel.join(self)
    end

    def refuse
      write("ERROR :You come too often, wait a little")
      @quit = true
    end

    def topic = write(":oxbow 332 #{nick} #{@channel.name} :#{@channel.topic}")

    def names
      write(":oxbow 353 #{nick} = #{@channel.name} :#{@channel.nicks.first(60).join(" ")}")
      write(":oxbow 366 #{nick} #{@channel.name} :End of NAMES")
    end

    def said(tags, params)
      return unless params[1] && params.first.casecmp?(@channel.name)

      @channel.privmsg(nick, params[1], tags: tags.select { |key, _| key.start_with?("+") }, except: self)
    end

    def history(params)
      order, _, point, limit = params
      found = order == "LATEST" ? @channel.latest(PAGE) : order == "AFTER" && @channel.after(point.to_s, limit.to_i.clamp(1, PAGE))
      return write("FAIL CHATHISTORY MESSAGE_ERROR #{order} #{@channel.name} :Not found") unless found

      write(":oxbow BATCH +h1 chathistory #{@channel.name}")
      found.each { |event| deliver(event, batch: "h1") }
      write(":oxbow BATCH -h1")
    end
  end
end
