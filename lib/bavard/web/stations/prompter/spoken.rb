# frozen_string_literal: true

require "open3"
require "timeout"
require_relative "../../../aside"

module Bavard
  module Web
    # A line read aloud by the machine, for browsers without a voice: espeak-ng, in a process of its own.
    module Spoken
      LONGEST_S = 10
      MOST_AT_ONCE = 2
      ROOM = Thread::SizedQueue.new(MOST_AT_ONCE)

      module_function

      # @param words [String] as Core::Reading::Speech gives them; read from standard input, so that none is an option
      # @return [String, nil] WAV; nil where there is no voice, or it is busy
      def wav(words)
        return unless ROOM.push(true, true)

        begin
          out, status = Open3.capture2("timeout", LONGEST_S.to_s, *Aside.sealed("espeak-ng", "--stdout", "--stdin"), stdin_data: words,
            binmode: true)
          out if status.success? && out.start_with?("RIFF")
        ensure
          ROOM.pop
        end
      rescue ThreadError, Errno::ENOENT
        nil
      end
    end
  end
end
