# frozen_string_literal: true

require "fileutils"
require "tempfile"

# The clock of a machine as one process sees it, set by a test while it runs. What is waited for is not touched.
class SettableClock
  ANYWHERE = "/usr/lib/*/faketime/libfaketimeMT.so.1"

  # The library shares its state in memory, and processes that were killed leave theirs there.
  SHARED = "/dev/shm/{faketime_shm,sem.faketime_sem}_*"

  # Takes away what no process has any more.
  def self.tidy = Dir[SHARED].each { |file| FileUtils.rm_f(file) unless File.exist?("/proc/#{file[/\d+\z/]}") }

  def initialize
    @file = Tempfile.new("clock")
    set(0)
  end

  # @return [Hash] for the process
  def env
    {"LD_PRELOAD" => Dir[ANYWHERE].first, "FAKETIME" => nil, "FAKETIME_TIMESTAMP_FILE" => @file.path, "FAKETIME_NO_CACHE" => "1",
     "FAKETIME_DONT_FAKE_MONOTONIC" => "1", "DONT_FAKE_MONOTONIC" => "1", "FAKETIME_FORCE_MONOTONIC_FIX" => "0"}
  end

  # @param seconds [Integer] by which it is ahead
  def set(seconds)
    File.write("#{@file.path}.new", format("%+d\n", seconds))
    File.rename("#{@file.path}.new", @file.path)
  end
end
