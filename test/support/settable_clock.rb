# frozen_string_literal: true

require "tempfile"

# The clock of a machine as one process sees it, set by a test while it runs. What is waited for is not touched.
class SettableClock
  ANYWHERE = "/usr/lib/*/faketime/libfaketimeMT.so.1"

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
