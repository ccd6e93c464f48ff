# frozen_string_literal: true

# Takes a pack or loose pictures in, in a process of its own, so that the show goes on meanwhile.
#   ruby lib/bavard/pictures/import.rb CABINET pack FILE
#   ruby lib/bavard/pictures/import.rb CABINET files NAME FILE [NAME FILE …]
# Prints JSON Lines: {"total"}, {"taken": …} and {"refused": [name, why]} as it goes, {"name"} and at the end {"done": true};
# or {"error": words}.

require "json"
require_relative "../error"
require_relative "cabinet"
require_relative "pack"
require_relative "workshop"

module Bavard
  module Pictures
    # One import.
    class Import
      # How many pictures are made at the same time, and how many are read ahead for that.
      WORKSHOPS = 2
      AHEAD = 8
      NO_ROOM = [Errno::ENOSPC, Errno::EDQUOT].freeze
      # made:: a Workshop::Made, or nil; why:: why not, or nil
      Outcome = Struct.new(:item, :made, :why)

      def initialize(cabinet, output)
        @cabinet = cabinet
        @output = output
        @workshops = Array.new(WORKSHOPS) { Workshop.new }
        @codes = {}
      end

      def pack(path)
        Pack.open(path) do |pack|
          tell(total: pack.items.size + pack.refused.size, name: pack.name)
          pack.refused.each { |name, why| tell(refused: [name, why]) }
          unpack(pack.items)
        end
        tell(done: true)
      rescue Error => error
        tell(error: error.message, field: error.field)
      rescue SystemCallError => error
        fail_here(error)
      ensure
        @workshops.each(&:stop)
      end

      # @param files [Array<Array(String, String)>] names and paths
      def files(files)
        tell(total: files.size)
        unpack(files.map { |name, path| Pack::Item.new(Pack.code_of(name), name, false, false, reader(path)) })
        tell(done: true)
      rescue SystemCallError => error
        fail_here(error)
      ensure
        @workshops.each(&:stop)
      end

      private

      # It is not the pictures' fault: a disk that is full, a folder that is gone.
      def fail_here(error)
        warn "#{error.class}: #{error.message}"
        why = NO_ROOM.any? { |kind| error.is_a?(kind) } ? "There is no room on the disk." : "Whoever runs this installation finds in its log why."
        tell(error: "Pictures cannot be kept here at the moment. Nothing was changed. #{why}")
      end

      def reader(path) = -> { File.binread(path, Bounds::LARGEST_BYTES + 1) }

      # In their order, however they are shared out.
      def unpack(items)
        items.each_slice(AHEAD) { |some| share_out(some).each { |outcome| conclude(outcome) } }
      end

      # @return [Array<Outcome>]
      def share_out(items)
        jobs = Queue.new
        outcomes = items.each_with_index.map { |item, index| read(item).tap { |outcome, bytes| jobs << [index, bytes] unless outcome.why }.first }
        jobs.close
        @workshops.map { |workshop| Thread.new { work(workshop, jobs, outcomes) } }.each(&:join)
        outcomes
      end

      # @return [Array(Outcome, String)] with its bytes, where it is to be made
      def read(item)
        return [Outcome.new(item, nil, "its name gives no code")] unless item.code
        return [Outcome.new(item, nil, "#{item.code} is in it twice")] if @codes.key?(item.code)

        bytes = item.read.call
        @codes[item.code] = true
        [Outcome.new(item), bytes]
      rescue Error => error
        [Outcome.new(item, nil, error.message)]
      end

      def work(workshop, jobs, outcomes)
        while (index, bytes = jobs.pop)
          begin
            outcomes[index].made = @cabinet.keep(workshop.make(bytes))
          rescue Error => error
            outcomes[index].why = error.message
          end
        end
      end

      def conclude(outcome)
        item = outcome.item
        made = outcome.made or return tell(refused: [item.name, outcome.why])
        tell(taken: {code: item.code, picture: made.id, width: made.width, height: made.height, frames: made.frames, overlay: item.overlay,
                     any_case: item.any_case})
      end

      def tell(message)
        @output.puts(JSON.generate(message))
        @output.flush
      end
    end
  end
end

if $PROGRAM_NAME == __FILE__
  cabinet, what, *given = ARGV
  import = Bavard::Pictures::Import.new(Bavard::Pictures::Cabinet.new(cabinet), $stdout)
  what == "pack" ? import.pack(given.first) : import.files(given.each_slice(2).to_a)
end
