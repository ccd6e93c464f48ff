# frozen_string_literal: true

require "digest"
require_relative "../error"
require_relative "ffmpeg"

module Bavard
  module Media
    # Makes a film anew as WebM (VP8 and Vorbis, which every Chromium plays).
    #
    #   Film.new.make(path, into: "…/films")   # => Made with id, width, height, seconds
    class Film
      Made = Struct.new(:id, :width, :height, :seconds)

      LARGEST_BYTES = 200 * 1024 * 1024
      LONGEST_S = 600
      LARGEST_HEIGHT_PX = 1080
      # Containers that are read, by what they begin with; what a file is called counts for nothing.
      DEMUXERS = {"matroska,webm" => "\x1A\x45\xDF\xA3".b, "mov,mp4,m4a,3gp,3g2,mj2" => "ftyp".b, "ogg" => "OggS".b}.freeze
      ENCODED = ["-v", "error", "-map", "0:v:0", "-map", "0:a:0?", "-map_metadata", "-1", "-vf", "scale=-2:'min(#{LARGEST_HEIGHT_PX},ih)'",
        "-c:v", "libvpx", "-b:v", "4M", "-deadline", "realtime", "-cpu-used", "4"].freeze
      # What can be seen through: only these decoders read it, and the encoder keeps it without frames that are never shown.
      CLEAR = ["-pix_fmt", "yuva420p", "-auto-alt-ref", "0"].freeze
      CLEAR_DECODERS = {"vp8" => "libvpx", "vp9" => "libvpx-vp9"}.freeze
      ENDS = ["-c:a", "libvorbis", "-t", LONGEST_S.to_s, "-f", "webm"].freeze

      # @param path [String] of the file as it came
      # @param into [String] a folder
      # @param watch [#told, #stopped?] as Bavard::Unwatched
      # @return [Made]
      # @raise [Bavard::Error] saying why not, in words that go on after "it"
      def make(path, into:, watch: Unwatched)
        raise Error, "it has more than #{LARGEST_BYTES / 1024 / 1024} MB" if File.size(path) > LARGEST_BYTES

        demuxer = demuxer_of(path) or raise Error, "it is no WebM, MP4 or Ogg film"
        about = Ffmpeg.probe(path, demuxer, "v:0",
          "width,height,codec_name,pix_fmt:stream_tags=alpha_mode") or raise Error, "it holds no moving picture that can be read"
        raise Error, "it is longer than #{LONGEST_S / 60} minutes" if about["seconds"] > LONGEST_S

        id = Digest::SHA256.file(path).hexdigest[0, 32]
        Ffmpeg.make(path, demuxer, File.join(into, "#{id}.webm"), *ENCODED, *(CLEAR if clear?(about)), *ENDS, decoder: decoder(about),
          seconds: about["seconds"], watch:) or
          raise Error, "it cannot be read as a film"
        Made.new(id, about["width"].to_i, about["height"].to_i, about["seconds"])
      end

      private

      def clear?(about) = about.dig("tags", "alpha_mode") == "1" || about["pix_fmt"].to_s.match?(/\A(?:yuva|rgba|bgra|argb|abgr|gbrap)/)

      def decoder(about)
        name = CLEAR_DECODERS[about["codec_name"]] if about.dig("tags", "alpha_mode") == "1"
        name ? ["-c:v", name] : []
      end

      def demuxer_of(path)
        head = File.binread(path, 64).to_s
        DEMUXERS.find { |name, mark| name.start_with?("mov") ? head.byteslice(4, 4) == mark : head.start_with?(mark) }&.first
      end
    end
  end
end
