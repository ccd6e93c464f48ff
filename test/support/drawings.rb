# frozen_string_literal: true

require "vips"
require "zip"

# Pictures and packs for tests, made in memory.
module Drawings
  module_function

  CIRCLE = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><circle cx="20" cy="20" r="18" fill="#f33"/></svg>'

  def svg(inner = nil)
    inner ? %(<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 40 40">#{inner}</svg>) : CIRCLE
  end

  # @return [Vips::Image] one colour
  def plain(width = 64, height = 64, colour: [200, 60, 90], bands: 3)
    (Vips::Image.black(width, height, bands:) + (colour + [255]).first(bands)).cast(:uchar).copy(interpretation: :srgb)
  end

  def png(...) = plain(...).pngsave_buffer
  def jpeg = plain.jpegsave_buffer
  def avif = plain.heifsave_buffer(compression: :av1)

  # @return [Vips::Image] frames of growing brightness below each other
  def film(count, size = 48)
    frames = (0...count).map { |number| plain(size, size, colour: [number * 250 / count, 90, 200], bands: 4) }
    Vips::Image.arrayjoin(frames, across: 1).mutate do |image|
      image.set_type!(GObject::GINT_TYPE, "page-height", size)
      image.set_type!(Vips::ARRAY_INT_TYPE, "delay", [60] * count)
    end
  end

  def webp(count = 6) = film(count).webpsave_buffer
  def gif(count = 6) = film(count).gifsave_buffer

  # Written by hand, for libvips would take minutes: frames of 4 × 4.
  def gif_of(count)
    head = "GIF89a".b + [4, 4, 0x80, 0, 0].pack("vvCCC") + "\x00\x00\x00\xFF\xFF\xFF".b
    frame = "\x21\xF9\x04\x04\x05\x00\x00\x00".b + "\x2C".b + [0, 0, 4, 4, 0].pack("vvvvC") + "\x02\x05\x84\x8F\xA9\xCB\x5D\x00".b
    head + (frame * count) + "\x3B".b
  end

  def chunk(name, data) = [data.bytesize].pack("N") + name + data + [Zlib.crc32(name + data)].pack("N")

  # An APNG by its own standard: the first frame is the default picture too.
  def apng(count = 4, size = 16)
    rows = ->(number) { Zlib.deflate(Array.new(size) { "\0".b + ([number * 50 % 256, 99, 180, 255].pack("C4") * size) }.join) }
    sequence = -1
    control = ->(delay_ms) { chunk("fcTL".b, [sequence += 1, size, size, 0, 0, delay_ms, 1000, 0, 0].pack("NNNNNnnCC")) }
    frames = (0...count).map do |number|
      control.call(80) + (number.zero? ? chunk("IDAT".b, rows.call(0)) : chunk("fdAT".b, [sequence += 1].pack("N") + rows.call(number)))
    end
    "\x89PNG\r\n\x1A\n".b + chunk("IHDR".b,
      [size, size, 8, 6, 0, 0, 0].pack("NNCCCCC")) + chunk("acTL".b, [count, 0].pack("NN")) + frames.join + chunk("IEND".b, "".b)
  end

  # The head of a PNG that says it is this large, with nothing behind it.
  def huge_png(side)
    "\x89PNG\r\n\x1A\n".b + chunk("IHDR".b,
      [side, side, 8, 6, 0, 0, 0].pack("NNCCCCC")) + chunk("IDAT".b, Zlib.deflate("\0" * 1000)) + chunk("IEND".b, "".b)
  end

  # @param files [Hash{String => String}] bytes by name
  # @return [String] path of a ZIP
  def zip(files, folder: Dir.mktmpdir("pack"))
    File.join(folder, "pack.zip").tap do |path|
      Zip::OutputStream.open(path) do |out|
        files.each do |name, bytes|
          out.put_next_entry(name)
          out.write(bytes)
        end
      end
    end
  end

  def manifest(emotes, **more) = JSON.generate({format: "bavard/shelf@1", name: "Test pack", emotes:}.merge(more))
end
