# frozen_string_literal: true

require "json"
require "socket"

module Bavard
  module Start
    # Ports on loopback.
    module Ports
      TRIED = 400

      module_function

      # @return [Integer] this port or the next one that is free
      def free(first, taken: [])
        (first...(first + TRIED)).find { |port| !taken.include?(port) && free?(port) } ||
          raise(Error, "No port from #{first} to #{first + TRIED} is free.")
      end

      def free?(port, host: "127.0.0.1")
        TCPServer.new(host, port).close
        true
      rescue Errno::EADDRINUSE, Errno::EACCES
        false
      end
    end
  end
end
