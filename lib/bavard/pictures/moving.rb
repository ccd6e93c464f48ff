# frozen_string_literal: true

require "json"
require "open3"
require "tempfile"
require "vips"
require_relative "bounds"

module Bavard
  module Pictures
    # The frames of moving pictures of which libvips sees only the first, APNG and AVIF sequences: read through ffmpeg, which
    # runs in this process' group and under its limits. As {Frames}.
    class Moving
      include Enumerable

      # What ffmpeg reads them as.
      DEMUXERS = {apng: "apng", moving_avif: "mov"}.freeze
      DEFAULT_DELAY_MS = 100
      BYTES_A_PIXEL = 4

      attr_reader :count, :width, :height

      # @param kind [Symbol] one of DEMUXERS
      # @param purpose [String] of Bounds::PURPOSES
      # @raise [Frames::Refused]
      def initialize(bytes, kind, purpose)
        @bytes = bytes
        @demuxer = DEMUXERS.fetch(kind)
        with_file { |path| probe(path) }
        Frames.refuse(@width, @height, @count, purpose)
      end

      def delays = [@delay_ms] * @count
      def loops = 0

      # A frame that is promised and does not come ends it.
      def each
        size = @width * @height * BYTES_A_PIXEL
        with_file do |path|
          IO.popen(decoding(path), "rb", err: File::NULL) do |frames|
            @count.times do
              data = frames.read(size)
              raise Frames::Refused, "it cannot be read as a moving picture" unless data&.bytesize == size

              yield image(data)
            end
          end
        end
      end

      private

      def with_file
        Tempfile.create("moving", binmode: true) do |file|
          file.write(@bytes)
          file.flush
          yield file.path
        end
      end

      # Frames are counted by reading their packets, not by what the file says of itself.
      def probe(path)
        said, status = Open3.capture2("ffprobe", "-v", "error", "-f", @demuxer, "-protocol_whitelist", "file", "-select_streams", "v:0",
          "-count_packets", "-show_entries", "stream=width,height,avg_frame_rate,nb_read_packets", "-of", "json", path, err: File::NULL)
        stream = status.success? && JSON.parse(said)["streams"]&.first or raise Frames::Refused, "it cannot be read as a moving picture"
        @width, @height, @count = stream.values_at("width", "height", "nb_read_packets").map(&:to_i)
        raise Frames::Refused, "it has no frames" if @count.zero?

        @delay_ms = delay_ms(stream["avg_frame_rate"])
      rescue Errno::ENOENT
        raise Frames::Refused, "moving pictures of this kind need ffmpeg, which is not installed"
      end

      def delay_ms(rate)
        frames, seconds = rate.to_s.split("/").map(&:to_f)
        frames&.positive? && seconds&.positive? ? (seconds * 1000 / frames).round : DEFAULT_DELAY_MS
      end

      def decoding(path)
        ["ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-f", @demuxer, "-protocol_whitelist", "file,pipe", "-i", path,
          "-frames:v", @count.to_s, "-fps_mode", "passthrough", "-f", "rawvideo", "-pix_fmt", "rgba", "pipe:1"]
      end

      def image(data) = Vips::Image.new_from_memory_copy(data, @width, @height, BYTES_A_PIXEL, :uchar).copy(interpretation: :srgb)
    end
  end
end
