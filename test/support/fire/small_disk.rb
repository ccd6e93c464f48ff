# frozen_string_literal: true

require "fileutils"
require "tmpdir"

module Fire
  # A disk of few megabytes, in memory, that can be filled to its last byte: nobody else's is touched.
  class SmallDisk
    MB = 1024 * 1024

    attr_reader :root

    # @param megabytes [Integer]
    def initialize(megabytes)
      @root = Dir.mktmpdir("bavard-disk")
      FileUtils.chmod(0o755, root)
      @own = system("mount", "-t", "tmpfs", "-o", "size=#{megabytes}m,mode=0755", "none", root, err: File::NULL)
      @ballast = File.join(root, "ballast")
    end

    # @return [Boolean] whether this machine lets us have one; else it is a folder, and is never full
    def own? = @own

    # Until nothing more goes on it.
    def fill
      File.open(@ballast, "w") do |file|
        [MB, 1].each { |bytes| fill_by(file, "\0" * bytes) }
      end
    end

    def make_room = FileUtils.rm_f(@ballast)

    def stop
      make_room
      own? ? system("umount", "-l", root) : FileUtils.rm_rf(root)
      FileUtils.rm_rf(root)
    end

    private

    def fill_by(file, bytes)
      loop { file.syswrite(bytes) }
    rescue Errno::ENOSPC
      nil
    end
  end
end
