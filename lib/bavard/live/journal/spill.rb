# frozen_string_literal: true

require "fileutils"
require "json"
require_relative "../../store/log_writing"

module Bavard
  module Live
    # What one show's log cannot take in time, in files, oldest first: so that none of it is lost, not even when this process is
    # killed. A file goes once all of it is written; until then it is read again from its beginning, which changes nothing.
    #
    # Each line is a JSON array: kind and body, as Store::LogWriting takes them.
    class Spill
      # Of one file.
      MOST = 2000
      ENDING = ".jsonl"

      # @param folder [String] of this show alone
      def initialize(folder)
        @folder = folder
        @files = Dir[File.join(folder, "*#{ENDING}")]
        @sizes = {}
        @reading = []
        @number = @files.last.to_s[/(\d+)#{ENDING}\z/o, 1].to_i
      end

      def any? = @reading.any? || @files.any?

      # What is torn, as by a disk that is full or a process that is killed, spoils nothing that comes behind it.
      #
      # @param lines [Array<String>] JSON
      # @raise [SystemCallError] where there is no room
      def append(lines)
        FileUtils.mkdir_p(@folder)
        lines.each_slice(MOST) do |some|
          file = last_file(some.size)
          File.write(file, "\n#{some.join("\n")}\n", mode: "a", perm: 0o600)
          @sizes[file] += some.size
        end
      end

      # @return [Array<Array(Symbol, Object)>] the oldest
      def first(count)
        read if @reading.empty?
        @reading.first(count)
      end

      # They are written.
      def shift(count)
        @reading.shift(count)
        File.delete(@open) if @reading.empty? && @open
        @open = nil if @reading.empty?
      rescue Errno::ENOENT
        @open = nil
      end

      private

      def last_file(more)
        last = @files.last
        return last if last && @sizes.key?(last) && @sizes[last] + more <= MOST

        File.join(@folder, format("%010d%s", @number += 1, ENDING)).tap do |file|
          @files << file
          @sizes[file] = 0
        end
      end

      # What was being written when a process was killed ends in the midst of a line.
      def read
        while @reading.empty? && (@open = @files.shift)
          @sizes.delete(@open)
          @reading = File.exist?(@open) ? File.foreach(@open, encoding: "UTF-8").filter_map { |line| thing(line) } : []
          FileUtils.rm_f(@open) if @reading.empty?
        end
      end

      def thing(line)
        kind, body = JSON.parse(line, symbolize_names: true)
        kind = Store::LogWriting::KINDS.find { |known| known.name == kind }
        [kind, body] if kind
      rescue JSON::ParserError, TypeError
        nil
      end
    end
  end
end
