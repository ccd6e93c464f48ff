# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Feeds
    module Described
      # One thing that is wrong in a description: where, as a JSON pointer (RFC 6901), and what.
      Problem = Struct.new(:at, :words) do
        def to_s = "#{at.empty? ? "/" : at}: #{words}"
      end

      # A description that cannot be used.
      class Faulty < Bavard::Error
        attr_reader :problems

        def initialize(problems)
          @problems = problems
          super("This description cannot be used. #{problems.first}#{" (and #{problems.size - 1} more)" if problems.size > 1}", field: "description")
        end
      end
    end
  end
end
