# frozen_string_literal: true

require "json"
require "zip"

module Bavard
  module Copies
    # A copy to hand on: a document as JSON, or a ZIP of it with the files it needs.
    module Writing
      FOLDERS = {"picture" => %w[pictures webp], "figure" => %w[figures webp], "film" => %w[films webm], "font" => %w[fonts woff2],
                 "sound" => %w[sounds ogg]}.freeze

      module_function

      # @return [String]
      def json(document) = "#{JSON.pretty_generate(document)}\n"

      # @param kind [String] stage, look or show: what the document is called in it
      # @param files [Array<Array(String, String)>] kind and id of those that go with it
      # @yieldparam kind [String] of a file
      # @yieldparam id [String]
      # @yieldreturn [String, nil] its bytes
      # @return [String] a ZIP
      def zip(kind, document, files)
        Zip::OutputStream.write_buffer do |out|
          put(out, "#{kind}.json", json(document))
          files.each do |sort, id|
            bytes = yield(sort, id) or next
            put(out, path(sort, id), bytes)
          end
        end.string
      end

      # @return [String] where a file lies in a ZIP
      def path(sort, id) = FOLDERS.fetch(sort).then { |folder, ending| "#{folder}/#{id}.#{ending}" }

      # @param path [String] in a ZIP
      # @return [String, nil] the kind of file that lies there; nil where none would
      def kind_of(path)
        folder, id, ending = path.match(%r{\A(\w+)/([0-9a-f]{32})\.(\w+)\z})&.captures
        FOLDERS.key([folder, ending]) if id
      end

      def put(out, name, bytes)
        out.put_next_entry(name)
        out.write(bytes)
      end
      private_class_method :put
    end
  end
end
