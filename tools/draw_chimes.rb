# frozen_string_literal: true

# Makes the short sounds that alerts have where a cue has none, from nothing but sines and noise, with ffmpeg.
#   ruby tools/draw_chimes.rb
# What it writes is committed, so that nobody else has to run it.

FOLDER = File.expand_path("../assets/sounds", __dir__)
# A note that dies away: its frequency in Hz, when it begins in seconds, how fast it goes, how loud it is.
NOTE = ->(hz, at, fade, loud) { "#{loud}*sin(2*PI*#{hz}*(t-#{at}))*exp(-#{fade}*(t-#{at}))*gte(t,#{at})" }
# Each as ffmpeg's aevalsrc takes it, and how long, in seconds.
CHIMES = {
  # A reed in the wind, low and soft.
  "reed" => [[NOTE.call(392, 0, 3, 0.3), NOTE.call(588, 0.04, 3.4, 0.16), NOTE.call(784, 0.16, 4, 0.1)].join("+"), 1.2],
  # Two knocks on wood.
  "knock" => [[NOTE.call(196, 0, 24, 0.8), NOTE.call(740, 0, 60, 0.3), NOTE.call(247, 0.13, 22, 0.8), NOTE.call(930, 0.13, 60, 0.3)].join("+"), 0.6],
  # A key of a typewriter, and its bell.
  "key" => [["0.5*(random(0)-0.5)*exp(-90*t)", NOTE.call(2637, 0.12, 5, 0.2), NOTE.call(3951, 0.12, 8, 0.08)].join("+"), 1.0],
  # A small metal ring.
  "ring" => [[NOTE.call(1568, 0, 4, 0.28), NOTE.call(2349, 0, 6, 0.14), NOTE.call(3136, 0.01, 9, 0.08)].join("+"), 1.2],
  # Comes in slowly and wide.
  "swell" => [%w[220 330 440].map { |hz| "0.16*sin(2*PI*#{hz}*t)*(1-exp(-9*t))*exp(-2.2*t)" }.join("+"), 1.6],
  # One even tone, for whoever listens for it.
  "tone" => ["0.35*sin(2*PI*880*t)*min(1,t*80)*min(1,(0.42-t)*24)", 0.42],
  # A tick, and one a little lower.
  "tick" => [[NOTE.call(2093, 0, 70, 0.5), NOTE.call(1568, 0.09, 70, 0.5)].join("+"), 0.3],
  # Two bubbles that come up.
  "bubble" => ["0.5*sin(2*PI*(300*t+1500*t*t))*exp(-14*t)+0.5*sin(2*PI*(420*(t-0.14)+2200*(t-0.14)*(t-0.14)))*exp(-14*(t-0.14))*gte(t,0.14)", 0.6]
}.freeze

CHIMES.each do |name, (source, seconds)|
  system("ffmpeg", "-v", "error", "-nostdin", "-y", "-f", "lavfi", "-i", "aevalsrc='#{source}':s=48000:d=#{seconds}", "-c:a", "libopus",
    "-b:a", "48k", "-map_metadata", "-1", "-bitexact", File.join(FOLDER, "#{name}.ogg"), exception: true)
end
