# frozen_string_literal: true

module Bavard
  module Web
    # Where a show runs in another process, whoever stands in front asks there: as nginx is told by X-Accel-Redirect (ops/nginx/workers.conf),
    # with the same request.
    module There
      # A named location: what was sent goes on with it.
      LOCATION = "@bavard_worker"
      PLAIN = {"content-type" => "text/plain; charset=utf-8", "retry-after" => "2"}.freeze

      module_function

      # @param address [String] host and port
      # @return [Array] a Rack answer
      def answer(env, address)
        return [200, {"x-accel-redirect" => LOCATION, "x-bavard-worker" => address}, []] if env["bavard.by_proxy"]

        [503, PLAIN, ["This show runs in another process (#{address}), and nobody in front leads there.\n"]]
      end
    end
  end
end
