# frozen_string_literal: true

require "digest"
require "English"
require "fileutils"
require "json"
require "open3"
require "tmpdir"
require_relative "../error"

module Bavard
  module Pictures
    # Makes a film anew as WebM (VP8 and Vorbis, which every Chromium plays), through ffmpeg in a process of its own with
    # limits on memory and time; it sees no network and no file but the one it is given.
    #
    #   Film.new.make(path, into: "…/films")   # => Made with id, width, height, seconds
    class Film
      Made = Struct.new(:id, :width, :height, :seconds)

      LARGEST_BYTES = 200 * 1024 * 1024
      LONGEST_S = 600
      LARGEST_HEIGHT_PX = 1080
      CPU_S = 1200
      MEMORY_BYTES = 4 * (1024**3)
      NICE = "10"
      # Containers that are read, by what they begin with; what a file is called counts for nothing.
      DEMUXERS = {"matroska,webm" => "\x1A\x45\xDF\xA3".b, "mov,mp4,m4a,3gp,3g2,mj2" => "ftyp".b, "ogg" => "OggS".b}.freeze

      # @param path [String] of the file as it came
      # @param into [String] a folder
      # @return [Made]
      # @raise [Bavard::Error] saying why not, in words that go on after "it"
      def make(path, into:)
        raise Error, "it has more than #{LARGEST_BYTES / 1024 / 1024} MB" if File.size(path) > LARGEST_BYTES

        demuxer = demuxer_of(path) or raise Error, "it is no WebM, MP4 or Ogg film"
        about = probe(path, demuxer)
        id = Digest::SHA256.file(path).hexdigest[0, 32]
        encode(path, demuxer, File.join(into, "#{id}.webm"), into)
        Made.new(id, about["width"].to_i, about["height"].to_i, about["seconds"].to_f)
      end

      private

      def demuxer_of(path)
        head = File.binread(path, 64).to_s
        DEMUXERS.find { |name, mark| name.start_with?("mov") ? head.byteslice(4, 4) == mark : head.start_with?(mark) }&.first
      end

      def probe(path, demuxer)
        said, status = Open3.capture2("ffprobe", "-v", "error", "-f", demuxer, "-protocol_whitelist", "file", "-select_streams", "v:0",
          "-show_entries", "stream=width,height:format=duration", "-of", "json", path, err: File::NULL, stdin_data: "")
        read = status.success? ? JSON.parse(said) : {}
        stream = read["streams"]&.first or raise Error, "it holds no moving picture that can be read"
        seconds = read.dig("format", "duration").to_f
        raise Error, "it is longer than #{LONGEST_S / 60} minutes" if seconds > LONGEST_S

        stream.merge("seconds" => seconds)
      end

      def encode(path, demuxer, target, folder)
        FileUtils.mkdir_p(folder)
        part = "#{target}.#{Process.pid}.part"
        pid = spawn("nice", "-n", NICE, "ffmpeg", "-v", "error", "-nostdin", "-y", "-f", demuxer, "-protocol_whitelist", "file", "-i", path,
          "-map", "0:v:0", "-map", "0:a:0?", "-map_metadata", "-1", "-vf", "scale=-2:'min(#{LARGEST_HEIGHT_PX},ih)'", "-c:v", "libvpx",
          "-b:v", "4M", "-deadline", "realtime", "-cpu-used", "4", "-c:a", "libvorbis", "-t", LONGEST_S.to_s, "-f", "webm", part,
          in: File::NULL, out: File::NULL, err: File::NULL, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES)
        Process.wait(pid)
        raise Error, "it cannot be read as a film" unless $CHILD_STATUS.success? && File.size?(part)

        File.rename(part, target)
      ensure
        FileUtils.rm_f(part) if part
      end
    end
  end
end
