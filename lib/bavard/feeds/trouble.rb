# frozen_string_literal: true

require "openssl"
require "socket"
require "timeout"

module Bavard
  module Feeds
    # What went wrong on the way to a server, in words.
    module Trouble
      # Everything that a connection can fail by.
      NETWORK = [SystemCallError, SocketError, IOError, OpenSSL::SSL::SSLError, Timeout::Error].freeze

      BROKEN = "The line broke."

      module_function

      # @param error [StandardError] one of NETWORK
      # @return [String]
      def words(error, host, port, within_s:)
        case error
        when Errno::ECONNREFUSED then "Nothing answers at #{host}, port #{port}."
        when Errno::ETIMEDOUT, Timeout::Error then "#{host} did not answer within #{within_s} s."
        when Errno::EHOSTUNREACH, Errno::ENETUNREACH then "There is no way to #{host} from here just now."
        when SocketError then "There is no server called #{host}, or the name cannot be looked up just now."
        when OpenSSL::SSL::SSLError then "The secure connection failed: #{error.message[/[^:]*\z/].strip}"
        else BROKEN
        end
      end
    end
  end
end
