# frozen_string_literal: true

# Lantern: a made-up chat platform that is read by asking over HTTP, for demo and tests.
#   LANTERN_WEB_PORT=4613 ruby standins/lantern/run.rb
# LANTERN_PACE: lines a minute (14); LANTERN_FILE: where its history is kept (nowhere); LANTERN_EVERY_MS: how often it
# wants to be asked (1000)

require_relative "../shared/process"
require_relative "api"

mark = %(<svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true"><path d="M11 0 22 11 11 22 0 11z" fill="#e58fb0"/></svg>)
process = StandIns::Process.new("Lantern", mark)
room = StandIns::Room.new(process.viewers, file: process.setting("FILE"), followers: 2310)
api = Lantern::Api.new(room, process.grants, process.mischief, every_ms: process.setting("EVERY_MS", "1000").to_i)
process.serve(room, cut: -> { api.cut }, api:, totals: true)
sleep
