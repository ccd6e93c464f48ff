# frozen_string_literal: true

require "digest"
require "io/wait"
require "json"
require_relative "../error"
require_relative "bounds"
require_relative "kind"

module Bavard
  module Pictures
    # Where pictures are made anew. The work is done by Press, in child processes of their own with limits on memory and
    # time, one for SVG and one for all others; one that dies or takes too long is replaced, and its picture refused.
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
      NICE = 10

      # @param bytes [String]
      # @return [String] 32 hexadecimal digits
      def self.id_of(bytes) = Digest::SHA256.hexdigest(bytes)[0, 32]

      def initialize
        @lock = Mutex.new
        @children = {}
      end

      # @param purpose [String] of Bounds::PURPOSES: what sizes are made
      # @return [Made]
      # @raise [Bavard::Error] saying why not, in words that go on after "it"
      def make(bytes, purpose = "emote")
        largest = Bounds::LARGEST_BYTES_FOR.fetch(purpose)
        raise Error, "it has more than #{largest / 1024 / 1024} MB" if bytes.bytesize > largest
        raise Error, "it is empty" if bytes.empty?

        kind = Kind.of(bytes) or raise Error, "it is no PNG, GIF, APNG, WebP, SVG, AVIF or JPEG"
        about, files = @lock.synchronize { ask(kind == :svg ? "svg" : "other", bytes, purpose) }
        raise Error, about["refused"] if about["refused"]

        id = self.class.id_of(purpose == "emote" ? bytes : "#{purpose}\n".b + bytes.b)
        Made.new(id, about["width"], about["height"], about["frames"], files)
      end

      def stop
        @lock.synchronize { @children.each_key { |which| finish(which) } }
      end

      private

      # A child: process, its pipes, and how many pictures it has made.
      Child = Struct.new(:pid, :input, :output, :made)
      private_constant :Child

      def ask(which, bytes, purpose)
        finish(which) if @children[which]&.made.to_i >= PICTURES_A_CHILD
        child = @children[which] ||= start(which)
        child.made += 1
        deadline = now + Bounds::WITHIN_S.fetch(purpose)
        send_out(child, bytes, purpose, deadline)
        receive(child, deadline)
      rescue SystemCallError, IOError, JSON::ParserError
        finish(which)
        raise Error, "reading it took more time or memory than a picture may take"
      end

      def start(which)
        theirs, input = IO.pipe(binmode: true)
        output, answer = IO.pipe(binmode: true)
        pid = spawn({"DATABASE_URL" => nil, "VIPS_CONCURRENCY" => "1", "MALLOC_ARENA_MAX" => "2"}, "nice", "-n", NICE.to_s, "ruby", PRESS, which,
          in: theirs, out: answer, err: File::NULL, pgroup: true, close_others: true, rlimit_cpu: CPU_S, rlimit_as: MEMORY_BYTES)
        [theirs, answer].each(&:close)
        Child.new(pid, input, output, 0)
      end

      def send_out(child, bytes, purpose, deadline)
        data = "#{bytes.bytesize} #{purpose}\n".b + bytes.b
        until data.empty?
          written = child.input.write_nonblock(data, exception: false)
          written == :wait_writable ? wait(child.input, :wait_writable, deadline) : data = data.byteslice(written..)
        end
      end

      def receive(child, deadline)
        buffer = String.new(encoding: Encoding::BINARY)
        fill(child, buffer, deadline) until (finish = buffer.index("\n"))
        size = Integer(buffer.slice!(0..finish))
        fill(child, buffer, deadline) until buffer.bytesize >= size
        about = JSON.parse(buffer.slice!(0, size))
        names = about.fetch("files", [])
        fill(child, buffer, deadline) until buffer.bytesize >= names.sum(&:last)
        [about, names.to_h { |name, bytes| [name, buffer.slice!(0, bytes)] }]
      end

      def fill(child, buffer, deadline)
        read = child.output.read_nonblock(262_144, exception: false)
        raise EOFError if read.nil?

        read == :wait_readable ? wait(child.output, :wait_readable, deadline) : buffer << read
      end

      def wait(io, how, deadline)
        left = deadline - now
        raise Errno::ETIMEDOUT if left <= 0 || io.public_send(how, left).nil?
      end

      def finish(which)
        child = @children.delete(which) or return
        [child.input, child.output].each(&:close)
        Process.kill("KILL", -child.pid)
      rescue Errno::ESRCH
        nil
      ensure
        Process.wait(child.pid) if child
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
