# frozen_string_literal: true

require_relative "../../feeds/described/bench/beginnings"
require_relative "../../feeds/described/bench/bench"
require_relative "../../feeds/platform"

module Bavard
  module Live
    # The platforms that a show can read: those of the list of whoever runs Bavard, and those that its host described. One that cannot be used
    # is left out, and no other with it. Read from other threads too: never changed, but another one.
    class KnownPlatforms
      # @param listed [Hash{String => Feeds::Platform}]
      # @param door [Outward::Door] by which a host’s own are reached
      def initialize(listed, door)
        @listed = listed
        @door = door
        @all = listed
        @read = {}
      end

      # @return [Hash{String => Feeds::Platform}] the host’s own first
      attr_reader :all

      # @return [Feeds::Platform, nil]
      def [](key) = @all[key]

      # What is as it was stays the very same.
      #
      # @param descriptions [Array<Store::Descriptions::Kept>] of the host
      def own=(descriptions)
        before = @read
        @read = descriptions.to_h { |kept| [[kept.id, kept.text, kept.samples], kept] }
        @read = @read.to_h { |known, kept| [known, before.fetch(known) { platform(kept) }] }
        @all = {**@read.each_value.compact.to_h { |platform| [platform.key, platform] }, **@listed}.freeze
      end

      private

      # One that nobody has written anything in yet is no platform.
      def platform(kept)
        return if Feeds::Described::Bench::Beginnings.untouched?(kept.text)

        bench = Feeds::Described::Bench::Bench.new(kept.text, kept.samples)
        Feeds::Platform.own(bench.description, kept.id, @door) if bench.fits? && bench.samples.none?(&:last)
      end
    end
  end
end
