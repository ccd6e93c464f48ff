# frozen_string_literal: true

require "json"
require "prometheus/client/formats/text"

module Bavard
  module Web
    # /healthz and /metrics, for operators.
    class Operations
      TEXT = Prometheus::Client::Formats::Text

      def initialize(app)
        @app = app
      end

      def call(env)
        case env["PATH_INFO"]
        when "/healthz" then health(env["bavard.site"])
        when "/metrics" then [200, {"content-type" => TEXT::CONTENT_TYPE}, [TEXT.marshal(env["bavard.site"].meters.registry)]]
        else @app.call(env)
        end
      end

      private

      # 503 where the database does not answer; where part of the log is being lost, ok is false, and shedding names the shows; in_files
      # names those whose log waits in files, of which nothing is lost.
      def health(site)
        trouble = database(site)
        journal = site.journal
        shedding = journal.shedding
        body = {ok: trouble.nil? && shedding.empty?, database: trouble || "answers",
                clock_ahead_ms: site.clock.offset_ms,
                log: {waiting: journal.waiting, in_files: journal.spilling, lost: journal.lost, shedding:}}
        [trouble ? 503 : 200, {"content-type" => "application/json"}, ["#{JSON.generate(body)}\n"]]
      end

      def database(site)
        site.db.get(1)
        nil
      rescue Sequel::Error => error
        error.message.lines.first.to_s.strip
      end
    end
  end
end
