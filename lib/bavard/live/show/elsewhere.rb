# frozen_string_literal: true

module Bavard
  module Live
    # A show runs in another process: whoever asked is to ask there.
    class Elsewhere < StandardError
      attr_reader :address

      # @param address [String] host and port
      def initialize(address)
        @address = address
        super("It runs at #{address}.")
      end
    end
  end
end
