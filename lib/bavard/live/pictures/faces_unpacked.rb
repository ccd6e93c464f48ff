# frozen_string_literal: true

require "fileutils"
require "json"
require "tmpdir"
require_relative "../../core/reading/type_case"

module Bavard
  module Live
    # The shipped faces as files that can be measured with: unpacked from WOFF2 by Debian's woff2, once.
    module FacesUnpacked
      VENDOR = File.expand_path("../../../../assets/vendor", __dir__)
      PLAN = File.expand_path("../../../../assets/vendor.json", __dir__)

      module_function

      # @param folder [String] where they are kept
      # @return [Core::Reading::TypeCase]
      def type_case(folder)
        FileUtils.mkdir_p(folder)
        shipped = JSON.parse(File.read(PLAN)).fetch("faces").to_h do |face|
          [face["family"], face["files"].values.map { |file| unpacked(file, folder) }]
        end
        Core::Reading::TypeCase.new(shipped, own: folder)
      end

      def unpacked(file, folder)
        target = File.join(folder, "#{File.basename(file, ".woff2")}.ttf")
        return target if File.size?(target)

        Dir.mktmpdir do |work|
          FileUtils.cp(File.join(VENDOR, "fonts", file), work)
          ok = system("woff2_decompress", File.join(work, file), out: File::NULL, err: File::NULL)
          raise Error, "The face #{file} could not be unpacked; Debian’s package woff2 does that." unless ok

          FileUtils.mv(Dir[File.join(work, "*.ttf")].first, target)
        end
        target
      end
      private_class_method :unpacked
    end
  end
end
