# frozen_string_literal: true

module Bavard
  module Web
    # The session's cookie outlives the browser's window where somebody asked for that when signing in.
    class Stay
      STAYS = "stays"
      FOR_S = 30 * 86_400

      # @param cookie [String] its name
      def initialize(app, cookie)
        @app = app
        @begins = "#{cookie}="
      end

      def call(env)
        answer = @app.call(env)
        lengthen(answer[1]) if env["rack.session"]&.[](STAYS)
        answer
      end

      private

      def lengthen(headers)
        given = headers["set-cookie"] or return
        longer = Array(given).flat_map { |lines| lines.split("\n") }.map { |line| own?(line) ? "#{line}; max-age=#{FOR_S}" : line }
        headers["set-cookie"] = longer.size == 1 ? longer.first : longer
      end

      def own?(line) = line.start_with?(@begins) && !line.match?(/max-age|expires/i)
    end
  end
end
