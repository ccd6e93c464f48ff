# frozen_string_literal: true

require "digest"
require "English"
require "fileutils"
require "tmpdir"
require_relative "../aside"
require_relative "../error"

module Bavard
  module Pictures
    # Makes a face of the host's own anew, as WOFF2 for pages and as TrueType to measure with: packed and unpacked by Debian's
    # woff2, in processes of their own with limits on memory and time.
    class Typeface
      Made = Struct.new(:id)

      LARGEST_BYTES = 12 * 1024 * 1024
      CPU_S = 30
      # What env(1) and its like answer for a program that is not there.
      NOT_FOUND = 127
      MEMORY_BYTES = 1024**3
      # What such files begin with.
      PLAIN = ["\x00\x01\x00\x00".b, "OTTO".b, "true".b].freeze
      PACKED = "wOF2".b

      # @param bytes [String]
      # @param into [String] a folder for <id>.woff2 and own-<id>.ttf
      # @return [Made]
      # @raise [Bavard::Error] saying why not, in words that go on after "it"
      def make(bytes, into:)
        raise Error, "it has more than #{LARGEST_BYTES / 1024 / 1024} MB" if bytes.bytesize > LARGEST_BYTES

        packed = bytes.b.start_with?(PACKED)
        raise Error, "it is no TTF, OTF or WOFF2 font" unless packed || PLAIN.include?(bytes.b[0, 4])

        id = Digest::SHA256.hexdigest(bytes)[0, 32]
        Dir.mktmpdir { |folder| press(folder, bytes, packed, id, into) }
        Made.new(id)
      end

      private

      # Unpacked where it is packed, packed, and unpacked again: what comes out was all written here.
      def press(folder, bytes, packed, id, into)
        plain = File.join(folder, "face.ttf")
        woff2 = File.join(folder, "face.woff2")
        File.binwrite(packed ? woff2 : plain, bytes)
        run("woff2_decompress", woff2) if packed
        run("woff2_compress", plain)
        run("woff2_decompress", woff2)
        raise Error, "it cannot be read as a font" unless File.size?(plain) && File.size?(woff2)

        FileUtils.mkdir_p(into)
        FileUtils.mv(woff2, File.join(into, "#{id}.woff2"))
        FileUtils.mv(plain, File.join(into, "own-#{id}.ttf"))
      end

      def run(program, path)
        pid = spawn(*Aside.sealed(program, path), in: File::NULL, out: File::NULL, err: File::NULL, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES,
          **Aside::LIMITS)
        Process.wait(pid)
        raise Error, "fonts need Debian’s package woff2, which is not installed" if $CHILD_STATUS.exitstatus == NOT_FOUND
        raise Error, "it cannot be read as a font" unless $CHILD_STATUS.success?
      end
    end
  end
end
