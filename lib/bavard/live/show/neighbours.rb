# frozen_string_literal: true

require "json"
require "net/http"
require "uri"

module Bavard
  module Live
    # The other processes that share the shows, asked over HTTP for what the database cannot say: whether they reach it, and whether one that
    # has no locks any more still runs something.
    class Neighbours
      PATH = "/healthz"
      # One in the same house answers in a hundredth of that.
      WITHIN_S = 1
      # Of one that did not answer it is taken for so long that it is gone: a hundred shows of a machine that was switched off are not asked for
      # one by one.
      GONE_FOR_S = 10
      # One that goes on without locks is given so long; whoever cannot let go then has other troubles.
      LETS_GO_WITHIN_S = 10
      # More than a report needs.
      LONGEST = 64 * 1024
      REACHED = "answers"
      UNREADABLE = [SystemCallError, SocketError, IOError, Timeout::Error, Net::ProtocolError, Net::HTTPBadResponse, Net::HTTPHeaderSyntaxError,
        JSON::ParserError, URI::InvalidURIError].freeze

      # @param clock [#call] seconds that never jump
      # @param report [#call] takes an address and gives what that process says of itself, a Hash, or nil
      def initialize(clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) }, report: Neighbours.method(:report))
        @clock = clock
        @report = report
        @gone_until = {}
        @seen_without = {}
      end

      # @param addresses [Array<String>] hosts and ports
      # @return [String, nil] of one that reaches the database
      def reaching(addresses)
        asked = addresses.map { |address| [address, Thread.new { @report.call(address) }] }
        asked.find { |_, thread| thread.value&.fetch("database", nil) == REACHED }&.first
      end

      # @param address [String] of one that has no locks
      # @return [Boolean] whether shows are still to be left to it
      def runs_yet?(address)
        return false if @gone_until.fetch(address, 0) > @clock.call

        return gone(address) unless awake(@report.call(address)).positive?

        @clock.call - (@seen_without[address] ||= @clock.call) < LETS_GO_WITHIN_S
      end

      # @return [Hash, nil] what a process says of itself, well or not; nil where nobody answers in time
      def self.report(address)
        uri = URI("http://#{address}#{PATH}")
        body = Net::HTTP.start(uri.hostname, uri.port, open_timeout: WITHIN_S, read_timeout: WITHIN_S) { |http| http.get(uri.path).body }
        JSON.parse(body.to_s[0, LONGEST]).then { |said| said if said.is_a?(Hash) }
      rescue *UNREADABLE
        nil
      end

      private

      def gone(address)
        @gone_until[address] = @clock.call + GONE_FOR_S
        @seen_without.delete(address)
        false
      end

      def awake(said)
        shows = said && said["shows"]
        shows.is_a?(Hash) ? shows["awake"].to_i : 0
      end
    end
  end
end
