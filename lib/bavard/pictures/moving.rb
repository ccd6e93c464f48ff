# frozen_string_literal: true

require "json"
require "open3"
require "tempfile"
require "vips"
require_relative "bounds"

module Bavard
  module Pictures
    # The moving pictures of which libvips sees only the first frame, APNG and AVIF sequences: read through ffmpeg, which
    # runs in this process' group and under its limits.
    class Moving
      class Refused < StandardError
      end
      # What ffmpeg reads them as.
      DEMUXERS = {apng: "apng", moving_avif: "mov"}.freeze
      DEFAULT_DELAY_MS = 100
      BYTES_A_PIXEL = 4

      # @param kind [Symbol] one of DEMUXERS
      def initialize(bytes, kind)
        @bytes = bytes
        @demuxer = DEMUXERS.fetch(kind)
      end

      # @return [Vips::Image] all frames below each other
      def frames
        Tempfile.create("moving", binmode: true) do |file|
          file.write(@bytes)
          file.flush
          width, height, delay_ms = probe(file.path)
          words = Bounds.against(width, height, 1) and raise Refused, words
          join(decode(file.path), width, height, delay_ms)
        end
      end

      private

      def probe(path)
        said, status = Open3.capture2("ffprobe", "-v", "error", "-f", @demuxer, "-protocol_whitelist", "file", "-select_streams", "v:0",
          "-show_entries", "stream=width,height,avg_frame_rate", "-of", "json", path, err: File::NULL)
        stream = status.success? && JSON.parse(said)["streams"]&.first or raise Refused, "it cannot be read as a moving picture"
        [stream["width"].to_i, stream["height"].to_i, delay_ms(stream["avg_frame_rate"])]
      rescue Errno::ENOENT
        raise Refused, "moving pictures of this kind need ffmpeg, which is not installed"
      end

      def delay_ms(rate)
        frames, seconds = rate.to_s.split("/").map(&:to_f)
        frames&.positive? && seconds&.positive? ? (seconds * 1000 / frames).round : DEFAULT_DELAY_MS
      end

      # One frame more than is allowed is enough to know.
      def decode(path)
        data, status = Open3.capture2("ffmpeg", "-v", "error", "-nostdin", "-threads", "1", "-f", @demuxer, "-protocol_whitelist", "file,pipe",
          "-i", path, "-frames:v", (Bounds::MOST_FRAMES + 1).to_s, "-fps_mode", "passthrough", "-f", "rawvideo", "-pix_fmt", "rgba", "pipe:1",
          err: File::NULL, binmode: true)
        status.success? ? data : raise(Refused, "it cannot be read as a moving picture")
      end

      def join(data, width, height, delay_ms)
        count = data.bytesize / (width * height * BYTES_A_PIXEL)
        words = Bounds.against(width, height, count) and raise Refused, words
        raise Refused, "it has no frames" if count.zero?

        image = Vips::Image.new_from_memory(data, width, height * count, BYTES_A_PIXEL, :uchar).copy(interpretation: :srgb)
        return image if count == 1

        image.mutate do |mutable|
          mutable.set_type!(GObject::GINT_TYPE, "page-height", height)
          mutable.set_type!(Vips::ARRAY_INT_TYPE, "delay", [delay_ms] * count)
          mutable.set_type!(GObject::GINT_TYPE, "loop", 0)
        end
      end
    end
  end
end
