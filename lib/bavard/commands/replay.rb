# frozen_string_literal: true

# Runs an edited set of rules over the log, in a process of its own: what it is to do comes as one JSON line on standard
# input, how far it is and what came of it goes out as JSON lines.
#   {"show": 1, "before": [rules], "after": [rules], "from_ms": …, "to_ms": …}
# The later half of a long log goes to another process like it, with counted_from_ms besides; not where "alone" says that others are at it.

require "etc"
require "json"
require_relative "../core/gate/replay"
require_relative "../core/gate/rules"
require_relative "../store/database"
require_relative "../store/left_out"
require_relative "../store/log"
require_relative "../store/people"

module Bavard
  # See above.
  class ReplayCommand
    TELL_EVERY = 500
    # Shorter ones are done within a second.
    FEWEST_HALVED = 4000

    # A part of it that another process does. That has read the program by then, and waits: begun before anything is asked of the
    # database, it shares no line to it.
    class Elsewhere
      # @return [Integer] lines that it has looked at
      attr_reader :done

      # @yieldparam order [Hash] there
      # @yieldparam output [IO]
      def initialize
        @done = 0
        @process = IO.popen("-", "r+")
        return if @process

        begin
          order = $stdin.gets
          yield JSON.parse(order), $stdout if order
        ensure
          exit!
        end
      end

      # @param order [Hash] what it is to do
      def take(order)
        @process.puts(JSON.generate(order))
        @reading = Thread.new { @process.each_line { |line| read(JSON.parse(line, symbolize_names: true)) } }
      end

      # There is nothing for it.
      def leave = @process.close

      # @return [Hash] once it is there
      def result
        @reading.join
        @process.close
        @result || raise("the later half of a replay came to nothing")
      end

      private

      def read(told)
        @done = told[:done]
        @result = told[:result]
      end
    end

    # @param halved_from [Numeric] so many lines are looked at by two processes
    def initialize(order, db, halved_from: Etc.nprocessors > 1 ? FEWEST_HALVED : Float::INFINITY)
      @order = order
      @db = db
      @halved_from = halved_from
      @log = Store::Log.new(db)
    end

    def run(output)
      elsewhere = begin_elsewhere if @halved_from.finite? && @order["alone"] != false && !part?
      total = @log.count(show_id, search(from_ms, to_ms), most: 1_000_000)
      middle_ms = share(elsewhere, total) if elsewhere
      elsewhere = nil unless middle_ms
      replay = heard(middle_ms || to_ms) { |done| tell(output, done: done + elsewhere&.done.to_i, total:) }
      parts = [replay.part, elsewhere&.result].compact
      result = part? ? parts.first : Core::Gate::Replay.together(parts)
      tell(output, done: result[:lines], total:, result:)
    end

    private

    # @return [Boolean] whether this is the later half
    def part? = @order.key?("counted_from_ms")

    def begin_elsewhere
      Elsewhere.new { |order, output| ReplayCommand.new(order, Store::Database.open_patiently(ENV.fetch("DATABASE_URL"))).run(output) }
    end

    def show_id = @order["show"]
    def from_ms = @order["counted_from_ms"] || @order["from_ms"]
    def to_ms = @order["to_ms"]
    def heard_from_ms = @order["counted_from_ms"] ? from_ms - Core::Gate::Memory::LONGEST_MS : from_ms
    def search(from_ms, to_ms) = Store::Log::Search.new(from_ms:, to_ms:, kind: "lines")

    # @yieldparam done [Integer] lines, now and then
    def heard(until_ms)
      replay = replay()
      @log.each_line(show_id, search(heard_from_ms, until_ms)) do |line|
        replay.hear(line)
        yield replay.lines if (replay.lines % TELL_EVERY).zero?
      end
      replay
    end

    # @return [Integer, nil] where the later half begins that is done elsewhere, if that is worth it
    def share(elsewhere, total)
      middle_ms = @log.moment(show_id, search(from_ms, to_ms), total / 2) if total >= @halved_from
      middle_ms ? elsewhere.take(@order.merge("counted_from_ms" => middle_ms)) : elsewhere.leave
      middle_ms
    end

    def replay
      left_out = Store::LeftOut.new(@db).of_show(show_id, to_ms)
      first_seen = Store::People.new(@db).first_seen(show_id)
      before, after = @order.values_at("before", "after").map { |rules| Core::Gate::Ladder.from(rules) }
      Core::Gate::Replay.new(before, after, from_ms: @order["from_ms"], to_ms:, counted_from_id: from_ms * 1000) do
        Core::Gate::Memory.new(left_out: Core::Gate::LeftOut.new(left_out), first_seen: ->(key) { first_seen[key] })
      end
    end

    def tell(output, **told)
      output.puts(JSON.generate(told))
      output.flush
    end
  end
end

if $PROGRAM_NAME == __FILE__
  order = JSON.parse($stdin.gets)
  Bavard::ReplayCommand.new(order, Bavard::Store::Database.open_patiently(ENV.fetch("DATABASE_URL"))).run($stdout)
end
