# frozen_string_literal: true

require_relative "../../error"
require_relative "harfbuzz"

module Bavard
  module Core
    module Reading
      # One font file at one weight, and how wide text is in it.
      #
      #   font = Font.new("bitter-latin-wght-normal.ttf", 500)
      #   font.width("reed warbler")   # => 6.31, in em
      class Font
        AXES = %w[wght wdth].map { |tag| tag.unpack1("N") }.freeze
        AXIS_BYTES = 8

        # @param path [String] a TrueType or OpenType file
        # @param weight [Integer] where the file can vary it
        # @param stretch [Integer] likewise, in percent
        # @raise [Bavard::Error] where it is no font
        def initialize(path, weight, stretch = 100)
          blob = HarfBuzz.hb_blob_create_from_file_or_fail(path)
          raise Error, "it cannot be read" if blob.null?

          face = HarfBuzz.hb_face_create(blob, 0)
          HarfBuzz.hb_blob_destroy(blob)
          @glyphs = HarfBuzz.hb_face_get_glyph_count(face)
          raise Error, "it is no font" if @glyphs.zero?

          @units = HarfBuzz.hb_face_get_upem(face).to_f
          @font = HarfBuzz.hb_font_create(face)
          vary(weight, stretch)
        end

        # @return [Float] in em
        def width(text)
          shape(text) { |_glyphs, advances| advances.sum / @units }
        end

        # @return [Boolean] whether it has every character of the text
        def covers?(text)
          shape(text) { |glyphs, _advances| glyphs.none?(&:zero?) }
        end

        private

        # A variable font's letters, kerning and all, at this weight and width.
        def vary(*values)
          variations = FFI::MemoryPointer.new(AXIS_BYTES, AXES.size)
          AXES.zip(values).each_with_index do |(tag, value), index|
            variations.put_uint32(index * AXIS_BYTES, tag)
            variations.put_float32((index * AXIS_BYTES) + 4, value)
          end
          HarfBuzz.hb_font_set_variations(@font, variations, AXES.size)
        end

        def shape(text)
          buffer = HarfBuzz.hb_buffer_create
          bytes = FFI::MemoryPointer.from_string(text)
          HarfBuzz.hb_buffer_add_utf8(buffer, bytes, text.bytesize, 0, text.bytesize)
          HarfBuzz.hb_buffer_guess_segment_properties(buffer)
          HarfBuzz.hb_shape(@font, buffer, nil, 0)
          yield firsts(:hb_buffer_get_glyph_infos, buffer, :get_array_of_uint32), firsts(:hb_buffer_get_glyph_positions, buffer, :get_array_of_int32)
        ensure
          HarfBuzz.hb_buffer_destroy(buffer)
        end

        # The first word of each entry.
        def firsts(function, buffer, read)
          count = FFI::MemoryPointer.new(:uint)
          entries = HarfBuzz.public_send(function, buffer, count)
          all = entries.public_send(read, 0, count.read_uint * HarfBuzz::GLYPH_BYTES / 4)
          all.each_slice(HarfBuzz::GLYPH_BYTES / 4).map(&:first)
        end
      end
    end
  end
end
