# frozen_string_literal: true

require "fileutils"
require "open3"

module Suite
  # Where there is enough of it, what tests write stays in memory: databases, browser profiles and logs that nobody reads again keep
  # a disk busy for half of the time.
  module Memory
    FOLDER = "/dev/shm"
    ENOUGH_KB = 3 * 1024 * 1024

    module_function

    def use
      return if ENV["TMPDIR"] || !File.writable?(FOLDER) || free_kb < ENOUGH_KB

      ENV["TMPDIR"] = File.join(FOLDER, "bavard-test-#{Process.uid}").tap do |folder|
        FileUtils.mkdir_p(folder)
        FileUtils.chmod(0o1777, folder)
      end
    end

    def free_kb = Open3.capture2("df", "--output=avail", FOLDER).first[/\d+/].to_i
    private_class_method :free_kb
  end
end

Suite::Memory.use
