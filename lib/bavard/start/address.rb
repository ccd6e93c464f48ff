# frozen_string_literal: true

module Bavard
  module Start
    # Where this Bavard is reached.
    module Address
      # @param bind [String] an address to listen on
      # @return [String] as it stands in a URL
      def self.host(bind) = bind.include?(":") ? "[#{bind}]" : bind

      # @param env [Hash] as ENV
      # @return [String] by which browsers reach it, without a slash at the end
      def self.of(env)
        given = env["BAVARD_ADDRESS"].to_s.strip.chomp("/")
        given.empty? ? "http://#{host(env.fetch("BAVARD_BIND", "127.0.0.1"))}:#{env.fetch("PORT", "4600")}" : given
      end
    end
  end
end
