# frozen_string_literal: true

require "fileutils"
require_relative "../../lib/bavard/start/ports"

# Ports that no other test of this machine has: each block of them is locked by the process that uses it, for as long as it lives.
module OwnPorts
  FOLDER = "/tmp/bavard-ports-#{Process.uid}".freeze
  RANGE = Bavard::Start::Ports::SPARE
  BLOCK = 50

  module_function

  # @return [Integer] one that nobody else will be given, and on which nobody listens
  def one = block_of(1)

  # @param count [Integer] at most {BLOCK}
  # @return [Integer] the first of so many beside each other
  def block_of(count)
    begin_block if @process != Process.pid || @next + count > @last + 1
    first = @next
    @next += count
    (first...(first + count)).all? { |port| Bavard::Start::Ports.free?(port) } ? first : block_of(count)
  end

  def begin_block
    FileUtils.mkdir_p(FOLDER)
    first = RANGE.step(BLOCK).find { |port| lock(port) } or raise "no block of ports is free"
    @next = first
    @last = first + BLOCK - 1
    @process = Process.pid
  end

  # Kept open: the lock lasts as long as this process, and children do not have it.
  def lock(port)
    file = File.new(File.join(FOLDER, port.to_s), File::RDWR | File::CREAT)
    return file.close unless file.flock(File::LOCK_EX | File::LOCK_NB)

    (@locks ||= []) << file
  end
  private_class_method :begin_block, :lock
end
