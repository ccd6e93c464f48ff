# frozen_string_literal: true

require "ffi"

module Bavard
  module Core
    module Reading
      # HarfBuzz, as far as widths of text are concerned: the same engine that Chromium shapes text with.
      module HarfBuzz
        extend FFI::Library

        ffi_lib "libharfbuzz.so.0"

        # hb_glyph_info_t and hb_glyph_position_t are five 32-bit words each; the first is the glyph, or its advance.
        GLYPH_BYTES = 20
        attach_function :hb_blob_create_from_file_or_fail, [:string], :pointer
        attach_function :hb_blob_destroy, [:pointer], :void
        attach_function :hb_face_create, %i[pointer uint], :pointer
        attach_function :hb_face_get_upem, [:pointer], :uint
        attach_function :hb_face_get_glyph_count, [:pointer], :uint
        attach_function :hb_font_create, [:pointer], :pointer
        attach_function :hb_font_set_variations, %i[pointer pointer uint], :void
        attach_function :hb_buffer_create, [], :pointer
        attach_function :hb_buffer_destroy, [:pointer], :void
        attach_function :hb_buffer_add_utf8, %i[pointer pointer int uint int], :void
        attach_function :hb_buffer_guess_segment_properties, [:pointer], :void
        attach_function :hb_buffer_get_glyph_infos, %i[pointer pointer], :pointer
        attach_function :hb_buffer_get_glyph_positions, %i[pointer pointer], :pointer
        attach_function :hb_shape, %i[pointer pointer pointer uint], :void
      end
    end
  end
end
