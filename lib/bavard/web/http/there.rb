# frozen_string_literal: true

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
      PLAIN = {"content-type" => "text/plain; charset=utf-8", "retry-after" => "2"}.freeze

      module_function

      # @param address [String] host and port
      # @return [Array] a Rack answer
      def answer(env, address)
        return [503, PLAIN, ["This show runs in another process (#{address}), and nobody in front leads there.\n"]] unless env["bavard.by_proxy"]

        hops = env[HOPS].to_i
        return [503, PLAIN, [MOVING]] unless hops < MOST_HOPS

        [200, {"x-accel-redirect" => LOCATION, "x-bavard-worker" => address, "x-bavard-hops" => (hops + 1).to_s}, []]
      end
    end
  end
end
