# frozen_string_literal: true

require "fileutils"
require "json"
require "securerandom"
require_relative "../../aside"
require_relative "../../error"
require_relative "../../fair/turns"

module Bavard
  module Live
    # Packs and pictures on their way onto a shelf: each in a process of its own, followed by a thread, put onto its shelf
    # in one go when all of it is there. Two at once, one of each show, shows in turn.
    class Imports
      SCRIPT = File.expand_path("../../pictures/import.rb", __dir__)
      AT_ONCE = 2
      # Of one show.
      KEPT = 20
      MOST_RUNNING = 5
      CPU_S = 3600
      MEMORY_BYTES = 3 * (1024**3)
      # How often one is begun again whose process was ended from outside.
      AGAIN = 1
      # How much of what its process said before it ended is logged.
      TROUBLES_BYTES = 4096
      TROUBLES_LINES = 12
      # Where an import goes. shelf:: gives the shelf's id, once it is wanted, and takes the pack's name and how many emotes come; it may
      # raise a Bavard::Error
      # after:: called with the shelf's id and what came of it; instead:: whether what the shelf had goes
      Target = Struct.new(:shelf, :after, :instead)
      # id:: ours; state:: :running, :done, :refused, :stopped; total, done:: pictures; taken:: how many
      # refused:: [name, why] each; words:: what came of it
      Import = Struct.new(:id, :show_id, :state, :total, :done, :taken, :refused, :words, :pid, :name) do
        def report
          {id:, state:, total:, done:, taken: taken.size, refused: refused.first(200), words: words.is_a?(String) ? words : nil}
        end
      end

      # @param root [String] the cabinet's folder
      # @param store [Store::Dress]
      def initialize(root, store:, clock:, log:)
        @root = root
        @store = store
        @clock = clock
        @log = log
        @lock = Mutex.new
        @turns = Fair::Turns.new(at_once: AT_ONCE)
        @imports = {}
      end

      # @param given [Array<String>] "pack", file; or "files", name, file …
      # @param folder [String] where those files are; it goes when they have been read
      # @param target [Target]
      # @return [Import]
      # @raise [Bavard::Error] where enough of this show's are on their way
      def begin(show_id, given, folder:, target:)
        import = Import.new(SecureRandom.alphanumeric(12), show_id, :running, nil, 0, [], [], nil, nil, nil)
        @lock.synchronize do
          make_room(show_id)
          @imports[import.id] = import
        end
        Thread.new { @turns.take(show_id, patient: true) { follow(import, given, folder, target) } }.name = "import"
        import
      rescue Error
        FileUtils.rm_rf(folder)
        raise
      end

      # @return [Import, nil]
      def find(show_id, id) = @lock.synchronize { @imports[id] }&.then { |import| import if import.show_id == show_id }

      # Stops it; nothing of it gets onto the shelf.
      def stop(import)
        import.state = :stopped if import.state == :running
        Process.kill("KILL", -import.pid) if import.pid
      rescue Errno::ESRCH
        nil
      end

      def stop_all = @lock.synchronize { @imports.values }.each { |import| stop(import) if import.state == :running }

      private

      def make_room(show_id)
        theirs = @imports.values.select { |import| import.show_id == show_id }
        running, over = theirs.partition { |import| import.state == :running }
        raise Busy, "#{running.size} packs of yours are on their way already. Bring this one when they are done." if running.size >= MOST_RUNNING

        over.first([theirs.size - KEPT + 1, 0].max).each { |import| @imports.delete(import.id) }
      end

      def follow(import, given, folder, target)
        tries = 0
        tries += 1 until import.state == :stopped || run(import, given, folder) || tries == AGAIN
        finish(import, target)
      rescue Error => error
        refuse(import, error.message)
      rescue StandardError => error
        @log.error("an import failed", error)
        import.words = "Something went wrong on our side. Nothing was changed."
        import.state = :refused
      ensure
        FileUtils.rm_rf(folder)
      end

      # @return [Boolean] whether its process came to its end by itself, or was stopped. Where it did not, nothing of it is kept, and it may
      #   be begun once more: a machine short of memory ends processes that did nothing wrong
      def run(import, given, folder)
        troubles = File.join(folder, "troubles")
        begin_anew(import)
        IO.pipe do |reader, writer|
          import.pid = spawn({"DATABASE_URL" => nil, **Aside.found}, *Aside.sealed("ruby", SCRIPT, @root, *given),
            out: writer, in: File::NULL, err: troubles, pgroup: true, close_others: true, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
          writer.close
          # It may have been stopped while its process was being begun.
          stop(import) if import.state == :stopped
          reader.each_line { |line| hear(import, JSON.parse(line)) }
        end
        status = ended(import)
        return true if import.state == :stopped

        tell_of(status, troubles) unless status.success? && File.empty?(troubles)
        status.success?
      end

      # Whoever stops it from now on ends nobody: its number may be another's soon.
      def ended(import)
        pid = import.pid
        Process.wait2(pid).last
      ensure
        import.pid = nil
      end

      def begin_anew(import)
        import.total = import.words = nil
        import.done = 0
        [import.taken, import.refused].each(&:clear)
      end

      # What the operator reads of one that did not end well.
      def tell_of(status, troubles)
        words = File.binread(troubles, TROUBLES_BYTES).to_s.scrub("?").split("\n").first(TROUBLES_LINES).join("; ")
        @log.error("an import had trouble: #{status.to_s.sub(/\Apid \d+ /, "")}#{": #{words}" unless words.empty?}")
      end

      def hear(import, said)
        import.total = said["total"] if said["total"]
        import.name = said["name"] if said["name"]
        import.refused << said["refused"] if said["refused"]
        import.taken << said["taken"] if said["taken"]
        import.done += 1 if said["taken"] || said["refused"]
        import.words = said["error"] if said["error"]
        import.words = :whole if said["done"]
      end

      def finish(import, target)
        return import.words = "It was stopped. Nothing was changed." if import.state == :stopped
        return refuse(import, import.words) if import.words.is_a?(String)
        return refuse(import, "It ended before it was through. Nothing was changed.") unless import.words == :whole
        return refuse(import, "None of it is a picture that can be taken: #{import.refused.first&.last}.") if import.taken.empty?

        shelf_id = target.shelf.call(import.name, import.taken.size)
        @store.put_on_shelf(shelf_id, import.taken, @clock.call, instead: target.instead)
        import.words = words(import)
        target.after.call(shelf_id, import.words)
        import.state = :done
      end

      def refuse(import, words)
        import.words = words
        import.state = :refused
      end

      def words(import)
        return "#{import.taken.size} taken" if import.refused.empty?

        "#{import.taken.size} of #{import.total} taken; #{import.refused.size == 1 ? "one was" : "#{import.refused.size} were"} not"
      end
    end
  end
end
