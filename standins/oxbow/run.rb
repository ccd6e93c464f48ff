# frozen_string_literal: true

# Oxbow: a made-up chat platform that speaks IRC on loopback, for demo and tests.
#   OXBOW_IRC_PORT=4610 OXBOW_WEB_PORT=4611 ruby standins/oxbow/run.rb
# OXBOW_PACE: lines a minute (14); OXBOW_FILE: where its history is kept (nowhere)

require "json"
require "puma"
require "puma/server"
require "puma/events"
require "socket"
require_relative "channel"
require_relative "client"
require_relative "page"
require_relative "talkers"

demo = File.expand_path("../../demo", __dir__)
viewers = JSON.parse(File.read(File.join(demo, "viewers.json")))
chatter = JSON.parse(File.read(File.join(demo, "chatter.json")))
channel = Oxbow::Channel.new("#reedmere", viewers, file: ENV.fetch("OXBOW_FILE", nil))
talkers = Oxbow::Talkers.new(channel, chatter, per_minute: ENV.fetch("OXBOW_PACE", "14").to_f)

irc = TCPServer.new("127.0.0.1", Integer(ENV.fetch("OXBOW_IRC_PORT", "4610")))
web = Puma::Server.new(Oxbow::Page.new(channel, talkers), nil, {min_threads: 1, max_threads: 4, log_writer: Puma::LogWriter.null})
web.add_tcp_listener("127.0.0.1", Integer(ENV.fetch("OXBOW_WEB_PORT", "4611")))
web.run
talkers.start

%w[INT TERM].each { |signal| trap(signal) { exit! } }
# Ends with whoever started it.
Thread.new { $stdin.read && exit! } if $stdin.stat.pipe?
puts "ready"
$stdout.flush
loop do
  socket = irc.accept
  socket.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
  Thread.new { Oxbow::Client.new(socket, channel).run }
end
