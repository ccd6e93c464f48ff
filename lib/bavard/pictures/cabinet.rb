# frozen_string_literal: true

require "fileutils"
require "securerandom"

module Bavard
  module Pictures
    # Where made pictures are kept: files named after their content, so that none is there twice or ever changes.
    class Cabinet
      NAME = /\A([0-9a-f]{32})-(1|2|4|8|still)\.webp\z/
      # What was made before there was one of this size has the next smaller.
      OTHERWISE = {"8" => "4"}.freeze

      # @param root [String] a folder
      def initialize(root)
        @root = root
      end

      # Keeps all sizes, or none: a picture counts as there once its last file is.
      #
      # @param made [Workshop::Made]
      def keep(made)
        FileUtils.mkdir_p(File.join(@root, made.id[0, 2]))
        made.files.sort_by { |name, _| name == "1" ? 1 : 0 }.each { |name, bytes| write(path(made.id, name), bytes) }
        made
      end

      def there?(id) = File.exist?(path(id, "1"))

      # @return [String, nil] the colours of a stage's picture, as Core::Contrast::Patches reads them
      def grid(id)
        file = path(id, "grid")
        File.binread(file) if id.match?(/\A[0-9a-f]{32}\z/) && File.exist?(file)
      end

      # @param name [String] as in an address: "5f…-2.webp"
      # @return [String, nil] its file
      def find(name)
        match = NAME.match(name) or return
        [match[2], OTHERWISE[match[2]]].compact.map { |size| path(match[1], size) }.find { |file| File.exist?(file) }
      end

      private

      def path(id, size) = File.join(@root, id[0, 2], size == "grid" ? "#{id}.grid" : "#{id}-#{size}.webp")

      # It is on the disk before anything names it: whatever cuts the machine off leaves no name without what it stands for.
      def write(file, bytes)
        # The same picture may come by two addresses at once.
        part = "#{file}.#{SecureRandom.hex(8)}.part"
        File.open(part, "wb") do |out|
          out.write(bytes)
          out.fdatasync
        end
        File.rename(part, file)
      ensure
        FileUtils.rm_f(part) if part
      end
    end
  end
end
