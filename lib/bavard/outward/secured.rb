# frozen_string_literal: true

require "io/wait"
require "openssl"

module Bavard
  module Outward
    # TLS on a connection, within a time: the server shows by its certificate that it is the one that was asked for.
    module Secured
      module_function

      # @param tcp [Socket]
      # @return [OpenSSL::SSL::SSLSocket]
      def socket(tcp, host, within_s)
        tls = OpenSSL::SSL::SSLSocket.new(tcp, context)
        tls.sync_close = true
        tls.hostname = host unless host.match?(/\A[\d.]+\z|:/)
        connect(tls, within_s)
        tls.post_connection_check(host)
        tls
      rescue StandardError
        tcp.close
        raise
      end

      def context
        OpenSSL::SSL::SSLContext.new.tap { |made| made.set_params(verify_mode: OpenSSL::SSL::VERIFY_PEER, min_version: OpenSSL::SSL::TLS1_2_VERSION) }
      end

      def connect(tls, within_s)
        deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + within_s
        while (wants = tls.connect_nonblock(exception: false)).is_a?(Symbol)
          left = deadline - Process.clock_gettime(Process::CLOCK_MONOTONIC)
          raise Errno::ETIMEDOUT if left <= 0

          wants == :wait_readable ? tls.to_io.wait_readable(left) : tls.to_io.wait_writable(left)
        end
      end

      private_class_method :context, :connect
    end
  end
end
