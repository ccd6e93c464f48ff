# frozen_string_literal: true

require "fileutils"
require "io/wait"
require "json"
require "socket"
require "tmpdir"
require_relative "../../../lib/bavard/start/child"

module Suite
  # Where the application and the stand-ins begin, for tests: forked from one process that has loaded their code, so that what takes
  # two seconds takes none. Only where a whole run asks for it; a file alone begins them as they are.
  module Nursery
    SOCKET = "BAVARD_TEST_NURSERY"
    RUN = File.expand_path("nursery/run.rb", __dir__)
    # What counts when code is loaded, or a process begins.
    ENVIRONMENT = {"APP_ENV" => "production", "RACK_ENV" => "test", "RUBY_YJIT_ENABLE" => "1", "MALLOC_ARENA_MAX" => "2"}.freeze

    # A process that the nursery began. Lives no longer than whoever asked for it.
    class Child < Bavard::Start::Child
      # As much of a Process::Status as anybody asks for.
      Ended = Struct.new(:exitstatus)

      def start
        @ended = nil
        FileUtils.touch(@log)
        reader, @leash = IO.pipe
        @nursery = UNIXSocket.new(ENV.fetch(SOCKET))
        @nursery.send_io(reader)
        @nursery.puts(JSON.generate(env: ENV.to_h.merge(@env.to_h), script: @command.last, log: @log))
        reader.close
        @pid = Integer(@nursery.gets)
        self
      end

      # @return [Ended, nil]
      def ended
        @ended ||= @nursery.wait_readable(0) && Ended.new(@nursery.gets.to_i)
      end
    end

    module_function

    # @yield while there is one
    def there
      Dir.mktmpdir do |folder|
        ENV[SOCKET] = File.join(folder, "socket")
        ready, told = IO.pipe
        reader, leash = IO.pipe
        pid = spawn(ENVIRONMENT, "ruby", RUN, in: reader, out: told, pgroup: true)
        [reader, told].each(&:close)
        ready.gets
        yield
      ensure
        ENV.delete(SOCKET)
        leash&.close
        Process.wait(pid) if pid
      end
    end

    # @param script [String] as it is begun from the project's folder
    # @return [Bavard::Start::Child]
    def child(name, script, log:, env:)
      (ENV[SOCKET] ? Child : Bavard::Start::Child).new(name, ["ruby", script], log:, env:)
    end
  end
end
