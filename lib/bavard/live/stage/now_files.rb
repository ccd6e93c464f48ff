# frozen_string_literal: true

require "fileutils"
require_relative "../../now_and_then"

module Bavard
  module Live
    # Text files that set now lines: looked at once a second, from a thread of their own, and only in one folder.
    #
    # A now line with the file name "net" is set by net.txt there, a line each.
    class NowFiles
      EVERY_S = 1
      LARGEST_BYTES = 16 * 1024
      NAME = /\A[\p{L}\p{N}][\p{L}\p{N} _.-]{0,58}\z/

      # @param folder [String]
      # @param shows [Shows]
      def initialize(folder, shows, logger:)
        @folder = folder
        @shows = shows
        @logger = logger
        @seen = {}
        @looking = NowAndThen.new("now-files", EVERY_S) { look }
      end

      def start
        FileUtils.mkdir_p(@folder)
        @looking.start
        self
      end

      def stop = @looking.stop

      # Reads what has changed.
      def look
        @shows.running.each { |show| wanted(show).each { |stage_id, piece, name| read(show, stage_id, piece, name) } }
      rescue StandardError => error
        @logger.warn("files of now lines could not be read", error)
      end

      private

      # @return [Array<Array(Integer, String, String)>] stage, piece and file of each now line that a file sets
      def wanted(show)
        show.desks.flat_map do |stage_id, desk|
          desk.stage.draft["pieces"].select { |piece| piece["source"] == "file" && piece["file_name"].to_s.match?(NAME) }
            .map { |piece| [stage_id, piece["id"], piece["file_name"]] }
        end
      end

      def read(show, stage_id, piece, name)
        path = File.join(@folder, "#{name}.txt")
        return unless File.file?(path) && !File.symlink?(path)

        state = [path, File.mtime(path)]
        return if @seen[[stage_id, piece]] == state

        @seen[[stage_id, piece]] = state
        text = File.binread(path, LARGEST_BYTES).to_s.force_encoding(Encoding::UTF_8).scrub("")
        show.ask { |running| running.desk(stage_id).set_live { |live| live.text(piece, text) } }
      end
    end
  end
end
