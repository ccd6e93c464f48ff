# frozen_string_literal: true

require "minitest"
require "zlib"
require_relative "report"

module Suite
  # A process of the suite: runs the files it is given, one after another, and tells of each test.
  #
  # In: a file's path a line. Out: what Marshal writes of [:ready], [:began, name], [:ended, Outcome] and
  # [:file, path, seconds].
  class Worker
    def initialize(input, output, seed:)
      @input = input
      @output = output
      @seed = seed
      # Tests that ask to be run at exit are run here instead.
      Minitest.class_variable_set(:@@installed_at_exit, true) # rubocop:disable Style/ClassVars -- as Minitest keeps it
      Minitest.seed = seed
    end

    def run
      Signal.trap("QUIT") { say_where_and_end }
      tell(:ready)
      while (file = @input.gets&.chomp)
        seconds = timed { run_file(file) }
        tell(:file, file, seconds)
      end
    ensure
      Minitest.class_variable_get(:@@after_run).reverse_each(&:call)
    end

    private

    def say_where_and_end
      Thread.list.each { |thread| warn "", thread.inspect, *thread.backtrace }
      exit!
    end

    def run_file(file)
      known = tests
      require file
      random = Random.new(@seed ^ file.sum)
      classes_of(known).shuffle(random:).each do |test|
        names = test.runnable_methods.shuffle(random:)
        # Minitest begins the same row of random numbers with each class: what one draws for a name of its own, others would draw as well.
        srand(@seed ^ Zlib.crc32(test.name))
        names.each { |name| run_test(test, name) }
      end
    rescue ScriptError, StandardError => error
      tell(:broken, file, error.full_message(highlight: false))
    end

    # @return [Hash{Class => Array<Symbol>}]
    def tests = Minitest::Runnable.runnables.to_h { |test| [test, test.public_instance_methods(false).grep(/\Atest_/)] }

    # What a file adds to a class of another one would run or not, by which of the two comes first.
    def classes_of(known)
      now = tests
      changed = known.keys.find { |test| now[test] != known[test] }
      raise NameError, "#{changed} stands in another file as well: tests need classes of their own" if changed
      raise NameError, "there is no test in it that is not in another file" if (now.keys - known.keys).empty?

      now.keys - known.keys
    end

    def run_test(test, name)
      tell(:began, "#{test}##{name}")
      # Whoever looks at the machine meanwhile sees whose work it is.
      Process.setproctitle("test #{test}##{name}")
      tell(:ended, Outcome.of(Minitest.run_one_method(test, name)))
    end

    def tell(*what)
      Marshal.dump(what, @output)
      @output.flush
    end

    def timed
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - began
    end
  end
end
