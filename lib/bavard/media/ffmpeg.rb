# frozen_string_literal: true

require "English"
require "fileutils"
require "json"
require "open3"
require "securerandom"
require_relative "../aside"
require_relative "../error"

module Bavard
  module Media
    # ffmpeg and ffprobe, in processes of their own with limits on time and memory; they see no network, and of all files only
    # the one they are given, read as what its first bytes say it is.
    module Ffmpeg
      CPU_S = 1200
      PROBE_CPU_S = 60
      MEMORY_BYTES = 4 * (1024**3)

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
      # @return [Boolean] whether the file is there now, whole
      def make(path, demuxer, target, *options)
        FileUtils.mkdir_p(File.dirname(target))
        part = "#{target}.#{SecureRandom.hex(8)}.part"
        pid = spawn(*command(path, demuxer, *options), part, in: File::NULL, out: File::NULL, err: File::NULL, rlimit_cpu: CPU_S,
          rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
        Process.wait(pid)
        return false unless $CHILD_STATUS.success? && File.size?(part)

        File.rename(part, target)
        true
      ensure
        FileUtils.rm_f(part) if part
      end

      # @return [Array(String, String), nil] what it writes to its output, and what it says; nil where it fails
      def read(path, demuxer, *options)
        out, said, status = Open3.capture3(*command(path, demuxer, *options), "-", stdin_data: "", binmode: true, rlimit_cpu: CPU_S,
          rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
        [out, said] if status.success?
      end

      def command(path, demuxer, *options)
        Aside.sealed("ffmpeg", "-hide_banner", "-nostats", "-nostdin", "-y", *input(demuxer), "-i", path, *options)
      end

      def input(demuxer) = ["-f", demuxer, "-protocol_whitelist", "file"]

      private_class_method :command, :input
    end
  end
end
