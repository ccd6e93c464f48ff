# frozen_string_literal: true

require "io/wait"
require "openssl"
require "socket"

module Bavard
  module Feeds
    # A TCP connection to a server, secured where that is wanted, within a time.
    module SocketToHost
      module_function

      # @return [Socket, OpenSSL::SSL::SSLSocket]
      def open(host, port, tls:, within_s:)
        tcp = Socket.tcp(host, port, connect_timeout: within_s, resolv_timeout: within_s)
        tcp.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
        tls ? secured(tcp, host, within_s) : tcp
      end

      def secured(tcp, host, within_s)
        context = OpenSSL::SSL::SSLContext.new
        context.set_params(verify_mode: OpenSSL::SSL::VERIFY_PEER, min_version: OpenSSL::SSL::TLS1_2_VERSION)
        tls = OpenSSL::SSL::SSLSocket.new(tcp, context)
        tls.sync_close = true
        tls.hostname = host unless host.match?(/\A[\d.]+\z|:/)
        connect_tls(tls, within_s)
        tls.post_connection_check(host)
        tls
      rescue StandardError
        tcp.close
        raise
      end

      def connect_tls(tls, within_s)
        deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + within_s
        while (wants = tls.connect_nonblock(exception: false)).is_a?(Symbol)
          left = deadline - Process.clock_gettime(Process::CLOCK_MONOTONIC)
          raise Errno::ETIMEDOUT if left <= 0

          wants == :wait_readable ? tls.to_io.wait_readable(left) : tls.to_io.wait_writable(left)
        end
      end

      private_class_method :secured, :connect_tls
    end
  end
end
