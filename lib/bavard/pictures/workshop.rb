# frozen_string_literal: true

require "digest"
require "io/wait"
require "json"
require_relative "../aside"
require_relative "../error"
require_relative "../fair/turns"
require_relative "../unwatched"
require_relative "bounds"
require_relative "kind"
require_relative "processor_time"

module Bavard
  module Pictures
    # Where pictures are made anew. The work is done by Press, in child processes of their own with limits on memory and
    # time, SVG in others than all else; one that dies or takes too long is replaced, and its picture refused. Two are made at
    # once, one of each owner, and owners come in turn.
    #
    #   made = Workshop.new.make(bytes)
    #   made.files   # => {"1" => WebP, "2" => …, "4" => …, "still" => … where it moves}
    class Workshop
      # id:: a hash of the bytes it was made from
      Made = Struct.new(:id, :width, :height, :frames, :files)

      PRESS = File.expand_path("press.rb", __dir__)
      # Time of one processor for all pictures of one child; then there is a fresh one.
      CPU_S = 600
      MEMORY_BYTES = 3 * (1024**3)
      PICTURES_A_CHILD = 400
      LOOK_EVERY_S = 0.25
      AT_ONCE = 2
      # Threads that wait for one.
      MOST_WAITING = 8
      MOST_OF_ONE = 6
      # Somebody who waits for one picture waits no longer than so many times what it may take, however busy the machine is.
      MOST_BUSY = 12

      # @param bytes [String]
      # @return [String] 32 hexadecimal digits
      def self.id_of(bytes) = Digest::SHA256.hexdigest(bytes)[0, 32]

      # @param within_s [Hash{String => Numeric}] seconds of a processor that one picture may take, by purpose
      def initialize(within_s: Bounds::WITHIN_S)
        @within_s = within_s
        @turns = Fair::Turns.new(at_once: AT_ONCE, most_waiting: MOST_WAITING, most_of_one: MOST_OF_ONE)
        @lock = Mutex.new
        @children = {"svg" => [], "other" => []}
      end

      # @param purpose [String] of Bounds::PURPOSES: what sizes are made
      # @param owner [Object] whose turn it takes
      # @param patient [Boolean] whether it waits for that however many do
      # @param watch [#told, #stopped?] hears how far it is, and says whether it is still wanted
      # @return [Made]
      # @raise [Bavard::Error] saying why not, in words that go on after "it"
      def make(bytes, purpose = "emote", owner: nil, patient: false, watch: Unwatched)
        largest = Bounds::LARGEST_BYTES_FOR.fetch(purpose)
        raise Error, "it has more than #{largest / 1024 / 1024} MB" if bytes.bytesize > largest
        raise Error, "it is empty" if bytes.empty?

        kind = Kind.of(bytes) or raise Error, "it is no PNG, GIF, APNG, WebP, SVG, AVIF or JPEG"
        about, files = @turns.take(owner, patient:) { ask(kind == :svg ? "svg" : "other", bytes, purpose, watch) }
        raise Error, about["refused"] if about["refused"]

        id = self.class.id_of(purpose == "emote" ? bytes : "#{purpose}\n".b + bytes.b)
        Made.new(id, about["width"], about["height"], about["frames"], files)
      end

      def stop
        idle = @lock.synchronize do
          @stopped = true
          @children.each_value.flat_map { |children| children.shift(children.size) }
        end
        idle.each { |child| finish(child) }
      end

      private

      # A child: process, its pipes, and how many pictures it has made.
      Child = Struct.new(:pid, :input, :output, :made)
      # Until when one picture is to be done: by the child's processor time, and by the clock; and who is told of it.
      Limit = Struct.new(:processor_s, :clock_s, :purpose, :watch)
      private_constant :Child, :Limit

      def ask(which, bytes, purpose, watch)
        child = @lock.synchronize { @children[which].pop } || start(which)
        child.made += 1
        within_s = @within_s.fetch(purpose)
        limit = Limit.new(ProcessorTime.of(child.pid) + within_s, now + (within_s * MOST_BUSY), purpose, watch)
        send_out(child, bytes, purpose, limit)
        made = receive(child, limit)
        child = rest(which, child)
        made
      rescue SystemCallError, IOError, JSON::ParserError
        raise Error, "reading it took more time or memory than a picture may take"
      ensure
        finish(child) if child
      end

      # @return [Child, nil] it, where it has made enough
      def rest(which, child)
        @lock.synchronize do
          return child if @stopped || child.made >= PICTURES_A_CHILD

          @children[which].push(child)
          nil
        end
      end

      def start(which)
        theirs, input = IO.pipe(binmode: true)
        output, answer = IO.pipe(binmode: true)
        pid = spawn({"DATABASE_URL" => nil, "VIPS_CONCURRENCY" => "1", "MALLOC_ARENA_MAX" => "2", **Aside.found}, *Aside.sealed("ruby", PRESS, which),
          in: theirs, out: answer, err: File::NULL, pgroup: true, close_others: true, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES, **Aside::LIMITS)
        [theirs, answer].each(&:close)
        Child.new(pid, input, output, 0)
      end

      def send_out(child, bytes, purpose, limit)
        data = "#{bytes.bytesize} #{purpose}\n".b + bytes.b
        until data.empty?
          written = child.input.write_nonblock(data, exception: false)
          written == :wait_writable ? wait(child, child.input, :wait_writable, limit) : data = data.byteslice(written..)
        end
      end

      def receive(child, limit)
        buffer = String.new(encoding: Encoding::BINARY)
        size = told_size(child, buffer, limit)
        fill(child, buffer, limit) until buffer.bytesize >= size
        about = JSON.parse(buffer.slice!(0, size))
        names = about.fetch("files", [])
        fill(child, buffer, limit) until buffer.bytesize >= names.sum(&:last)
        [about, names.to_h { |name, bytes| [name, buffer.slice!(0, bytes)] }]
      end

      # After all that it tells as it goes.
      def told_size(child, buffer, limit)
        loop do
          fill(child, buffer, limit) until (finish = buffer.index("\n"))
          line = buffer.slice!(0..finish)
          case line[0]
          when "m" then allow(limit, Integer(line[1..]))
          when "p" then limit.watch.told(Integer(line[1..]).clamp(0, 100), 100)
          else return Integer(line)
          end
        end
      end

      # Of what a host brings, large moving ones may take longer.
      def allow(limit, pixels)
        more_s = Bounds.within_s(limit.purpose, pixels)
        limit.processor_s += more_s
        limit.clock_s += more_s * MOST_BUSY
      end

      def fill(child, buffer, limit)
        read = child.output.read_nonblock(262_144, exception: false)
        raise EOFError if read.nil?

        read == :wait_readable ? wait(child, child.output, :wait_readable, limit) : buffer << read
      end

      # On a machine that others use as well, a picture takes longer without costing more.
      def wait(child, io, how, limit)
        raise Stopped, "it was stopped" if limit.watch.stopped?
        raise Errno::ETIMEDOUT if ProcessorTime.of(child.pid) > limit.processor_s || now > limit.clock_s

        io.public_send(how, LOOK_EVERY_S)
      end

      def finish(child)
        [child.input, child.output].each(&:close)
        Process.kill("KILL", -child.pid)
      rescue Errno::ESRCH
        nil
      ensure
        Process.wait(child.pid)
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
