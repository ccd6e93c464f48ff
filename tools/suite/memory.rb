# frozen_string_literal: true

require "fileutils"
require "open3"

module Suite
  # Where there is enough of it, what tests write stays in memory: databases, browser profiles and logs that nobody reads again keep
  # a disk busy for half of the time. What one run leaves behind goes when it ends.
  module Memory
    FOLDER = "/dev/shm"
    ENOUGH_KB = 3 * 1024 * 1024

    module_function

    # @return [String] a folder for what is kept from run to run
    def root = @root ||= File.join(plenty? ? FOLDER : "/tmp", "bavard-test-#{Process.uid}").tap { |folder| open_to_all(folder) }

    def use
      return if ENV["TMPDIR"]

      ENV["TMPDIR"] = File.join(root, "run-#{Process.pid}").tap { |folder| open_to_all(folder) }
      began_by = Process.pid
      at_exit { FileUtils.rm_rf(ENV.fetch("TMPDIR")) if Process.pid == began_by }
    end

    def plenty? = File.writable?(FOLDER) && Open3.capture2("df", "--output=avail", FOLDER).first[/\d+/].to_i >= ENOUGH_KB

    # PostgreSQL runs as another user.
    def open_to_all(folder)
      FileUtils.mkdir_p(folder)
      FileUtils.chmod(0o1777, folder)
    end
    private_class_method :plenty?, :open_to_all
  end
end

Suite::Memory.use
