# frozen_string_literal: true

require "English"
require "json"
require "tmpdir"
require_relative "../aside"
require_relative "../core/pieces/look_document"
require_relative "../core/stage/document_reading"
require_relative "../error"
require_relative "own_looks"
require_relative "show_document"
require_relative "show_files"
require_relative "writing"

module Bavard
  module Copies
    # A copy that somebody brings, read before anything is done with it: what it is, what it holds, which files come along.
    #
    #   Reading.of(bytes) { |given| given.kind }   # => "stage"
    class Reading
      ZIP = "PK\u0003\u0004".b.freeze
      LARGEST_BYTES = 300 * 1024 * 1024
      LARGEST_JSON_BYTES = 8 * 1024 * 1024
      LARGEST_FILE_BYTES = {"picture" => 24 * 1024 * 1024, "figure" => 24 * 1024 * 1024, "film" => 200 * 1024 * 1024,
                            "font" => 12 * 1024 * 1024, "sound" => 24 * 1024 * 1024}.freeze
      UNPACK = File.expand_path("unpack.rb", __dir__)
      CPU_S = 60
      MEMORY_BYTES = 1024**3
      DOCUMENTS = %w[stage.json show.json look.json].freeze
      READERS = {
        Core::Stage::Document::FORMAT => ["stage", ->(given) { Core::Stage::DocumentReading.read(given) }],
        Core::Pieces::LookDocument::FORMAT => ["look", ->(given) { Core::Pieces::LookDocument.read(given) }],
        ShowDocument::FORMAT => ["show", ->(given) { ShowDocument.read(given) }]
      }.freeze

      # kind:: "stage", "look" or "show"
      attr_reader :kind, :document

      # @param bytes [String] JSON, or a ZIP with stage.json, look.json or show.json in it
      # @yieldparam reading [Reading] usable within the block
      # @raise [Bavard::Error] in words that say what is wrong
      def self.of(bytes)
        raise Error.new("That is more than #{LARGEST_BYTES / 1024 / 1024} MB.", field: "file") if bytes.bytesize > LARGEST_BYTES
        return yield(new(bytes, {})) unless bytes.b.start_with?(ZIP)

        Dir.mktmpdir("bavard-copy") do |folder|
          files = unpacked(bytes, folder)
          document = DOCUMENTS.find { |name| files.include?(name) }
          raise Error.new("There is no stage, look or show in this ZIP.", field: "file") unless document

          yield new(File.binread(File.join(folder, document)), files.to_h { |name| [name, File.join(folder, name)] })
        end
      end

      # In a process of its own, with limits on time and memory.
      #
      # @return [Array<String>] names of the files that are in the folder now
      def self.unpacked(bytes, folder)
        path = File.join(folder, "copy.zip")
        File.binwrite(path, bytes)
        largest = JSON.generate(LARGEST_FILE_BYTES.merge("json" => LARGEST_JSON_BYTES))
        command = Aside.sealed("ruby", UNPACK, path, folder, largest)
        limits = {err: File::NULL, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES, **Aside::LIMITS}
        said = IO.popen({"DATABASE_URL" => nil, **Aside.found}, [*command, limits], &:read)
        told = $CHILD_STATUS.success? ? JSON.parse(said) : {"error" => "Reading this ZIP took more time or memory than it may take."}
        raise Error.new(told["error"], field: "file") if told["error"]

        told.fetch("files")
      end
      private_class_method :unpacked

      # @param files [Hash{String => String}] paths of what came along, by name
      def initialize(json, files)
        raise Error.new("Its JSON is more than #{LARGEST_JSON_BYTES / 1024 / 1024} MB.", field: "file") if json.bytesize > LARGEST_JSON_BYTES

        given = JSON.parse(json.dup.force_encoding(Encoding::UTF_8).scrub, max_nesting: 30)
        @kind, reader = READERS[given["format"]] if given.is_a?(Hash)
        raise Error.new("That is no stage, look or show of Bavard’s.", field: "file") unless reader

        @document = reader.call(given)
        @came = files
      rescue JSON::ParserError
        raise Error.new("That is no stage, look or show of Bavard’s: it is not JSON.", field: "file")
      end

      # @return [Array<Hash>] documents of stages in it
      def stages
        case kind
        when "stage" then [document]
        when "show" then document["stages"].map { |stage| stage["document"] }
        else []
        end
      end

      # @return [Array<Array(String, String)>] kind and id of all files it needs
      def files
        case kind
        when "stage" then Core::Stage::DocumentReading.files(document)
        when "look" then OwnLooks.files(document)
        when "show" then ShowFiles.of(document)
        end
      end

      def brings?(sort, id) = @came.key?(Writing.path(sort, id))

      # @return [String] a file's bytes
      # @raise [Bavard::Error] where there are too many
      def bytes(sort, id)
        most = LARGEST_FILE_BYTES.fetch(sort)
        read = File.binread(@came.fetch(Writing.path(sort, id)), most + 1).to_s
        read.bytesize > most ? raise(Error.new("A #{sort} in it is too large.", field: "file")) : read
      end
    end
  end
end
