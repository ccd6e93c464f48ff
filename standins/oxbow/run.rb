# frozen_string_literal: true

# Oxbow: a made-up chat platform that speaks IRC on loopback, for demo and tests.
#   OXBOW_IRC_PORT=4610 OXBOW_WEB_PORT=4611 ruby standins/oxbow/run.rb
# OXBOW_PACE: lines a minute (14); OXBOW_FILE: where its history is kept (nowhere)

require "socket"
require_relative "../shared/process"
require_relative "channel"
require_relative "client"

mark = %(<svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true"><circle cx="11" cy="11" r="10" fill="#5fb8d6"/></svg>)
process = StandIns::Process.new("Oxbow", mark)
channel = Oxbow::Channel.new("#reedmere", process.viewers, process.mischief, file: process.setting("FILE"),
  pictures: "http://127.0.0.1:#{process.setting("WEB_PORT", "4611")}/pictures")
irc = TCPServer.new("127.0.0.1", Integer(process.setting("IRC_PORT", "4610")))
process.serve(channel, cut: -> { channel.cut }, granting: false)
loop do
  socket = irc.accept
  socket.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
  Thread.new { Oxbow::Client.new(socket, channel, process.mischief).run }
end
