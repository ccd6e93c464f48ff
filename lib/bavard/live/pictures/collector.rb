# frozen_string_literal: true

require "fileutils"
require_relative "../../now_and_then"

module Bavard
  module Live
    # Takes files away that nothing speaks of any more: of shows that were removed, of shelves and sounds that were taken away for good. What
    # is younger than a day stays: it may be on its way into the database.
    class Collector
      EVERY_S = 6 * 3600
      YOUNG_S = 86_400
      NAME = /\A(?:own-)?([0-9a-f]{32})[-.]/
      # Of a shipped picture there are the colours alone, and the database does not speak of them.
      ALONE = ".grid"
      # files, bytes:: how much was taken away
      Collected = Struct.new(:files, :bytes)

      # @param folders [Array<String>] of pictures, films, sounds and faces
      # @param spoken_of [Store::SpokenOf]
      # @param deeds [Store::OperatorDeeds] told of what was taken away
      def initialize(folders, spoken_of, deeds, logger:)
        @folders = folders
        @spoken_of = spoken_of
        @deeds = deeds
        @logger = logger
        @collecting = NowAndThen.new("collector", EVERY_S) { try }
      end

      def start
        @collecting.start
        self
      end

      def stop = @collecting.stop

      # @param by [String] as whom it is written down
      # @return [Collected]
      def collect(by: "bavard")
        before = Time.now - YOUNG_S
        files = @folders.flat_map { |folder| files_in(folder) }.group_by(&:first)
        spoken = @spoken_of.all
        left = files.reject { |name, all| spoken.include?(name) || all.any? { |_, path| young?(path, before) } || colours_alone?(all) }
        take_away(left, by)
      end

      private

      def try
        collect
      rescue Sequel::Error, SystemCallError => error
        @logger.warn("files that nobody uses could not be taken away", error)
      end

      # @return [Array<Array(String, String)>] name and path
      def files_in(folder)
        Dir.glob("{*,*/*}", base: folder).filter_map { |path| (name = File.basename(path)[NAME, 1]) && [name, File.join(folder, path)] }
      end

      def young?(path, before)
        File.mtime(path) > before
      rescue Errno::ENOENT
        true
      end

      def colours_alone?(all) = all.all? { |_, path| path.end_with?(ALONE) }

      def take_away(left, by)
        paths = left.each_value.flat_map { |all| all.map(&:last) }
        bytes = paths.sum { |path| File.size?(path).to_i }
        @spoken_of.forget(left.keys)
        FileUtils.rm_f(paths)
        @deeds.note("collect", by:, about: "#{paths.size} files, #{(bytes / 1_000_000.0).round(1)} MB", detail: {"files" => paths.size}) if paths.any?
        Collected.new(paths.size, bytes)
      end
    end
  end
end
