# frozen_string_literal: true

require "fileutils"
require "io/wait"
require "json"
require "socket"
require "tmpdir"
require_relative "../../lib/bavard/just_in_time"
require_relative "../../lib/bavard/start/child"

module Suite
  # Where the application and the stand-ins begin, for tests: forked from processes that have loaded their code, one for each of the
  # two, so that what takes two seconds takes none. Only where a whole run asks for it; a file alone begins them as they are.
  module Nursery
    FOLDER = "BAVARD_TEST_NURSERIES"
    # Folders that scripts are in; what serves pages is set up for one of them alone.
    OF = %w[lib standins].freeze
    Nurse = Struct.new(:pid, :leash, :ready)
    RUN = File.expand_path("nursery/run.rb", __dir__)
    # What counts when code is loaded, or a process begins.
    ENVIRONMENT = {"APP_ENV" => "production", "RACK_ENV" => "test", "MALLOC_ARENA_MAX" => "2", **Bavard::JustInTime.on}.freeze

    # A process that the nursery began. Lives no longer than whoever asked for it.
    class Child < Bavard::Start::Child
      # As much of a Process::Status as anybody asks for.
      Ended = Struct.new(:exitstatus)

      def start
        @ended = nil
        FileUtils.touch(@log)
        reader, @leash = IO.pipe
        @nursery = UNIXSocket.new(File.join(ENV.fetch(FOLDER), Nursery.of(@command.last)))
        @nursery.send_io(reader)
        @nursery.puts(JSON.generate(env: ENV.to_h.merge(@env.to_h).compact, script: @command.last, log: @log))
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

    # @yield while there are some
    def there
      Dir.mktmpdir do |folder|
        ENV[FOLDER] = folder
        begun = OF.map { |which| begin_one(which) }
        begun.each { |one| one.ready.gets }
        yield
      ensure
        ENV.delete(FOLDER)
        begun&.each do |one|
          one.leash.close
          Process.wait(one.pid)
        end
      end
    end

    # What is to be loaded before everything else can only be begun as it is.
    #
    # @param script [String] as it is begun from the project's folder
    # @return [Bavard::Start::Child]
    def child(name, script, log:, env:)
      (ENV[FOLDER] && !env.key?("LD_PRELOAD") ? Child : Bavard::Start::Child).new(name, ["ruby", script], log:, env:)
    end

    # @return [String] which of them a script is of
    def of(script) = OF.find { |which| script.start_with?(which) }

    def begin_one(which)
      ready, told = IO.pipe
      reader, leash = IO.pipe
      pid = spawn(ENVIRONMENT, "ruby", RUN, which, in: reader, out: told, pgroup: true)
      [reader, told].each(&:close)
      Nurse.new(pid, leash, ready)
    end
  end
end
