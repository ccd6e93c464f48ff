# frozen_string_literal: true

require "open3"

module Hidewire
  # Sound as levels: the mean power of each stretch of time against the loudest a sample can be, in −dBov as RFC 6464 sends
  # it: 0 at its loudest, 127 for silence.
  module Sound
    RATE_HZ = 16_000
    EVERY_MS = 20
    SILENCE = 127
    FULL = 32_768.0
    LONGEST_S = 600

    module_function

    # @param file [String] path of any sound file that ffmpeg reads
    # @return [Array<Integer>] a level for each 20 ms; empty where it cannot be read
    def measure(file)
      command = ["ffmpeg", "-v", "error", "-nostdin", "-i", file, "-t", LONGEST_S.to_s, "-ac", "1", "-ar", RATE_HZ.to_s, "-f", "s16le", "-"]
      bytes, _, status = Open3.capture3(*command, binmode: true)
      status.success? ? levels(bytes.unpack("s<*")) : []
    end

    # @param samples [Array<Integer>] 16 bits each
    def levels(samples)
      samples.each_slice(RATE_HZ * EVERY_MS / 1000).map { |stretch| level(stretch) }
    end

    def level(samples)
      power = samples.sum { |sample| sample * sample } / samples.size.to_f
      power.zero? ? SILENCE : (-10 * Math.log10(power / (FULL * FULL))).round.clamp(0, SILENCE)
    end

    # @param text [String]
    # @param voice [String] one of espeak-ng's
    # @return [Array<Integer>] samples
    def speak(text, voice:, words_a_minute: 165)
      wave, _, status = Open3.capture3("espeak-ng", "-v", voice, "-s", words_a_minute.to_s, "--stdout", "--", text, binmode: true)
      raise "espeak-ng did not speak as #{voice}" unless status.success?

      resampled(wave)
    end

    def resampled(wave)
      command = ["ffmpeg", "-v", "error", "-i", "-", "-ac", "1", "-ar", RATE_HZ.to_s, "-f", "s16le", "-"]
      bytes, = Open3.capture3(*command, stdin_data: wave, binmode: true)
      bytes.unpack("s<*")
    end
    private_class_method :resampled
  end
end
