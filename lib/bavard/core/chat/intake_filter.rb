# frozen_string_literal: true

require_relative "../dress/badge"

module Bavard
  module Core
    module Chat
      # Which lines a chat piece takes in: by feed, by kind and by what the person is.
      #
      #   IntakeFilter.new(piece).admits?(line)
      class IntakeFilter
        # @param piece [Hash] a chat piece; no feeds or roles named: all of them
        def initialize(piece)
          @feeds = piece["feeds"].to_h { |id| [id, true] }
          @kinds = piece["kinds"].to_h { |kind| [kind.to_sym, true] }
          @roles = piece["roles"].to_h { |role| [role, true] }
          @roles.clear if @roles["everyone"]
        end

        # A test line is always taken in; a rehearsal's comes from no feed.
        #
        # @param line [Line]
        # @return [Boolean]
        def admits?(line)
          return true if line.origin == :test

          @kinds.key?(line.kind) && feed?(line) && (@roles.empty? || role?(line.person))
        end

        # @return [Boolean] whether another piece takes in the same
        def same?(piece)
          self.class.new(piece).settings == settings
        end

        protected

        def settings = [@feeds, @kinds, @roles]

        private

        def feed?(line) = @feeds.empty? || line.feed_id.nil? || @feeds.key?(line.feed_id.to_s)
        def role?(person) = person.badges.any? { |badge| @roles.key?(Dress::Badge.read(badge).kind) }
      end
    end
  end
end
