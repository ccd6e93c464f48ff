# frozen_string_literal: true

# Unpacks what a copy may hold from a ZIP into a folder, in a process of its own.
#   ruby lib/bavard/copies/unpack.rb ZIP FOLDER
# Prints one line of JSON: {"files": [names]}, or {"error": words}.

require "fileutils"
require "json"
require "zip"
require_relative "writing"

module Bavard
  module Copies
    # One ZIP.
    class Unpack
      MOST_ENTRIES = 2000
      MOST_BYTES = 600 * 1024 * 1024
      DOCUMENTS = %w[stage.json show.json look.json].freeze

      # @param folder [String] where to
      # @param largest [Hash{String => Integer}] bytes of one file, by kind and for "json"
      def initialize(folder, largest)
        @folder = folder
        @largest = largest
        @bytes = 0
      end

      # @return [Hash] what is to be told
      def call(path)
        Zip.validate_entry_sizes = true
        # Of the directory, before any of it is read.
        return refusal("There are more than #{MOST_ENTRIES} files in it.") if Zip::File.count_entries(path) > MOST_ENTRIES

        {files: Zip::File.open(path).entries.filter_map { |entry| extract(entry) }}
      rescue Zip::Error, Zlib::Error, SystemCallError, NoMethodError
        refusal("That is no ZIP that can be read.")
      end

      private

      def refusal(words) = {error: words}

      # @return [String, nil] its name, where it is one of those a copy has
      def extract(entry)
        kind = DOCUMENTS.include?(entry.name) ? "json" : Writing.kind_of(entry.name) or return
        target = File.join(@folder, entry.name)
        FileUtils.mkdir_p(File.dirname(target))
        most = [@largest.fetch(kind), MOST_BYTES - @bytes].min
        # One byte more than it may have, where it has more.
        written = entry.get_input_stream { |from| IO.copy_stream(from, target, most + 1) }
        @bytes += written
        entry.name
      end
    end
  end
end

if $PROGRAM_NAME == __FILE__
  path, folder, largest = ARGV
  puts JSON.generate(Bavard::Copies::Unpack.new(folder, JSON.parse(largest)).call(path))
end
