# frozen_string_literal: true

# Loads the code of the application, or of the stand-ins, once, and forks whatever it is asked for; see ../nursery.rb. Ends when
# its standard input closes.
#   BAVARD_TEST_NURSERIES=folder ruby tools/suite/nursery/run.rb lib
# In: what becomes the standard input, then {"env", "script", "log"} as a line. Out: the process, and what it ended with.

require "json"
require "socket"

PROJECT = File.expand_path("../../..", __dir__)
Dir.chdir(PROJECT)
if ARGV.first == "lib"
  require_relative "../../../lib/bavard/serve"
else
  Dir["standins/*/*.rb"].grep_v(%r{/run\.rb}).each { |file| require File.expand_path(file) }
end
raise "Threads do not outlive a fork: #{Thread.list.inspect}" unless Thread.list.one?

asked = UNIXServer.new(File.join(ENV.fetch("BAVARD_TEST_NURSERIES"), ARGV.first))
ended, tell_ended = IO.pipe
trap("CLD") { tell_ended.write_nonblock(".", exception: false) }
3.times { GC.start }
GC.compact
$stdout.puts "ready"
$stdout.flush
# Of each process, who wants to know how it ends.
waiting = {}

become = lambda do |given, leash|
  %w[CLD].each { |signal| trap(signal, "DEFAULT") }
  Process.setpgrp
  ENV.replace(given["env"])
  $stdin.reopen(leash)
  [$stdout, $stderr].each { |stream| stream.reopen(given["log"], "a") }
  [asked, ended, tell_ended, leash, *waiting.values].each(&:close)
  $PROGRAM_NAME = given["script"]
  # It is loaded once more, for what it does where it is what was begun.
  $VERBOSE = nil
  load given["script"]
end

reap = lambda do
  while waiting.any? && (pid, status = Process.wait2(-1, Process::WNOHANG))
    waiting.delete(pid).then do |whoever|
      whoever.puts(status.exitstatus || (128 + status.termsig))
      whoever.close
    rescue SystemCallError
      nil
    end
  end
end

loop do
  ready, = IO.select([asked, ended, $stdin])
  break if ready.include?($stdin)

  ended.read_nonblock(4096, exception: false) if ready.include?(ended)
  reap.call
  next unless ready.include?(asked)

  whoever = asked.accept
  leash = whoever.recv_io
  given = JSON.parse(whoever.gets)
  pid = fork { become.call(given, leash) }
  leash.close
  waiting[pid] = whoever
  whoever.puts(pid)
end
