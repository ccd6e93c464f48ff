# frozen_string_literal: true

require "open3"
require_relative "../aside"
require_relative "../fair/turns"

module Bavard
  module Media
    # Words said aloud by the machine: espeak-ng, in a process of its own for each language.
    module Espeak
      # What is longer than that is not made.
      LONGEST_S = 60
      CPU_S = 10
      # Shows take turns: several screens of one say the same at once, and none keeps another's quiet.
      TURNS = Fair::Turns.new(at_once: 2, most_waiting: 12, most_of_one: 6)
      HEADER_BYTES = 44
      RATE = 22_050
      SAMPLE_BYTES = 2
      # Its own speed in words a minute, and of silence between two parts.
      WORDS_A_MINUTE = 165
      PAUSE_S = 0.25
      USUAL = "en-gb"
      # Languages it calls otherwise than everybody else.
      CALLED = {"zh" => "cmn", "no" => "nb"}.freeze
      # The usual pitch of its 0 to 99.
      PITCH = 50

      module_function

      # @return [Hash{String => String}] names of voices by their codes; none where it is not installed
      def voices = @voices ||= told_voices

      # @param language [String] as Core::Reading::Language has it
      # @return [String, nil] the voice for it
      def voice_for(language)
        wanted = CALLED.fetch(language, language)
        [wanted, "#{wanted}-#{wanted}"].find { |code| voices.key?(code) } || voices.keys.find { |code| code.start_with?("#{wanted}-") }
      end

      # @param language [String]
      def include?(language) = !voice_for(language).nil?

      # @param parts [Array<Core::Cues::Spoken::Part>, Array<Array(String, String)>] text, language or nil: the voice's own; text is read
      #   from standard input, so that none is an option
      # @param of [Object] whose turn it takes: a show
      # @param voice [String] of {voices}
      # @param speed [Integer] in hundredths of the usual, as pitch
      # @param most_s [Integer] seconds at most
      # @return [String, nil] WAV; nil where there is no voice
      # @raise [Busy] where too many wait for their turn
      def wav(parts, of:, voice: USUAL, speed: 100, pitch: 100, most_s: LONGEST_S)
        return if voices.empty?

        TURNS.take(of) do
          sounds = parts.map { |text, language| said(text, voice(language, voice), speed, pitch) }
          whole(sounds.compact, most_s.clamp(0, LONGEST_S)) if sounds.any?
        end
      rescue Busy
        raise Busy, "Enough is being said aloud just now. Try again in a moment."
      end

      def voice(language, own) = (language && voice_for(language)) || (voices.key?(own) ? own : USUAL)

      # @return [String, nil] samples
      def said(text, voice, speed, pitch)
        words_a_minute = (WORDS_A_MINUTE * speed / 100.0).round.clamp(80, 450)
        height = (PITCH * pitch / 100.0).round.clamp(0, 99)
        command = Aside.sealed("espeak-ng", "--stdout", "-v", voice, "-s", words_a_minute.to_s, "-p", height.to_s, "--stdin")
        out, status = Open3.capture2(*command, stdin_data: text, binmode: true, rlimit_cpu: CPU_S, **Aside::LIMITS)
        out.byteslice(HEADER_BYTES..) if status.success? && out.start_with?("RIFF") && out.bytesize > HEADER_BYTES
      end

      # One after the other, and no longer than it may be.
      def whole(sounds, most_s)
        pause = "\0".b * ((RATE * PAUSE_S).round * SAMPLE_BYTES)
        samples = sounds.join(pause).byteslice(0, (RATE * most_s).round * SAMPLE_BYTES)
        ["RIFF", samples.bytesize + HEADER_BYTES - 8, "WAVEfmt ", 16, 1, 1, RATE, RATE * SAMPLE_BYTES, SAMPLE_BYTES, SAMPLE_BYTES * 8, "data",
          samples.bytesize].pack("A4VA8VvvVVvvA4V") + samples
      end

      def told_voices
        out, status = Open3.capture2(*Aside.sealed("espeak-ng", "--voices"), stdin_data: "")
        return {} unless status.success?

        out.lines.drop(1).map(&:split).to_h { |_, code, _, name| [code, name.to_s.tr("_", " ")] }
      rescue Errno::ENOENT
        {}
      end

      private_class_method :voice, :said, :whole, :told_voices
    end
  end
end
