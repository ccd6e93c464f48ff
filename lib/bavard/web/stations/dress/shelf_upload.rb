# frozen_string_literal: true

require "fileutils"
require "tmpdir"
require "uri"
require_relative "../../../error"
require_relative "../../../live/pictures/imports"
require_relative "../../../live/pictures/wardrobe"

module Bavard
  module Web
    # Pictures or a pack that somebody brings, on their way onto a shelf.
    class ShelfUpload
      LARGEST_BYTES = 256 * 1024 * 1024
      MOST_FILES = 100
      ZIP = "PK\u0003\u0004".b.freeze
      OURS = Dir[File.expand_path("../../../../../assets/emotes/*.svg", __dir__)].freeze
      OURS_NAME = "To begin with"

      # @param site [Site]
      # @param show [Live::Show]
      # @param show_id [Integer]
      # @param shelf_id [Integer, nil] a new one where nil
      def initialize(site, show, show_id, shelf_id)
        @site = site
        @show = show
        @show_id = show_id
        @shelf_id = shelf_id
        @folder = Dir.mktmpdir("bavard-upload")
      end

      # @param files [Array<Array(String, IO)>] names and what is in them: one ZIP, or pictures
      # @return [Live::Imports::Import]
      def files(files)
        kept = files.each_with_index.map { |(name, file), index| [name, copy(file, index.to_s)] }
        pack = kept.size == 1 && File.binread(kept.first.last, ZIP.bytesize) == ZIP
        begin_with(pack ? ["pack", kept.first.last] : ["files", *kept.flatten], File.basename(kept.first.first, ".*"))
      end

      # @return [Live::Imports::Import] of the emotes that ship with the application
      def ours
        begin_with(["files", *OURS.each_with_index.flat_map { |path, at| [File.basename(path), copy(File.new(path), at.to_s)] }], OURS_NAME)
      end

      # What the shelf had goes, if it is not in the pack any more.
      #
      # @param address [String] of a pack
      # @raise [Bavard::Error]
      def address(address)
        bytes = @site.fetcher.get(address, largest_bytes: LARGEST_BYTES)
        path = File.join(@folder, "pack")
        File.binwrite(path, bytes)
        begin_with(["pack", path], URI(address).host.to_s, address:)
      rescue Error => error
        FileUtils.rm_rf(@folder)
        raise error.in_words("It was not read: #{error.reason}.", field: "address")
      end

      private

      def copy(file, name)
        File.join(@folder, name).tap { |path| IO.copy_stream(file.path, path) }
      end

      def begin_with(given, fallback_name, address: nil)
        shelf = Live::Imports::Target.new(method(:shelf).curry(4)[fallback_name, address], method(:changed), !address.nil?)
        @site.imports.begin(@show_id, given, folder: @folder, target: shelf)
      end

      # @param name [String, nil] of the pack
      # @param emotes [Integer] how many are to stand there
      def shelf(fallback_name, address, name, emotes)
        @site.stores.ceilings.room(@show_id, "emotes", emotes)
        @shelf_id || add_shelf(name || fallback_name, address)
      end

      def add_shelf(name, address)
        @site.stores.ceilings.room(@show_id, "shelves")
        name = name.strip.empty? ? "New shelf" : name.strip
        @site.stores.dress.add_shelf(@show_id, name, address:)
      end

      # The shelf has changed, and what it holds is worn.
      def changed(shelf_id, said)
        @site.stores.dress.keep_shelf(@show_id, shelf_id, said:, read_at_ms: @site.clock.call)
        contents = Live::Wardrobe.load(@site.stores.dress, @show_id)
        @show.ask { |show| show.dress(contents) }
      end
    end
  end
end
