# frozen_string_literal: true

require "fileutils"
require "io/wait"
require "json"
require "open3"
require "securerandom"
require_relative "../aside"
require_relative "../error"
require_relative "../unwatched"

module Bavard
  module Media
    # ffmpeg and ffprobe, in processes of their own with limits on time and memory; they see no network, and of all files only
    # the one they are given, read as what its first bytes say it is.
    module Ffmpeg
      CPU_S = 1200
      PROBE_CPU_S = 60
      MEMORY_BYTES = 4 * (1024**3)
      LOOK_EVERY_S = 0.25
      # More than what ffmpeg writes at once: so much may be left of a disk that is full.
      ROOM_BYTES = 256 * 1024

      module_function

      # @param path [String]
      # @param demuxer [String] as ffmpeg calls it
      # @param stream [String] "v:0" or "a:0"
      # @param entries [String] of the stream
      # @return [Hash, nil] of that stream, with "seconds"; nil where it has none
      def probe(path, demuxer, stream, entries)
        said, status = Open3.capture2(*Aside.sealed("ffprobe"), "-v", "error", *input(demuxer), path, "-select_streams", stream,
          "-show_entries", "stream=#{entries}:format=duration", "-of", "json", err: File::NULL, stdin_data: "",
          rlimit_cpu: PROBE_CPU_S, rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
        read = status.success? ? JSON.parse(said) : {}
        read["streams"]&.first&.merge("seconds" => read.dig("format", "duration").to_f)
      end

      # @param options [Array<String>] for what comes out
      # @param decoder [Array<String>] options for what comes in
      # @param seconds [Numeric] how long it will be, for whoever watches
      # @param watch [#told, #stopped?] as Bavard::Unwatched
      # @return [Boolean] whether the file is there now, whole
      # @raise [Bavard::Stopped]
      # @raise [SystemCallError] where there is no room for it
      def make(path, demuxer, target, *options, decoder: [], seconds: 0, watch: Unwatched)
        FileUtils.mkdir_p(File.dirname(target))
        part = "#{target}.#{SecureRandom.hex(8)}.part"
        made = followed(command(path, demuxer, "-progress", "pipe:1", *options, decoder:) + [part], seconds, watch)
        return room?(part) && false unless made && File.size?(part)

        File.open(part, &:fdatasync)
        File.rename(part, target)
        true
      ensure
        FileUtils.rm_f(part) if part
      end

      # A disk without room fails what is made as much as a file that is none, and says why to whoever writes there.
      #
      # @return [true]
      # @raise [SystemCallError]
      def room?(part) = File.write(part, "\0" * ROOM_BYTES, mode: "ab") && true

      # @return [Boolean] whether it went well
      def followed(command, seconds, watch)
        said, out = IO.pipe
        pid = spawn(*command, in: File::NULL, out:, err: File::NULL, pgroup: true, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
        out.close
        while (line = said.wait_readable(LOOK_EVERY_S) ? said.gets : "")
          raise Stopped, "it was stopped" if watch.stopped?

          reached_us = line[/\Aout_time_us=(\d+)/, 1]
          watch.told([reached_us.to_i / 1_000_000.0, seconds].min, seconds) if reached_us
        end
        _, status = Process.wait2(pid)
        pid = nil
        status.success?
      ensure
        said&.close
        finish(pid) if pid
      end

      def finish(pid)
        Process.kill("KILL", -pid)
        Process.wait(pid)
      rescue Errno::ESRCH, Errno::ECHILD
        nil
      end

      # @return [Array(String, String), nil] what it writes to its output, and what it says; nil where it fails
      def read(path, demuxer, *options)
        out, said, status = Open3.capture3(*command(path, demuxer, *options), "-", stdin_data: "", binmode: true, rlimit_cpu: CPU_S,
          rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
        [out, said] if status.success?
      end

      def command(path, demuxer, *options, decoder: [])
        Aside.sealed("ffmpeg", "-hide_banner", "-nostats", "-nostdin", "-y", *decoder, *input(demuxer), "-i", path, *options)
      end

      def input(demuxer) = ["-f", demuxer, "-protocol_whitelist", "file"]

      private_class_method :command, :input, :followed, :finish
    end
  end
end
