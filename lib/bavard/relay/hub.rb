# frozen_string_literal: true

require "nio"
require_relative "../lasting"
require_relative "connection"

module Bavard
  module Relay
    # The embedded hub: one loop that owns every page's WebSocket. Other threads only leave a command and wake it.
    #
    #   hub = Hub.new(clock:, log:).start
    #   hub.join(socket, env, topic, last: "a3f9:41", follower:)
    #   hub.deliver(topic, frame)
    class Hub
      PING_EVERY_MS = 15_000
      BEAT_EVERY_MS = 1000
      MOST_WAIT_S = 0.5
      NOBODY = {}.freeze

      # @param clock [#call] Unix milliseconds
      def initialize(clock:, log:)
        @clock = clock
        @log = log
        @commands = Queue.new
        @selector = NIO::Selector.new
        @following = Hash.new { |hash, topic| hash[topic] = {} }
        @next_id = @delivered = @cuts = 0
        @counting = Mutex.new
        @pinged_at_ms = clock.call
        @beat_at_ms = Since.ms
      end

      def start
        @thread = Lasting.new("relay", told: ->(error) { @log.error("relay: beginning anew", error) }) { run }.start
        self
      end

      # Takes over a hijacked socket. last is "life:seq" of the last frame that page has.
      #
      # @param cuts [Integer, nil] as {#cuts} was before it was looked up who that is: they come again, where somebody was cut off since
      def join(io, env, topic, follower:, last: nil, cuts: nil)
        command(:let_in, cuts, io, env, topic, follower, last)
      end

      # @return [Integer] how often somebody was cut off
      attr_reader :cuts

      # @return [Boolean] whether what was found out when so many had been cut off may be otherwise now
      def stale?(topic, cuts) = topic.over? || (!cuts.nil? && cuts != @cuts)

      # @return [Integer] how many pages follow a topic, as far as the loop has come
      def size(topic) = @following.fetch(topic, NOBODY).size

      # @return [Integer] how many pages follow anything
      def pages = @following.values.sum(&:size)

      # @return [Integer] how many of them have more waiting than is sent to them any more, until they have read it
      def behind = @following.values.sum { |connections| connections.values.count(&:behind?) }

      # @return [Integer] how many of them have their line elsewhere
      def relayed = 0

      # @return [Boolean] whether what is sent goes out
      def there? = true

      # @return [Integer] frames that were sent to a page, all pages together
      attr_reader :delivered

      # Sends a frame to all pages that follow the topic.
      def deliver(topic, frame)
        command(:send_out, topic, frame)
      end

      # Says something to one page alone; it is no frame, and nobody who comes back later hears of it.
      #
      # @param id [Integer] of its connection
      def whisper(topic, id, text)
        command(:say_to, topic, id, text)
      end

      # Cuts every page off a topic, as when its link is replaced: by the old one nobody finds it any more.
      def close(topic)
        count_cut
        command(:cut, topic)
      end

      # Pages of a topic lose their line, and come back.
      def let_go(topic)
        command(:leave, topic)
      end

      # As {#let_go}, of those for whose env the block is true.
      def let_go_where(&block)
        count_cut
        command(:leave_chosen, block)
      end

      # A topic went on elsewhere before: whose lines are here knows of nobody there.
      def came_from(_place, _topic) = nil

      # Cuts off the pages for whose env the block is true, as when a person's role was taken back.
      #
      # @param again [Boolean] whether it is asked again and again, and who slips in now goes the next time
      def cut_where(again: false, &block)
        count_cut unless again
        command(:cut_chosen, block)
      end

      def stop
        command(:end)
        @thread.join
      end

      private

      def count_cut = @counting.synchronize { @cuts += 1 }

      def command(*command)
        @commands << command
        @selector.wakeup
      rescue IOError
        nil # the loop is over
      end

      # Begun anew, it has nobody yet: pages whose line it held have lost it, and come back.
      def run
        @following.clear
        @selector = NIO::Selector.new if @selector.closed?
        until @ended
          @selector.select(MOST_WAIT_S) { |monitor| react(monitor) }
          obey(@commands.pop) until @commands.empty?
          beat
          ping
        end
      ensure
        @following.each_value { |connections| connections.each_value(&:finish) }
        @selector.close
      end

      def obey(command)
        name, *given = command
        case name
        when :let_in then let_in(*given)
        when :send_out then send_out(*given)
        when :say_to then say_to(*given)
        when :answer then given.first.answer(given.last) unless given.first.closed?
        when :cut then cut(given.first)
        when :leave then @following[given.first].values.each { |connection| drop(connection) } if @following.key?(given.first)
        when :leave_chosen then chosen(given.first).each { |connection| drop(connection) }
        when :cut_chosen then cut_chosen(given.first)
        when :end then @ended = true
        end
      rescue StandardError => error
        @log.error("relay: #{name} failed", error)
      end

      def let_in(cuts, io, env, topic, *more) = stale?(topic, cuts) ? io.close : take_in(io, env, topic, *more)

      def take_in(io, env, topic, follower, last)
        connection = Connection.new(io, env, topic, id: @next_id += 1, last:, follower:, asked: method(:asked))
        connection.monitor = @selector.register(io, :r)
        connection.monitor.value = connection
        @following[topic][connection.id] = connection
        connection.begin(@clock.call)
        drop(connection) if connection.closed?
      rescue StandardError
        # A page that is cut off comes back; one that is left waiting does not.
        connection && @following[topic].key?(connection.id) ? drop(connection) : io.close
        raise
      end

      # Behind what other threads have left here meanwhile.
      def asked(connection, number) = @commands << [:answer, connection, number]

      def send_out(topic, frame)
        return unless @following.key?(topic)

        @following[topic].values.each do |connection|
          connection.send_frame(frame)
          @delivered += 1
          drop(connection) if connection.closed?
        end
      end

      def say_to(topic, id, text)
        connection = @following.key?(topic) && @following[topic][id] or return
        connection.send_frame(text)
        drop(connection) if connection.closed?
      end

      def cut(topic)
        return unless @following.key?(topic)

        @following[topic].values.each do |connection|
          connection.replace
          drop(connection)
        end
      end

      def chosen(chosen) = @following.values.flat_map(&:values).select { |connection| chosen.call(connection.env) }

      def cut_chosen(chosen)
        chosen(chosen).each do |connection|
          connection.replace
          drop(connection)
        end
      end

      def react(monitor)
        connection = monitor.value
        connection.writable if monitor.writable?
        drop(connection) if (monitor.readable? && !connection.readable(@clock.call)) || connection.closed?
      rescue StandardError => error
        @log.warn("relay: a page was cut off", error)
        drop(connection)
      end

      def drop(connection)
        return unless @following[connection.topic].delete(connection.id)

        @following.delete(connection.topic) if @following[connection.topic].empty?
        @selector.deregister(connection.io)
        connection.finish
      end

      def beat
        now_ms = Since.ms
        return if now_ms - @beat_at_ms < BEAT_EVERY_MS

        @beat_at_ms = now_ms
        @following.values.flat_map(&:values).each do |connection|
          connection.beat
          drop(connection) if connection.closed?
        end
      end

      def ping
        now_ms = @clock.call
        return if now_ms - @pinged_at_ms < PING_EVERY_MS

        @pinged_at_ms = now_ms
        @following.values.flat_map(&:values).each { |connection| drop(connection) unless connection.ping(now_ms) }
      end
    end
  end
end
