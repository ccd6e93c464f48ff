# frozen_string_literal: true

# Skein: a made-up chat platform that is read over a WebSocket, for demo and tests.
#   SKEIN_WEB_PORT=4614 ruby standins/skein/run.rb
# SKEIN_PACE: lines a minute (14); SKEIN_FILE: where its history is kept (nowhere); SKEIN_BEAT_MS: its heartbeat (5000)

require_relative "../shared/process"
require_relative "api"

mark = %(<svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true"><path d="M11 1 22 21H0z" fill="#63c58a"/></svg>)
process = StandIns::Process.new("Skein", mark)
room = StandIns::Room.new(process.viewers, file: process.setting("FILE"))
Skein::Client.file = process.setting("FILE")&.then { |file| "#{file}.resumes" }
api = Skein::Api.new(room, process.grants, process.mischief, beat_ms: process.setting("BEAT_MS", "5000").to_i)
process.serve(room, cut: -> { api.cut }, api:, totals: true)
sleep
