# frozen_string_literal: true

require_relative "bare_page"

module Bavard
  module Web
    # Where a show runs in another process, whoever stands in front asks there: as nginx is told by X-Accel-Redirect (ops/nginx/workers.conf),
    # with the same request.
    module There
      # A named location: what was sent goes on with it.
      LOCATION = "@bavard_worker"
      # How often a request was sent on, as nginx hands it over; who is sent on and on meets processes of which each knows it to be with another.
      HOPS = "HTTP_X_BAVARD_HOPS"
      MOST_HOPS = 3
      MOVING = "This show is on its way from one process to another. Try again in a moment.\n"
      UNLED = "This show runs in another process (%<address>s), and nobody in front leads there: docs/operating.md says how nginx does.\n"

      module_function

      # @param address [String] host and port
      # @return [Array] a Rack answer
      def answer(env, address)
        return BarePage.answer(env, 503, format(UNLED, address:)) unless env["bavard.by_proxy"]

        hops = env[HOPS].to_i
        return BarePage.answer(env, 503, MOVING) unless hops < MOST_HOPS

        [200, {"x-accel-redirect" => LOCATION, "x-bavard-worker" => address, "x-bavard-hops" => (hops + 1).to_s}, []]
      end
    end
  end
end
