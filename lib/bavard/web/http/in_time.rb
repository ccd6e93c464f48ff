# frozen_string_literal: true

require "puma"
require "puma/server"
require_relative "bodies"

module Bavard
  module Web # :nodoc:
    # A request is taken within a time, and no more of it than its place allows. Puma waits for each part; here all of them
    # together are waited for, and the bound of a body is that of its route.
    module InTime
      HEAD_WITHIN_S = 10
      # Whoever is slower than this is not a browser on any line.
      LEAST_BYTES_PER_S = 16 * 1024

      def reset
        @began = nil
        super
      end

      def try_to_finish
        raise Puma::ConnectionError, "a request took too long" if late?

        super.tap { @began ||= now if @buffer }
      end

      private

      def setup_body
        @http_content_length_limit = Bodies.most(@env["REQUEST_PATH"])
        @within_s = HEAD_WITHIN_S + (@http_content_length_limit / LEAST_BYTES_PER_S)
        super
      end

      def late? = !@began.nil? && now - @began > (in_data_phase ? @within_s : HEAD_WITHIN_S)
      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end

    Puma::Client.prepend(InTime)
  end
end
