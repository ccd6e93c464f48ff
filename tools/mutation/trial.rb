# frozen_string_literal: true

require "coverage"
require "minitest"
require "timeout"

module Mutation
  # Which tests call which methods, and whether one of them fails once a method is another one. Everything runs in children of this
  # process, so that nothing is left of it.
  class Trial
    # A test that takes so many times as long as without a mutant, and some seconds more, has lost its way.
    LOST_TIMES = 10
    LOST_S = 3
    # Should nothing else end it.
    LONGEST_S = 120
    # Of the tests that call a method the quickest come first; what takes longer than so much together is left out.
    MOST_S = 15
    Seen = Struct.new(:test, :name, :seconds)

    # @param files [Array<String>] tests, as paths
    # @param lib [String] the folder whose files are mutated
    def initialize(files, lib)
      # They are run here, one by one.
      Minitest.class_variable_set(:@@installed_at_exit, true) # rubocop:disable Style/ClassVars -- as Minitest keeps it
      Minitest.seed = 1
      # One after another where several parts are tried.
      Coverage.start(methods: true) unless Coverage.running?
      files.each { |file| require file }
      @lib = lib
      @at_load = calls.select { |_, count| count.positive? }
      @seen = {}
    end

    # Runs every test once.
    #
    # @return [Array<String>] those that fail without any mutant
    def look
      found, failed = in_child(3600) { see_all }
      @seen = found
      failed
    end

    # @return [Symbol] :killed, :survived, :unseen or :at_load, which cannot be tried: it was over before a test could begin
    def of(mutant)
      place = [File.join(@lib, mutant.file), mutant.first_line]
      tests = @seen[place] or return @at_load.key?(place) ? :at_load : :unseen

      answer = in_child(LONGEST_S) do
        $stderr.reopen(File::NULL)
        put_in(mutant)
        enough(tests).all? { |one| Timeout.timeout(LOST_S + (LOST_TIMES * one.seconds)) { passes?(one) } } ? :survived : :killed
      rescue Timeout::Error
        :killed
      end
      answer || :killed
    end

    private

    def see_all
      seen = {}
      failed = []
      Minitest::Runnable.runnables.each do |test|
        test.runnable_methods.each do |name|
          before = calls
          result = Minitest.run_one_method(test, name)
          failed << "#{test}##{name}" unless result.passed? || result.skipped?
          newly(before) { |place| (seen[place] ||= []) << Seen.new(test.name, name, result.time) }
        end
      end
      seen.each_value { |tests| tests.sort_by!(&:seconds) }
      [seen, failed]
    end

    # @return [Hash{Array(String, Integer) => Integer}] how often each method was called, by file and line
    def calls
      Coverage.peek_result.each_with_object({}) do |(file, seen), found|
        next unless file.start_with?(@lib)

        seen[:methods].each { |(_owner, _name, line, *), count| found[[file, line]] = count + (found[[file, line]] || 0) }
      end
    end

    def newly(before)
      calls.each { |place, count| yield place if count > (before[place] || 0) }
    end

    def enough(tests)
      spent = 0
      tests.take_while { |one| (spent += one.seconds) <= MOST_S }
    end

    # Visible as before, and a function of its module where it was one.
    def put_in(mutant)
      owner = Object.const_get("::#{mutant.owner}")
      place = mutant.singleton ? owner.singleton_class : owner
      visible = %i[private protected public].find { |kind| place.public_send("#{kind}_method_defined?", mutant.name) }
      function = owner.instance_of?(Module) && !mutant.singleton && function?(owner, mutant.name)
      owner.class_eval(mutant.source, mutant.file, mutant.first_line)
      owner.send(:module_function, mutant.name) if function
      place.send(visible, mutant.name) if visible && !function
    end

    # Public or private: both are copies that the owner's own method no longer changes.
    def function?(owner, name)
      owner.singleton_class.then { |own| own.method_defined?(name, false) || own.private_method_defined?(name, false) }
    end

    def passes?(seen)
      result = Minitest.run_one_method(Object.const_get(seen.test), seen.name)
      result.passed? || result.skipped?
    end

    # @return what the block gives, or nil where it does not end in time or falls over
    def in_child(within_s)
      reader, writer = IO.pipe(binmode: true)
      pid = fork { answer(reader, writer) { yield } }
      writer.close
      told = reader.wait_readable(within_s) ? reader.read : ""
      told.empty? ? nil : Marshal.load(told) # rubocop:disable Security/MarshalLoad -- of our own child
    ensure
      Process.kill("KILL", pid)
      Process.wait(pid)
      reader.close
    end

    def answer(reader, writer)
      reader.close
      $stdout.reopen(File::NULL)
      told = yield
      Minitest.class_variable_get(:@@after_run).reverse_each(&:call)
      writer.write(Marshal.dump(told))
      writer.close
    rescue StandardError => error
      warn error.full_message
    ensure
      exit!
    end
  end
end
