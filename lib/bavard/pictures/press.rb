# frozen_string_literal: true

# Makes pictures anew from whatever bytes it is given: the process that touches them, and nothing else. Started by
# Workshop with limits on memory and time; it has no network to talk to, no database and no secrets.
#   ruby lib/bavard/pictures/press.rb          all but SVG
#   ruby lib/bavard/pictures/press.rb svg      SVG alone
#
# In: "<bytes> <purpose>\n" and the bytes. Out: "<bytes>\n" and JSON: {"width","height","frames","files":[[name, bytes], …]} or
# {"refused": words}; then the files.

require "json"
require "vips"
require_relative "bounds"
require_relative "kind"
require_relative "moving"

module Bavard
  module Pictures
    # One picture after another.
    class Press
      # What is wrong with a picture, in words that go on after "it".
      class Refused < StandardError
      end
      QUALITY = 88
      # Of webpsave, 0 to 6: more of it takes several times as long for a few percent.
      EFFORT = 2

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
        frames = load(bytes, heights.values.max)
        files = heights.to_h { |name, height| [name, encode(fit(frames, height))] }
        files["grid"] = grid(first(frames)) if Bounds::GRIDDED.include?(purpose)
        files["still"] = encode(fit(first(frames), heights.values.max)) if pages(frames) > 1
        [about(frames, files), files.values]
      rescue Refused => error
        [{refused: error.message}, []]
      rescue Vips::Error => error
        [{refused: "it cannot be read as a picture (#{error.message.lines.first.to_s.strip[0, 120]})"}, []]
      end

      private

      def about(frames, files)
        {width: frames.width, height: page_height(frames), frames: pages(frames), files: files.map { |name, data| [name, data.bytesize] }}
      end

      def answer(about, files)
        text = JSON.generate(about)
        @output.write("#{text.bytesize}\n", text, *files)
        @output.flush
      end

      # @return [Vips::Image] all frames below each other, in sRGB with alpha
      def load(bytes, drawn_px)
        kind = Kind.of(bytes) or raise Refused, "it is no PNG, GIF, APNG, WebP, SVG, AVIF or JPEG"
        raise Refused, "it is in the wrong hands" if (kind == :svg) != @svg

        image = decode(kind, bytes, drawn_px)
        check(image)
        image = image.autorot if pages(image) == 1
        image = image.colourspace(:srgb) unless image.interpretation == :srgb
        image = image.cast(:uchar) unless image.format == :uchar
        image.has_alpha? ? image : image.bandjoin(255)
      end

      def decode(kind, bytes, drawn_px)
        case kind
        when :svg then svg(bytes, drawn_px)
        when :gif, :webp then several(bytes)
        when :apng, :moving_avif then Moving.new(bytes, kind).frames
        else Vips::Image.new_from_buffer(bytes, "")
        end
      rescue Moving::Refused => error
        raise Refused, error.message
      end

      # Drawn at the largest size that is wanted: an SVG has no pixels of its own.
      def svg(bytes, drawn_px)
        plain = Vips::Image.svgload_buffer(bytes)
        raise Refused, "it has no size" if plain.height < 1 || plain.width < 1

        scale = [drawn_px.fdiv(plain.height), [drawn_px * Bounds::WIDEST_RATIO, Bounds::LONGEST_SIDE_PX].min.fdiv(plain.width)].min
        Vips::Image.svgload_buffer(bytes, scale: scale.clamp(0.0001, 1000.0))
      end

      # The header alone says how many frames there are; only then are they read.
      def several(bytes)
        head = Vips::Image.new_from_buffer(bytes, "")
        count = head.get_typeof("n-pages").zero? ? 1 : head.get("n-pages")
        words = Bounds.against(head.width, head.height, count) and raise Refused, words
        Vips::Image.new_from_buffer(bytes, "", n: -1)
      end

      # Its colours as a coarse grid, as Core::Contrast::Patches reads it: width, height, then red, green and blue of each.
      def grid(image)
        small = image.flatten(background: [0, 0, 0]).thumbnail_image(Bounds::GRID_PX, height: Bounds::GRID_PX, size: :down)
        [small.width, small.height].pack("nn") + small.extract_band(0, n: 3).cast(:uchar).write_to_memory
      end

      def check(image)
        words = Bounds.against(image.width, page_height(image), pages(image)) and raise Refused, words
      end

      def pages(image) = image.height / page_height(image)
      def page_height(image) = image.get_typeof("page-height").zero? ? image.height : image.get("page-height")

      def first(image)
        image.crop(0, 0, image.width, page_height(image)).mutate do |mutable|
          mutable.remove!("page-height") unless mutable.get_typeof("page-height").zero?
        end
      end

      # Never larger than it was.
      def fit(image, height)
        high = page_height(image)
        ratio = [height.fdiv(high), (height * Bounds::WIDEST_RATIO).fdiv(image.width), 1.0].min
        return image if ratio >= 1.0

        count = pages(image)
        count == 1 ? image.premultiply.resize(ratio).unpremultiply.cast(:uchar) : fit_pages(image, ratio, high, count)
      end

      # Each frame by itself, so that none bleeds into the next.
      def fit_pages(image, ratio, high, count)
        small = Array.new(count) { |number| image.crop(0, number * high, image.width, high).premultiply.resize(ratio).unpremultiply.cast(:uchar) }
        joined = Vips::Image.arrayjoin(small, across: 1)
        delay = image.get("delay") unless image.get_typeof("delay").zero?
        loops = image.get("loop") unless image.get_typeof("loop").zero?
        joined.mutate do |mutable|
          mutable.set_type!(GObject::GINT_TYPE, "page-height", small.first.height)
          mutable.set_type!(Vips::ARRAY_INT_TYPE, "delay", delay) if delay
          mutable.set_type!(GObject::GINT_TYPE, "loop", loops || 0)
        end
      end

      def encode(image)
        image.webpsave_buffer(Q: QUALITY, effort: EFFORT, alpha_q: 100, smart_subsample: true, min_size: false, strip: false)
      end
    end
  end
end

Bavard::Pictures::Press.new(svg: ARGV.first == "svg").run if $PROGRAM_NAME == __FILE__
