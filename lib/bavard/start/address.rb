# frozen_string_literal: true

module Bavard
  module Start
    # Where this Bavard is reached.
    module Address
      # Where it listens on every address of this machine, a browser on it takes this one.
      ON_THIS_MACHINE = {"0.0.0.0" => "127.0.0.1", "::" => "::1"}.freeze

      # @param bind [String] an address to listen on
      # @return [String] as it stands in a URL
      def self.host(bind) = bind.include?(":") ? "[#{bind}]" : bind

      # @param env [Hash] as ENV
      # @return [String] by which browsers reach it, without a slash at the end
      def self.of(env)
        given = env["BAVARD_ADDRESS"].to_s.strip.chomp("/")
        return given unless given.empty?

        bind = env.fetch("BAVARD_BIND", "127.0.0.1")
        "http://#{host(ON_THIS_MACHINE.fetch(bind, bind))}:#{env.fetch("PORT", "4600")}"
      end

      # @param env [Hash] as ENV
      # @return [Boolean] whether other computers reach it too, by a name that nobody has told it
      def self.anywhere?(env) = env["BAVARD_ADDRESS"].to_s.strip.empty? && ON_THIS_MACHINE.key?(env["BAVARD_BIND"])
    end
  end
end
