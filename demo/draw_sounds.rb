# frozen_string_literal: true

# Makes the demo's sounds from nothing but sines and noise, with ffmpeg.
#   ruby demo/draw_sounds.rb
# What it writes is committed, so that nobody else has to run it.

FOLDER = File.expand_path("sounds", __dir__)
# Each as ffmpeg's aevalsrc takes it, and how long, in seconds.
SOUNDS = {
  # Two small bells, one after the other.
  "ring" => ["0.5*sin(2*PI*1318*t)*exp(-4*t)+0.4*sin(2*PI*1976*(t-0.18))*exp(-4*(t-0.18))*gt(t,0.18)", 1.6],
  # Down and up, as a wader calls.
  "call" => ["0.6*sin(2*PI*(900*t+260*sin(2*PI*2.2*t)/(2*PI*2.2)))*exp(-1.6*t)*lt(t,1.4)", 1.4],
  # A drop into still water.
  "drop" => ["0.7*sin(2*PI*(380*t+900*t*t))*exp(-9*t)", 0.6],
  # Three notes upwards, for something large.
  "dawn" => ["0.4*sin(2*PI*523*t)*exp(-3*t)+0.4*sin(2*PI*659*(t-0.25))*exp(-3*(t-0.25))*gt(t,0.25)+" \
             "0.5*sin(2*PI*1047*(t-0.5))*exp(-2*(t-0.5))*gt(t,0.5)", 2.4]
}.freeze

SOUNDS.each do |name, (source, seconds)|
  system("ffmpeg", "-v", "error", "-nostdin", "-y", "-f", "lavfi", "-i", "aevalsrc='#{source}':s=48000:d=#{seconds}", "-c:a", "libopus", "-b:a", "64k",
    "-map_metadata", "-1", "-bitexact", File.join(FOLDER, "#{name}.ogg"), exception: true)
end
