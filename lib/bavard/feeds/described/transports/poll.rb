# frozen_string_literal: true

require_relative "transport"

module Bavard
  module Feeds
    module Described
      # Asked over HTTP again and again: page by page, or from a mark on.
      class Poll < Transport
        NAMES = %w[find ask also items keep wait_ms over newest_first first_is_history writes ends].freeze
        ENDS = HTTP_ENDS
        WAIT_MS = 200..600_000
        USUAL_WAIT_MS = 2000
        MOST_ALSO = 4

        # @return [Question]
        attr_reader :ask
        # @return [Hash{String => Question}] what is asked with it each time, by the name under which its answer stands beside
        attr_reader :also
        # @return [Question, nil] by which the host's lines are sent
        attr_reader :writes

        # @param body [Object]
        # @param others [Hash{String => Object}] answers of what was asked as well
        # @return [Object] in which items are looked for
        def frame(body, others = {})
          return body if others.empty?

          body.is_a?(Hash) ? body.merge(others) : {"answer" => body, **others}
        end

        # @return [Array<Object>] oldest first
        def items(frame) = @newest_first ? super.reverse : super

        def wait_ms(body, headers = {}) = @wait&.of(body, headers) || USUAL_WAIT_MS

        # @return [Boolean] whether this broadcast is over
        def over?(body) = @over ? @over.holds?(body) : false

        # @return [Boolean] whether what comes first was said before
        def first_is_history? = @first_is_history

        private

        def prepare(given)
          given.key?("ask") ? @ask = question(given["ask"], "/ask") : @problem.call("/ask", "say what is asked for")
          @also = read_also(given.fetch("also", {}))
          @wait = duration(given["wait_ms"], "/wait_ms", WAIT_MS, USUAL_WAIT_MS) if given.key?("wait_ms")
          @over = try("/over") { Condition.new(given["over"]) } if given["over"]
          @newest_first = given["newest_first"] == true
          @first_is_history = given.fetch("first_is_history", true) == true
          @writes = question(given["writes"], "/writes") if given["writes"]
        end

        def read_also(given)
          if given.is_a?(Hash) && given.size <= MOST_ALSO && given.keys.all? { |name| name.match?(Keep::NAME) }
            return given.to_h do |name, one|
              [name, question(one, "/also/#{name}")]
            end
          end

          @problem.call("/also", "questions, by plain names, at most #{MOST_ALSO}")
          {}
        end
      end
    end
  end
end
