# frozen_string_literal: true

module Bavard
  module Live
    # A part of a show that it asks in turn: it has a state of its own, works in the show's thread only, and reaches the others by name.
    class Part
      # @param show [Show]
      def initialize(show)
        @show = show
      end

      private

      def id = @show.id
      def record = @show.record
      def now_ms = @show.now_ms
      def ids = @show.ids
      def journal = @show.journal
      def lanes = @show.lanes
      def desks = @show.desks
      def lines = @show.lines
      def gatehouse = @show.gatehouse
      def prompter = @show.prompter
      def wardrobe = @show.wardrobe
      def voices = @show.voices
      def cues = @show.cues
      def tallies = @show.tallies
      def sounding = @show.sounding
      def shout_outs = @show.shout_outs
    end
  end
end
