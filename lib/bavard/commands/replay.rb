# frozen_string_literal: true

# Runs an edited set of rules over the log, in a process of its own: what it is to do comes as one JSON line on standard
# input, how far it is and what came of it goes out as JSON lines.
#   {"show": 1, "before": [rules], "after": [rules], "from_ms": …, "to_ms": …}

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

    def initialize(order, db)
      @order = order
      @db = db
      @log = Store::Log.new(db)
      @search = Store::Log::Search.new(from_ms: order["from_ms"], to_ms: order["to_ms"], kind: "lines")
    end

    def run(output)
      total = @log.count(@order["show"], @search, most: 1_000_000)
      replay = replay()
      @log.each(@order["show"], @search) do |entry|
        replay.hear(entry.line)
        tell(output, done: replay.lines, total:) if (replay.lines % TELL_EVERY).zero?
      end
      tell(output, done: replay.lines, total:, result: replay.to_h)
    end

    private

    def replay
      left_out = Store::LeftOut.new(@db).of_show(@order["show"], @order["to_ms"])
      first_seen = Store::People.new(@db).first_seen(@order["show"])
      before, after = @order.values_at("before", "after").map { |rules| Core::Gate::Ladder.from(rules) }
      Core::Gate::Replay.new(before, after, from_ms: @order["from_ms"], to_ms: @order["to_ms"]) do
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
  Bavard::ReplayCommand.new(order, Bavard::Store::Database.open(ENV.fetch("DATABASE_URL"))).run($stdout)
end
