# frozen_string_literal: true

# Answers on PORT for as long as its standard input is open, while there is no database to begin the application with.
#   BAVARD_BIND=127.0.0.1 PORT=4600 BAVARD_WAITS_FOR="the database" ruby lib/bavard/web/http/waiting.rb

require "puma"
require "puma/server"
require_relative "waiting_room"

room = Bavard::Web::WaitingRoom.new(ENV.fetch("BAVARD_WAITS_FOR"))
server = Puma::Server.new(room, nil, {min_threads: 1, max_threads: 4, log_writer: Puma::LogWriter.null, environment: "production"})
server.add_tcp_listener(ENV.fetch("BAVARD_BIND"), Integer(ENV.fetch("PORT")))
server.run
%w[INT TERM].each { |signal| trap(signal) { exit! } }
$stdin.read
server.stop(true)
