# frozen_string_literal: true

require "ipaddr"

module Bavard
  module Web
    # Whoever is counted by where they ask from: an address of IPv4, and of IPv6 what one household has to itself and may ask from in turn.
    module Household
      BITS = 64
      UNKNOWN = "unknown"

      module_function

      # @param address [String, nil]
      # @return [String]
      def of(address)
        ip = IPAddr.new(address.to_s)
        ip = ip.native if ip.ipv4_mapped?
        (ip.ipv6? ? ip.mask(BITS) : ip).to_s
      rescue IPAddr::Error
        UNKNOWN
      end
    end
  end
end
