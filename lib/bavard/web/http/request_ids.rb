# frozen_string_literal: true

require "securerandom"
require "semantic_logger"

module Bavard
  module Web
    # Each request has a word of its own, by which what the log says of it is found: the proxy's (X-Request-Id), where it is one, or ours.
    class RequestIds
      NAME = "x-request-id"
      GIVEN = /\A[\w.-]{8,64}\z/

      def initialize(app)
        @app = app
      end

      def call(env)
        id = env["HTTP_X_REQUEST_ID"].to_s.scrub("")[GIVEN] || SecureRandom.hex(8)
        SemanticLogger.named_tagged(request: id) do
          status, headers, body = @app.call(env)
          [status, status.positive? ? headers.merge(NAME => id) : headers, body]
        end
      end
    end
  end
end
