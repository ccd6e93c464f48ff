# frozen_string_literal: true

require "nio"
require "rack"
require "rack/files"
require_relative "../../lasting"
require_relative "household"

module Bavard
  module Web
    # Large files go out by a thread of their own, to each as fast as it reads: somebody who reads nothing takes no thread that
    # answers others. Rack's partial hijack, for one range or the whole.
    class Outflow
      LARGE_BYTES = 128 * 1024
      CHUNK_BYTES = 64 * 1024
      # A film that is paused is not read for a while; its page asks again for the rest.
      STALLS_FOR_S = 60
      LOOK_EVERY_S = 1
      MOST = 400
      MOST_OF_ONE_ADDRESS = 64
      BUSY = [503, {"content-type" => "text/plain", "retry-after" => "5"}, ["Too many files go out just now.\n"]].freeze

      # One file on its way.
      Going = Struct.new(:io, :file, :left, :rest, :address, :moved_at)

      # Stands in the answer for a file until the reader's line is handed over. The server closes it whatever comes: a reader that was gone before
      # gives its place back.
      class Boarding
        def initialize(outflow, going)
          @outflow = outflow
          @going = going
        end

        # @param io [IO] the reader's line
        def enter(io)
          @over = true
          @going.io = io
          @outflow.admit(@going)
        end

        def each = nil

        def close
          @outflow.leave(@going) unless @over
          @over = true
        end
      end

      # In front of everything that hands out files.
      class Middleware
        def initialize(app)
          @app = app
        end

        def call(env)
          outflow = env["bavard.site"].outflow
          answer = @app.call(env)
          outflow ? outflow.hand_over(env, answer) : answer
        end
      end

      def initialize(log: nil)
        @log = log
        @selector = NIO::Selector.new
        @new = Queue.new
        @going = {}.compare_by_identity
        @count = Hash.new(0)
        @lock = Mutex.new
      end

      def start
        @thread = Lasting.new("outflow", told: ->(error) { @log&.error("files go out no more; beginning anew", error) }) { run }.start
        self
      end

      def stop
        @ended = true
        @selector.wakeup
        @thread&.join
      end

      # @return [Integer] how many are on their way
      def count = @lock.synchronize { @count.values.sum }

      # @return [Array] a Rack answer: the one given, or one that hands its body over
      def hand_over(env, answer)
        status, headers, body = answer
        return answer unless large?(env, body)

        file, range = opened(body)
        from = Household.of(env["REMOTE_ADDR"])
        return leave_out(file) unless room?(from)

        boarding = Boarding.new(self, Going.new(nil, file, range.size, nil, from, now))
        [status, headers.merge("content-length" => range.size.to_s, "connection" => "close", "rack.hijack" => boarding.method(:enter)), boarding]
      end

      # @param going [Going] whose reader is there
      def admit(going)
        @new << going
        @selector.wakeup
      end

      # @param going [Going] whose reader went before it was there
      def leave(going)
        going.file.close
        give_back(going.address)
      end

      private

      def large?(env, body)
        return false unless env["REQUEST_METHOD"] == "GET" && env["rack.hijack?"] && body.is_a?(Rack::Files::BaseIterator)

        body.ranges.size == 1 && body.bytesize > LARGE_BYTES
      end

      def room?(address) = @lock.synchronize { @count[address] < MOST_OF_ONE_ADDRESS && @count.values.sum < MOST && (@count[address] += 1) }

      def give_back(address)
        @lock.synchronize { @count.delete(address) if (@count[address] -= 1) <= 0 }
      end

      def leave_out(file)
        file.close
        BUSY
      end

      # Closed once it is through, or its reader gone.
      def opened(body)
        range = body.ranges.first
        file = File.new(body.path, "rb")
        file.seek(range.begin)
        [file, range]
      end

      def run
        until @ended
          @selector.select(LOOK_EVERY_S) { |monitor| write(monitor) }
          register(@new.pop) until @new.empty?
          let_go_of_stalled
        end
        @going.each_value { |monitor| finish(monitor.value) }
      end

      def register(going)
        monitor = @selector.register(going.io, :w)
        monitor.value = going
        @going[going] = monitor
      rescue IOError, SystemCallError, ArgumentError
        finish(going)
      end

      def write(monitor)
        going = monitor.value
        going.rest = going.file.read([CHUNK_BYTES, going.left].min) if going.rest.nil?
        sent = going.rest && going.io.write_nonblock(going.rest, exception: false)
        return if sent == :wait_writable
        return finish(going) unless sent

        moved(going, sent)
      rescue IOError, SystemCallError
        finish(going)
      end

      def moved(going, sent)
        going.moved_at = now
        going.left -= sent
        going.rest = sent < going.rest.bytesize ? going.rest.byteslice(sent..) : nil
        finish(going) if going.left <= 0
      end

      def let_go_of_stalled
        before = now - STALLS_FOR_S
        @going.keys.each { |going| finish(going) if going.moved_at < before }
      end

      def finish(going)
        monitor = @going.delete(going)
        monitor&.close
        going.file.close
        going.io.close
      rescue IOError, SystemCallError
        nil
      ensure
        give_back(going.address)
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
