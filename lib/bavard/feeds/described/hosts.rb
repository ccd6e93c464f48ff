# frozen_string_literal: true

require "uri"

module Bavard
  module Feeds
    module Described
      # Where a platform stands: its own address, and others that it may be reached at besides.
      class Hosts
        MOST = 12

        # @return [URI::HTTP, nil]
        attr_reader :base

        # @param base [Object] as a description has it
        # @param others [Object]
        # @param needed [Boolean] whether it cannot do without an address of its own
        # @yieldparam at [String] the place of what is wrong
        # @yieldparam words [String]
        def initialize(base, others, needed:, &problem)
          @problem = problem
          @base = address(base, "/base") if needed
          fine = others.is_a?(Array) && others.size <= MOST
          @problem.call("/hosts", "a list of addresses, at most #{MOST}") unless fine
          @others = fine ? others.each_with_index.filter_map { |one, at| address(one, "/hosts/#{at}") } : []
        end

        # @return [Array<String>] hosts and ports
        def authorities = [base, *@others].compact.map { |uri| "#{uri.host}:#{uri.port}" }

        private

        def address(given, at)
          uri = URI(given.to_s)
          return uri if uri.is_a?(URI::HTTP) && uri.host && !uri.userinfo && ["", "/"].include?(uri.path) && uri.query.nil?

          @problem.call(at, "an address such as https://chat.example, without a path")
          nil
        rescue URI::InvalidURIError
          @problem.call(at, "“#{given.to_s[0, 60]}” is no address")
          nil
        end
      end
    end
  end
end
