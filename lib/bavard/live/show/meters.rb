# frozen_string_literal: true

require "prometheus/client"

module Bavard
  module Live
    # Figures for operators, in Prometheus' way.
    class Meters
      SENT_S = [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10].freeze

      attr_reader :registry

      def initialize
        @registry = Prometheus::Client::Registry.new
        @lines = counter(:bavard_lines_total, "Lines that came in, by what the gate did with them", [:action])
        @rejected = counter(:bavard_rejected_total, "What came in and could not be read, by where it came in", [:source])
        @faults = counter(:bavard_faults_total, "Faults of ours that were caught, by where", [:place])
        @pulls = counter(:bavard_pulls_total, "Lines that somebody took away, by show", [:show])
        @sent = @registry.histogram(:bavard_arrival_to_sent_seconds, labels: [:show], buckets: SENT_S,
          docstring: "From a line's arrival to its way to the screens, where nothing held it, by show")
        @shed = counter(:bavard_log_shed_total, "What came in and was not written to the log, for want of room", [])
      end

      def shed = @shed.increment
      def line(action) = @lines.increment(labels: {action: action.to_s})
      def pulled(show_id) = @pulls.increment(labels: {show: show_id.to_s})

      # @param milliseconds [Integer]
      def sent_after(show_id, milliseconds) = @sent.observe(milliseconds.clamp(0..) / 1000.0, labels: {show: show_id.to_s})

      def rejected(source) = @rejected.increment(labels: {source: source.to_s})
      def fault(place) = @faults.increment(labels: {place: place.to_s})

      # @return [Float] how much was rejected at a source
      def rejected_count(source) = @rejected.get(labels: {source: source.to_s})

      private

      def counter(name, words, labels)
        @registry.counter(name, docstring: words, labels:)
      end
    end
  end
end
