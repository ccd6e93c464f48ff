# frozen_string_literal: true

require_relative "../../error"
require_relative "../../feeds/consent"
require_relative "../../feeds/held_permission"
require_relative "../../feeds/platform"
require_relative "feed_kinds"

module Bavard
  module Live
    # By which ways feeds get to where they read.
    class FeedWays
      NO_PLATFORM = "This Bavard does not know that platform any more. Whoever runs it can list it again."

      NOT_DESCRIBED = "Its description was taken away, or cannot be used just now. Look at it under “Describe a platform”."

      # Those whose servers a host names.
      NAMED = [Feeds::Irc::KIND, Feeds::Xmpp::KIND].freeze

      attr_reader :clock

      # @param platforms [KnownPlatforms]
      # @param door [Outward::Door] the one way out
      # @param clock [#call] the time in Unix milliseconds
      def initialize(platforms, door, clock)
        @platforms = platforms
        @door = door
        @clock = clock
      end

      # @return [Feeds::Platform, nil]
      def platform(feed) = feed.platform && @platforms[feed.platform]

      # @yieldparam permission [Core::Permission] that was renewed
      # @return [Hash] what the feed's kind of connection asks for
      # @raise [Bavard::Error] where the platform is not known
      def to(feed, &renewed)
        return {door: @door, **named(feed)} if NAMED.include?(feed.kind)

        feed.platform ? {platform: known(feed), permission: held(feed, renewed)} : {}
      end

      private

      # Where a server is described, that says where it stands.
      def named(feed)
        own = feed.platform&.start_with?(Feeds::Platform::OWN)
        own || platform(feed)&.description ? {platform: known(feed)} : {}
      end

      def known(feed)
        platform(feed) || raise(Error, feed.platform.start_with?(Feeds::Platform::OWN) ? NOT_DESCRIBED : NO_PLATFORM)
      end

      def held(feed, renewed)
        feed.permission && Feeds::HeldPermission.new(feed.permission, consent: Feeds::Consent.new(known(feed), nil, clock:), clock:, keep: renewed)
      end
    end
  end
end
