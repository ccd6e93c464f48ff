# frozen_string_literal: true

require "json"
require "zip"
require_relative "../error"
require_relative "bounds"

module Bavard
  module Pictures
    # What is in a pack: a ZIP with pictures, and a manifest (docs/formats/shelf.schema.json) that says which code each
    # stands for. Without a manifest, or for loose pictures, the files' names are the codes. Nothing is unpacked: entries
    # are read one by one, and never more of one than a picture may have.
    class Pack
      MANIFEST = "manifest.json"
      SCHEMA = File.expand_path("../../../docs/formats/shelf.schema.json", __dir__)
      MOST_ENTRIES = 6000
      LARGEST_MANIFEST_BYTES = 2 * 1024 * 1024
      # Of all entries together, as they really are.
      MOST_BYTES = 600 * 1024 * 1024
      # What systems leave in a ZIP by themselves.
      LITTER = %r{(?:\A|/)(?:__MACOSX/|\.[^./]|Thumbs\.db\z)}i
      # name:: of the file; read:: gives its bytes, or raises Bavard::Error
      Item = Struct.new(:code, :name, :overlay, :any_case, :read)

      # @return [String, nil] what the pack is called
      attr_reader :name
      # @return [Array<Item>]
      attr_reader :items
      # @return [Array<Array(String, String)>] names of what cannot be taken, and why not
      attr_reader :refused

      # ":wren:" for "Wren 2.png".
      def self.code_of(file_name)
        word = File.basename(file_name, ".*").downcase.gsub(/[^\p{L}\p{N}_-]+/, "_").gsub(/\A_+|_+\z/, "")[0, 60]
        word.empty? ? nil : ":#{word}:"
      end

      # @param path [String] a ZIP
      # @raise [Bavard::Error] where it is none, or its manifest does not fit
      def self.open(path)
        Zip.validate_entry_sizes = true
        check_size(Zip::File.count_entries(path))
        Zip::File.open(path) { |zip| yield new(zip) }
      rescue Zip::Error, Zlib::Error, Errno::EINVAL
        raise Error.new("That is no ZIP that can be read.", field: "pack")
      end

      # Before the directory is read.
      def self.check_size(entries)
        raise Error.new("There are #{entries} files in it; #{MOST_ENTRIES} is the most.", field: "pack") if entries > MOST_ENTRIES
      end
      private_class_method :check_size

      def initialize(zip)
        @bytes = 0
        @refused = []
        @entries = zip.entries.select(&:file?).reject { |entry| entry.name.match?(LITTER) }
        manifest = @entries.find { |entry| entry.name.split("/").last == MANIFEST && entry.name.count("/") <= 1 }
        manifest ? listed(manifest) : named
        raise Error.new("There are no pictures in it.", field: "pack") if @items.empty? && @refused.empty?
      end

      private

      def listed(entry)
        given = JSON.parse(read(entry, LARGEST_MANIFEST_BYTES).force_encoding(Encoding::UTF_8).scrub, max_nesting: 10)
        check(given)
        @name = given["name"]
        folder = entry.name.delete_suffix(MANIFEST)
        by_name = @entries.to_h { |file| [file.name.dup.force_encoding(Encoding::UTF_8).scrub, file] }
        @items = given["emotes"].filter_map { |emote| item(emote, by_name["#{folder}#{emote["file"]}"]) }
      rescue JSON::ParserError
        raise Error.new("Its #{MANIFEST} is not JSON.", field: "manifest")
      end

      # Loaded when it is first wanted.
      def check(manifest)
        require "json_schemer"
        wrong = JSONSchemer.schema(JSON.parse(File.read(SCHEMA))).validate(manifest).first or return
        place = wrong["data_pointer"].empty? ? "its beginning" : wrong["data_pointer"]
        raise Error.new("Its #{MANIFEST} does not fit the format at #{place}: #{wrong["error"]}.", field: "manifest", value: place)
      end

      def item(emote, entry)
        return @refused.push([emote["file"], "the manifest names it, but it is not in the pack"]) && nil unless entry

        Item.new(emote["code"], emote["file"], emote["overlay"] == true, emote["any_case"] == true, -> { read(entry, Bounds::LARGEST_BYTES) })
      end

      def named
        @items = @entries.filter_map do |entry|
          name = entry.name.dup.force_encoding(Encoding::UTF_8).scrub("")
          code = self.class.code_of(name)
          code ? Item.new(code, name, false, false, -> { read(entry, Bounds::LARGEST_BYTES) }) : (@refused << [name, "its name gives no code"]) && nil
        end
      end

      # However little the ZIP says it is.
      def read(entry, largest_bytes)
        bytes = entry.get_input_stream { |stream| stream.read(largest_bytes + 1) }.to_s
        raise Error, "it has more than #{largest_bytes / 1024 / 1024} MB" if bytes.bytesize > largest_bytes

        @bytes += bytes.bytesize
        raise Error, "the pack as a whole has more than #{MOST_BYTES / 1024 / 1024} MB" if @bytes > MOST_BYTES

        bytes
      rescue Zip::Error, Zlib::Error
        raise Error, "it is damaged, or not what the ZIP says it is"
      end
    end
  end
end
