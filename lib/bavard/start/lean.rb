# frozen_string_literal: true

module Bavard
  module Start
    # How an application's process uses memory. Whatever somebody has set counts instead.
    module Lean
      # Many threads, each with memory of its own, would hold several times what is used.
      # All shows of a process stand still while its garbage is collected, the longer the more of them are awake: it is collected half as
      # often, for a fifth more memory (docs/architecture.md, Choices).
      SET = {
        "MALLOC_ARENA_MAX" => "2",
        "RUBY_GC_MALLOC_LIMIT" => "64000000", "RUBY_GC_MALLOC_LIMIT_MAX" => "256000000",
        "RUBY_GC_OLDMALLOC_LIMIT" => "256000000", "RUBY_GC_OLDMALLOC_LIMIT_MAX" => "1000000000",
        "RUBY_GC_HEAP_OLDOBJECT_LIMIT_FACTOR" => "4", "RUBY_GC_HEAP_FREE_SLOTS_MIN_RATIO" => "0.35", "RUBY_GC_HEAP_FREE_SLOTS_GOAL_RATIO" => "0.5"
      }.freeze

      module_function

      # @param env [Hash] as ENV
      # @return [Hash] for a process that begins
      def env(env = ENV) = SET.reject { |name, _| env.key?(name) }
    end
  end
end
