# frozen_string_literal: true

require_relative "feeds"
require_relative "lines"
require_relative "people"

module Bavard
  module Store
    # Writes what a show's feeds bring, and what comes behind it, kind by kind. All of it is plain data, which can wait in a file, and
    # does the same when it is written once more.
    #
    # add:: a Lines::Entry; settle:: a Lines::Outcome; edit, pull, pull_all, pull_line, put_back:: as the methods of Lines take them;
    # steps:: what came to traces, by line; feed:: a feed's id and what is kept of it; gap:: a feed's id, from, until; note:: as
    # People#note takes it
    class LogWriting
      KINDS = %i[add settle edit pull pull_all pull_line put_back steps feed gap note].freeze
      # Many of them are written in one go: all lines of a batch before what became of them, for that rests on them and on nothing else.
      TOGETHER = %i[add settle steps].freeze

      # @param lines [Lines]
      # @param feeds [#keep, #keep_gap]
      # @param people [People]
      def initialize(lines, feeds:, people:)
        @lines = lines
        @feeds = feeds
        @people = people
      end

      # @param kind [Symbol] of KINDS
      # @return [Hash, Array] what JSON can hold
      def plain(show_id, kind, body)
        return body.to_h if kind == :settle

        kind == :add && !body.is_a?(Hash) ? @lines.row(show_id, body) : body
      end

      # All that is written in the block, as a whole: the database waits for its disk once, and not for each.
      def as_a_whole(&block) = @lines.as_a_whole(&block)

      # @param bodies [Array] one after the other; as they were given, or {#plain}
      def write(show_id, kind, bodies)
        case kind
        when :add then @lines.add_rows(bodies.map { |body| plain(show_id, kind, body) })
        when :settle then @lines.settle(bodies)
        when :steps then @lines.add_steps(in_all(bodies))
        else bodies.each { |body| write_one(kind, body) }
        end
      end

      private

      # From a file, ids are the names of what they hold.
      def in_all(bodies)
        bodies.each_with_object({}) { |steps, all| steps.each { |id, more| (all[id.to_s.to_i] ||= []).concat(more) } }
      end

      def write_one(kind, body)
        case kind
        when :feed then @feeds.keep(body.first, **body.last)
        when :gap then @feeds.keep_gap(*body)
        when :note then @people.note(*body)
        else @lines.public_send(kind, *body)
        end
      end
    end
  end
end
