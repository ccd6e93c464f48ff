# frozen_string_literal: true

require "ipaddr"
require "socket"

module Bavard
  module Outward
    # Which addresses are somewhere in the world, and not in this house or this machine.
    module Global
      # IANA's special-purpose registry, and an address at which a cloud tells its machines their secrets.
      INSIDE_4 = %w[0.0.0.0/8 10.0.0.0/8 100.64.0.0/10 127.0.0.0/8 168.63.129.16/32 169.254.0.0/16 172.16.0.0/12 192.0.0.0/24 192.0.2.0/24
        192.88.99.0/24 192.168.0.0/16 198.18.0.0/15 198.51.100.0/24 203.0.113.0/24 224.0.0.0/4 240.0.0.0/4].map { |range| IPAddr.new(range) }.freeze
      # Of IPv6 nothing but this is given to anybody in the world (RFC 4291 §2.4) …
      WORLD_6 = IPAddr.new("2000::/3")
      # … without what carries an IPv4 address, or is for examples (Teredo and others, 6to4, documentation).
      INSIDE_6 = %w[2001::/23 2001:db8::/32 2002::/16 3fff::/20].map { |range| IPAddr.new(range) }.freeze

      module_function

      # @param address [String] as the system writes it, such as "192.0.2.1" or "fe80::1%eth0"
      def global?(address)
        return false if address.include?("%")

        ip = IPAddr.new(address)
        among = ip.ipv4? ? INSIDE_4 : INSIDE_6
        return false if ip.ipv6? && !WORLD_6.include?(ip)

        among.none? { |range| range.include?(ip) } && !own?(address)
      rescue IPAddr::Error
        false
      end

      # This machine by another of its addresses.
      def own?(address) = Socket.ip_address_list.any? { |one| one.ip_address == address }
    end
  end
end
