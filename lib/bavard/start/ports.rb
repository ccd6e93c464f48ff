# frozen_string_literal: true

require "json"
require "socket"

module Bavard
  module Start
    # Ports on loopback.
    module Ports
      TRIED = 400
      # Below the ports that systems hand out to outgoing connections (32 768 on Linux, 49 152 by IANA): whoever asks such a port
      # whether somebody listens there can be connected to themselves, and then nobody else can listen.
      SPARE = 20_000..31_000

      module_function

      # @return [Integer] this port or the next one that is free
      def free(first, taken: [])
        (first...(first + TRIED)).find { |port| !taken.include?(port) && free?(port) } ||
          raise(Error, "No port from #{first} to #{first + TRIED} is free.")
      end

      # @return [Integer] one that is free, for a test or a measurement
      def spare = free(rand(SPARE))

      def free?(port, host: "127.0.0.1")
        TCPServer.new(host, port).close
        true
      rescue Errno::EADDRINUSE, Errno::EACCES
        false
      end
    end
  end
end
