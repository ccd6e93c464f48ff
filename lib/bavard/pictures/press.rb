# frozen_string_literal: true

# Makes pictures anew from whatever bytes it is given: the process that touches them, and nothing else. Started by
# Workshop with limits on memory and time; it has no network to talk to, no database and no secrets.
#   ruby lib/bavard/pictures/press.rb          all but SVG
#   ruby lib/bavard/pictures/press.rb svg      SVG alone
#
# In: "<bytes> <purpose>\n" and the bytes. Out: of a moving one "m <pixels of all frames>\n" and, as it goes, "p <percent>\n"; then
# "<bytes>\n" and JSON: {"width","height","frames","files":[[name, bytes], …]} or {"refused": words}; then the files.

require "json"
require "vips"
require_relative "bounds"
require_relative "frames"
require_relative "kind"

module Bavard
  module Pictures
    # One picture after another.
    class Press
      QUALITY = 88
      # Of webpsave, 0 to 6: more of it takes several times as long for a few percent.
      EFFORT = 2
      # Of what moves, in which each frame is seen for a moment: sharper colour at edges takes two and a half times as long.
      MOVING_QUALITY = 84
      MOVING_EFFORT = 1
      # Of the time a moving one takes, reading and fitting its frames is about so much.
      READING_PERCENT = 75
      TOLD_EVERY = 5

      def initialize(svg:, input: $stdin, output: $stdout)
        @svg = svg
        @input = input.binmode
        @output = output.binmode
        Vips.block_untrusted(true) unless svg
        Vips.cache_set_max(0)
      end

      def run
        while (size = @input.gets)
          bytes = @input.read(size.to_i) or break
          answer(*make(bytes, size.split[1] || "emote"))
        end
      end

      # @return [Array(Hash, Array<String>)] what it is, and its files
      # @param purpose [String] of Bounds::PURPOSES
      def make(bytes, purpose = "emote")
        heights = Bounds::PURPOSES.fetch(purpose)
        frames = load(bytes, heights.values.max, purpose)
        heights = heights.except(*Bounds::ONLY_OF_LARGE) if frames.height <= heights["4"].to_i
        files = frames.count == 1 ? still(frames, heights, purpose) : moving(frames, heights, purpose)
        [about(frames, files), files.values]
      rescue Frames::Refused => error
        [{refused: error.message}, []]
      rescue Vips::Error => error
        [{refused: "it cannot be read as a picture (#{error.message.lines.first.to_s.strip[0, 120]})"}, []]
      end

      private

      def still(frames, heights, purpose)
        image = frames.first
        files = heights.transform_values { |height| encode(fit(image, height)) }
        files["grid"] = grid(image) if Bounds::GRIDDED.include?(purpose)
        files
      end

      def moving(frames, heights, purpose)
        tell("m", frames.width * frames.height * frames.count)
        first, fitted = fit_all(frames, heights)
        files = heights.keys.each_with_index.to_h do |name, done|
          tell("p", READING_PERCENT + ((100 - READING_PERCENT) * done / heights.size))
          [name, encode_moving(fitted.delete(name), frames)]
        end
        files["grid"] = grid(first) if Bounds::GRIDDED.include?(purpose)
        files.merge("still" => encode(fit(first, heights.values.max)))
      end

      # Each frame is read once, and made smaller from size to size.
      #
      # @return [Array(Vips::Image, Hash{String => Array<Vips::Image>})] the first as it was, and all by the names of their sizes
      def fit_all(frames, heights)
        fitted = heights.transform_values { [] }
        first = nil
        frames.each do |image|
          first ||= image
          heights.sort_by { |_, height| -height }.each { |name, height| fitted[name] << (image = fit(image, height, frames).copy_memory) }
          done = fitted.each_value.first.size
          tell("p", READING_PERCENT * done / frames.count) if (done % TOLD_EVERY).zero?
        end
        [first, fitted]
      end

      def tell(what, number)
        @output.write("#{what} #{number}\n")
        @output.flush
      end

      def about(frames, files)
        {width: frames.width, height: frames.height, frames: frames.count, files: files.map { |name, data| [name, data.bytesize] }}
      end

      def answer(about, files)
        text = JSON.generate(about)
        @output.write("#{text.bytesize}\n", text, *files)
        @output.flush
      end

      # @return [Frames, Moving]
      def load(bytes, drawn_px, purpose)
        kind = Kind.of(bytes) or raise Frames::Refused, "it is no PNG, GIF, APNG, WebP, SVG, AVIF or JPEG"
        raise Frames::Refused, "it is in the wrong hands" if (kind == :svg) != @svg

        Frames.of(bytes, kind, drawn_px, purpose)
      end

      # Its colours as a coarse grid, as Core::Contrast::Patches reads it: width, height, then red, green and blue of each.
      def grid(image)
        small = image.flatten(background: [0, 0, 0]).thumbnail_image(Bounds::GRID_PX, height: Bounds::GRID_PX, size: :down)
        [small.width, small.height].pack("nn") + small.extract_band(0, n: 3).cast(:uchar).write_to_memory
      end

      # Never larger than it was, as a whole or as what it was before it was made smaller.
      def fit(image, height, was = image)
        target = [height.fdiv(was.height), (height * Bounds::WIDEST_RATIO).fdiv(was.width), 1.0].min * was.height
        ratio = target / image.height
        ratio >= 0.999 ? image : image.premultiply.resize(ratio).unpremultiply.cast(:uchar)
      end

      def encode(image)
        image.webpsave_buffer(Q: QUALITY, effort: EFFORT, alpha_q: 100, smart_subsample: true, min_size: false, strip: false)
      end

      # All frames below each other.
      def encode_moving(images, frames)
        joined = Vips::Image.arrayjoin(images, across: 1).mutate do |mutable|
          mutable.set_type!(GObject::GINT_TYPE, "page-height", images.first.height)
          mutable.set_type!(Vips::ARRAY_INT_TYPE, "delay", frames.delays) if frames.delays
          mutable.set_type!(GObject::GINT_TYPE, "loop", frames.loops)
        end
        joined.webpsave_buffer(Q: MOVING_QUALITY, effort: MOVING_EFFORT, alpha_q: 100, min_size: false, strip: false)
      end
    end
  end
end

Bavard::Pictures::Press.new(svg: ARGV.first == "svg").run if $PROGRAM_NAME == __FILE__
