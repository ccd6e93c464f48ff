# frozen_string_literal: true

module Bavard
  module Feeds
    # A permission in use: gives a token that is good, renewing it in time. Used by one feed's thread.
    class HeldPermission
      # It was taken back, or has run out for good; the message says what to do.
      class Gone < StandardError
      end

      RENEW_BEFORE_MS = 60_000

      # @param permission [Core::Permission]
      # @param consent [#renew] takes a permission, gives a newer one
      # @param keep [#call] takes the newer one
      # @param clock [#call] Unix milliseconds
      def initialize(permission, consent:, keep:, clock:)
        @permission = permission
        @consent = consent
        @keep = keep
        @clock = clock
      end

      def may?(what) = @permission.may?(what)

      # @return [String] whose it is and what it allows: another one for another permission, the same for a renewed one
      def standing = [@permission.account, *@permission.may.sort].join(" ")

      # @return [String]
      # @raise [Gone]
      def token
        renew if @permission.expires_at_ms && @permission.expires_at_ms - RENEW_BEFORE_MS < @clock.call
        @permission.access
      end

      # @raise [Gone]
      def renew
        @permission = @consent.renew(@permission)
        @keep.call(@permission)
      end
    end
  end
end
