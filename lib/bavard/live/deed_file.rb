# frozen_string_literal: true

require "fileutils"
require_relative "../store/deed_writing"

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

      # @param deeds [Array<Store::DeedWriting::Deed>]
      # @raise [SystemCallError] where there is no room
      def append(deeds)
        FileUtils.mkdir_p(File.dirname(@path))
        File.write(@path, deeds.map { |deed| "#{Store::DeedWriting.to_line(deed)}\n" }.join, mode: "a", perm: 0o600)
        @any = true
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
