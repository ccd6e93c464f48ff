# frozen_string_literal: true

require_relative "../../now_and_then"

module Bavard
  module Live
    # Whether this process alone does not reach the database. Where nobody does, all go on where they are: nobody can take anything either. Where
    # others reach it, they take over what was locked over our line, and whoever ran it lets go of it first: a line that is pulled there would
    # stay on screens that follow here.
    class CutOff
      EVERY_S = 1
      # Twice in a row: a database that has come back is seen by one a moment before it is seen by the other.
      SURE_AFTER = 2

      # @return [String, nil] where somebody reaches the database while we do not
      attr_reader :instead

      # @param away [#call] whether the database is out of our reach
      # @param others [#call] gives one of the others that reaches it, or nil
      # @yield once it is sure, and as long as it is, now and then
      def initialize(away:, others:, &let_go)
        @away = away
        @others = others
        @let_go = let_go
        @times = 0
      end

      def start
        @looking = NowAndThen.new("neighbours", EVERY_S) { look }.start
        self
      end

      def stop = @looking&.stop

      # To be called each second.
      def look
        reaches = (@others.call if @away.call)
        @times = reaches && @away.call ? @times + 1 : 0
        @instead = (reaches if @times >= SURE_AFTER)
        @let_go.call if @instead
      end
    end
  end
end
