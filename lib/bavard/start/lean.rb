# frozen_string_literal: true

module Bavard
  module Start
    # How an application's process uses memory. Whatever somebody has set counts instead.
    module Lean
      # Many threads, each with memory of its own, would hold several times what is used.
      # All shows of a process stand still while its garbage is collected, the longer the more of them are awake: it is collected half as
      # often, for a fifth more memory (docs/architecture.md, Choices). Whenever too little is free after a collection the next one looks
      # through everything: room for what a few busy shows take is there from the beginning, and a tenth of it is enough; where that is used up,
      # it becomes nearly three times as much in one step.
      ROOM = "RUBY_GC_HEAP_INIT_SLOTS"
      SET = {
        "MALLOC_ARENA_MAX" => "2",
        "RUBY_GC_MALLOC_LIMIT" => "64000000", "RUBY_GC_MALLOC_LIMIT_MAX" => "256000000",
        "RUBY_GC_OLDMALLOC_LIMIT" => "256000000", "RUBY_GC_OLDMALLOC_LIMIT_MAX" => "1000000000",
        "RUBY_GC_HEAP_OLDOBJECT_LIMIT_FACTOR" => "4", ROOM => "1200000",
        "RUBY_GC_HEAP_FREE_SLOTS_MIN_RATIO" => "0.1", "RUBY_GC_HEAP_FREE_SLOTS_GOAL_RATIO" => "0.65",
        "RUBY_GC_HEAP_GROWTH_FACTOR" => "3"
      }.freeze

      module_function

      # @param env [Hash] as ENV
      # @return [Hash] for a process that begins
      def env(env = ENV) = SET.reject { |name, _| env.key?(name) }

      # What this process begins needs no such room from here on: most of that is over after a second.
      def only_here(env = ENV) = env.delete(ROOM)
    end
  end
end
