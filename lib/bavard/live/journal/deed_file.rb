# frozen_string_literal: true

require "fileutils"
require_relative "../../store/deed_writing"

module Bavard
  module Live
    # What people did while the database was away, until it is written: so that it outlives this process.
    class DeedFile
      # @param path [String]
      def initialize(path)
        @path = path
        @any = File.exist?(path)
      end

      # @return [Boolean] whether something lies in it
      def any? = @any

      # What is torn, as by a disk that is full or a process that is killed, spoils nothing that comes behind it, and goes with the rest:
      # found later it would be done over what was done since.
      #
      # @param deeds [Array<Store::DeedWriting::Deed>]
      # @raise [SystemCallError] where there is no room
      # @raise [JSON::GeneratorError] where one of them is no text that a file can hold
      def append(deeds)
        lines = deeds.map { |deed| "\n#{Store::DeedWriting.to_line(deed)}\n" }
        FileUtils.mkdir_p(File.dirname(@path))
        @any = true
        File.write(@path, lines.join, mode: "a", perm: 0o600)
      end

      # @return [Array<Store::DeedWriting::Deed>] without what was cut off when a process was killed
      def read = any? ? File.foreach(@path, encoding: "UTF-8").filter_map { |line| Store::DeedWriting.from_line(line) } : []

      # All of it is written.
      def clear
        FileUtils.rm_f(@path) if any?
        @any = false
      end
    end
  end
end
