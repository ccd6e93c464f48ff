# frozen_string_literal: true

require_relative "../../relay/connection"

module Bavard
  module Web
    # What a relay in front tells of the pages whose lines it holds: POST /relay/heard, with what a page said, and /relay/gone. Believed from
    # a proxy of ours alone, of a page by the key that nobody else knows.
    class RelayCalls
      KEY = "HTTP_X_BAVARD_PAGE"
      LONGEST_BYTES = Relay::Connection::LARGEST_MESSAGE_BYTES
      # To a relay it says that what was said is to be told to nobody else.
      TAKEN = [204, {}, []].freeze
      NOTHING_HERE = [404, {"content-type" => "text/plain"}, ["There is nothing at this address.\n"]].freeze

      def call(env)
        hub = env["bavard.site"].hub
        return NOTHING_HERE unless env["bavard.by_proxy"] && hub.respond_to?(:follow)

        case env["PATH_INFO"]
        when "/heard" then heard(hub, env)
        when "/gone" then hub.gone(env[KEY].to_s)
        else return NOTHING_HERE
        end
        TAKEN
      end

      private

      # Too much at once is not heard: a page of ours says nothing that long.
      def heard(hub, env)
        said = env["rack.input"].read(LONGEST_BYTES + 1).to_s.force_encoding(Encoding::UTF_8)
        hub.heard(env[KEY].to_s, said) if said.bytesize <= LONGEST_BYTES && said.valid_encoding?
      end
    end
  end
end
