# frozen_string_literal: true

require "ipaddr"
require "json"
require "prometheus/client/formats/text"
require_relative "gauges"

module Bavard
  module Web
    # /healthz and /metrics, for operators.
    class Operations
      TEXT = Prometheus::Client::Formats::Text
      # Who may read metrics where nothing else is set (BAVARD_METRICS): this machine.
      HERE = %w[127.0.0.0/8 ::1].map { |network| IPAddr.new(network) }.freeze
      ELSEWHERE = [404, {"content-type" => "text/plain"}, ["There is nothing at this address.\n"]].freeze

      # @param given [String, nil] addresses and networks with spaces between them
      # @return [Array<IPAddr>]
      # @raise [Bavard::Error]
      def self.readers(given)
        given.to_s.empty? ? HERE : given.split.map { |network| IPAddr.new(network) }
      rescue IPAddr::Error
        raise Error, "BAVARD_METRICS takes addresses and networks; “#{given[0, 60]}” has one that is none."
      end

      def initialize(app)
        @app = app
      end

      def call(env)
        site = env["bavard.site"]
        case env["PATH_INFO"]
        when "/healthz", "/healthz/ready" then health(site)
        when "/healthz/live" then answer(200, ok: true)
        when "/metrics" then may_read?(site, env["REMOTE_ADDR"]) ? metrics(site) : ELSEWHERE
        else @app.call(env)
        end
      end

      private

      def answer(status, **body) = [status, {"content-type" => "application/json"}, ["#{JSON.generate(body)}\n"]]

      def may_read?(site, address)
        from = IPAddr.new(address.to_s)
        (site.metrics || HERE).any? { |network| network.include?(from) }
      rescue IPAddr::Error
        false
      end

      def metrics(site)
        [200, {"content-type" => TEXT::CONTENT_TYPE}, [TEXT.marshal(site.meters.registry), Gauges.new(site).to_s]]
      end

      # 503 where the database does not answer; where part of the log is being lost, or the disk is full, ok is false; shedding names the shows;
      # in_files names those whose log waits in files, of which nothing is lost. cut_off: whether the database is out of reach of
      # this process alone, which has let go of its shows. Whoever asks may be anybody: no addresses.
      def health(site)
        trouble = database(site)
        journal = site.journal
        shedding = journal.shedding
        ok = trouble.nil? && shedding.empty? && !site.disk.full?
        answer(trouble ? 503 : 200, ok:, database: trouble || "answers", clock_ahead_ms: site.clock.offset_ms, disk: Live::Disk::STATES.fetch(site.disk.state),
          log: {waiting: journal.waiting, in_files: journal.spilling, lost: journal.lost, shedding:},
          shows: {awake: site.shows.running.size, begun: site.shows.begun?, cut_off: !site.shows.instead.nil?})
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
