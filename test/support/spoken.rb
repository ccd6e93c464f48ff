# frozen_string_literal: true

require_relative "../../lib/bavard/core/voice/recording"

# A conversation that ships as levels, made into a sound again: what one of its people might have sounded like, for a browser's fake microphone.
module Spoken
  RATE = 16_000
  # Over all of it a voice glides up and down, for what stands still is taken for noise by browsers.
  PITCH_HZ = 140.0
  GLIDE_HZ = 45.0
  # One swing of it, of a root mean square of about one.
  SWING = Array.new(512) { |at| (1..12).sum { |harmonic| Math.sin(2 * Math::PI * harmonic * at / 512) / harmonic } * 1.13 }.freeze
  # The first of it will do: a browser plays it over and over.
  LONGEST_MS = 5000

  module_function

  # @param recording [Bavard::Core::Voice::Recording]
  # @param person [String] login
  # @param path [String] of the file to write
  # @return [String] that path: a WAV file of 16 bits, mono
  def write(recording, person, path)
    levels = recording.levels.fetch(person).first(LONGEST_MS / recording.every_ms)
    each = RATE * recording.every_ms / 1000
    phase = 0.0
    samples = levels.each_with_index.flat_map do |level, index|
      Array.new(each) do |at|
        phase += (PITCH_HZ + (GLIDE_HZ * Math.sin(((index * each) + at) * 9.0 / RATE))) / RATE
        (SWING[(phase * 512).to_i % 512] * 32_767 * (10**(-level / 20.0))).round.clamp(-32_768, 32_767)
      end
    end
    File.binwrite(path, wav(samples.pack("s<*")))
    path
  end

  def wav(bytes)
    ["RIFF", 36 + bytes.bytesize, "WAVE", "fmt ", 16, 1, 1, RATE, RATE * 2, 2, 16, "data", bytes.bytesize].pack("a4Va4a4VvvVVvva4V") + bytes
  end
end
