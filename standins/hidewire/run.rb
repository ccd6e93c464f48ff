# frozen_string_literal: true

# Hidewire: a made-up voice service with a text room, for demo and tests.
#   HIDEWIRE_WEB_PORT=4615 ruby standins/hidewire/run.rb
# HIDEWIRE_SCRIPT: the conversation that is heard at first (none); HIDEWIRE_PACE: lines a minute in its text room (0);
# HIDEWIRE_FILE: where its texts are kept (nowhere); HIDEWIRE_BEAT_MS: its heartbeat (5000)

require_relative "../shared/process"
require_relative "api"
require_relative "rooms"

mark = %(<svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true"><path d="M6 2h10l5 9-5 9H6L1 11z" fill="#d9a066"/></svg>)
process = StandIns::Process.new("Hidewire", mark)
scripts = Hidewire::Conversation.all(File.join(StandIns::Process::DEMO, "conversations"))
rooms = Hidewire::Rooms.new(process.viewers, scripts, file: process.setting("FILE"))
Hidewire::Client.file = process.setting("FILE")&.then { |file| "#{file}.resumes" }
api = Hidewire::Api.new(rooms, process.grants, process.mischief, beat_ms: process.setting("BEAT_MS", "5000").to_i)
rooms.play(process.setting("SCRIPT"), (Process.clock_gettime(Process::CLOCK_MONOTONIC) * 1000).to_i) if process.setting("SCRIPT")
api.start
process.serve(rooms.places.fetch("hides").text, cut: -> { api.cut }, api:, pace: "0")
sleep
