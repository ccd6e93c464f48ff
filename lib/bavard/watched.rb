# frozen_string_literal: true

require "socket"

module Bavard
  # Tells whoever looks after this process how it is (sd_notify(3)), where somebody does.
  module Watched
    READY = "READY=1"
    GOES_ON = "WATCHDOG=1"
    STOPPING = "STOPPING=1"

    module_function

    # @param words [String]
    # @param env [Hash] as ENV
    # @return [Boolean] whether somebody was told
    def tell(words, env = ENV)
      address = env["NOTIFY_SOCKET"].to_s
      return false if address.empty?

      Socket.open(:UNIX, :DGRAM) { |socket| socket.send(words, 0, Socket.sockaddr_un(address.sub(/\A@/, "\0"))) }
      true
    rescue SystemCallError
      false # whoever looks after us sees that by itself
    end
  end
end
