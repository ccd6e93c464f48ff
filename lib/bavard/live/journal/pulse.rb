# frozen_string_literal: true

require "io/wait"
require "pg"
require "sequel"
require "socket"
require_relative "../../lasting"

module Bavard
  module Live
    # Whether the database answers, asked all the time over a line of its own. One that is there but hangs tells nobody so: whoever
    # asked it would wait for ever. Once it has not answered for {HANGS_S}, all lines to it are cut, so that whoever waits is told, and no
    # new one is begun until it answers again. Until it watches, a program begins: what has nothing to go on with without the database waits for
    # lines to it.
    #
    #   Pulse.new(db, lease.db, url, log:, over:).start
    class Pulse
      EVERY_S = 0.25
      HANGS_S = 2
      AGAIN_AFTER_S = 1
      WORDS = "the database does not answer"

      # Of a Sequel::Database: begins no line to a database that is away, and remembers those it began.
      module Guarded
        attr_accessor :pulse

        def connect(server)
          raise Sequel::DatabaseConnectionError, WORDS if pulse.away?

          super.tap { |connection| pulse.know(connection) }
        rescue PG::Error => error
          pulse.again?(error) ? retry : raise
        end
      end

      # @param dbs [Array<Sequel::Database>] ways to the same database, of which no line is in use yet
      # @param url [String] of that database
      # @param over [Over] ends what waits before it watches
      def initialize(*dbs, url, log:, over:)
        @url = url
        @log = log
        @over_told = over
        @away = false
        @lock = Mutex.new
        @known = ObjectSpace::WeakMap.new
        dbs.each do |db|
          db.extend(Guarded)
          db.pulse = self
        end
      end

      # From here on nobody waits.
      def start
        @watches = true
        @thread = Lasting.new("pulse", told: ->(error) { @log.error("pulse: beginning anew", error) }) { look until @over }.start
        self
      end

      def stop
        @over = true
        @thread.join
      end

      def away? = @away

      # @param connection [PG::Connection]
      def know(connection)
        @lock.synchronize { @known[connection] = true }
      end

      # @param error [PG::Error] why there is no line
      # @return [Boolean] after a moment, whether to begin it once more
      def again?(error)
        return false if @watches

        @log.warn("waiting for the database: #{error.message.lines.first.to_s.strip}")
        !@over_told.within?(AGAIN_AFTER_S)
      end

      private

      def look
        @line ||= begin_line
        ask
        enter(false)
        sleep EVERY_S
      rescue PG::Error, SystemCallError, IOError => error
        @line&.close
        @line = nil
        enter(true, error)
        sleep EVERY_S
      end

      # What was asked counts as asked until it is answered: a database that goes on after a while answers it then.
      def ask
        @line.send_query("SELECT 1")
        raise PG::ConnectionBad, WORDS unless answered?
      end

      def answered?
        until_s = now_s + HANGS_S
        loop do
          @line.consume_input
          return drained? unless @line.is_busy

          left_s = until_s - now_s
          return false if left_s <= 0 || @over

          @line.socket_io.wait_readable([left_s, EVERY_S].min)
        end
      end

      def drained?
        nil while @line.get_result
        true
      end

      # A line that begins, but no longer than it may hang.
      def begin_line
        line = PG::Connection.connect_start(@url)
        until_s = now_s + HANGS_S
        until (state = line.connect_poll) == PG::PGRES_POLLING_OK
          left_s = until_s - now_s
          raise PG::ConnectionBad, line.error_message.lines.first.to_s.strip if state == PG::PGRES_POLLING_FAILED
          raise PG::ConnectionBad, WORDS if left_s <= 0 || @over

          state == PG::PGRES_POLLING_READING ? line.socket_io.wait_readable(EVERY_S) : line.socket_io.wait_writable(EVERY_S)
        end
        line
      end

      def enter(away, error = nil)
        return if @away == away

        @away = away
        return @log.info("the database answers again") unless away

        @log.warn("#{WORDS}: #{error.message.lines.first.to_s.strip}")
        cut
      end

      # Whoever waits on one is told at once.
      def cut
        @lock.synchronize { @known.keys }.each do |connection|
          next if connection.finished?

          socket = BasicSocket.for_fd(connection.socket)
          socket.autoclose = false
          socket.shutdown
        rescue PG::Error, SystemCallError, IOError
          nil
        end
      end

      def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
