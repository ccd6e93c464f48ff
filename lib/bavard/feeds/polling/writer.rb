# frozen_string_literal: true

require_relative "../../core/intake"
require_relative "../held_permission"
require_relative "client"

module Bavard
  module Feeds
    module Polling
      # Writes the host's lines into a broadcast, and says of each whether it went.
      class Writer
        # @param client [Client]
        # @param name [String] of the platform
        # @param permission [HeldPermission, nil]
        # @param tell [#call] takes each Core::Answered
        def initialize(client, name, permission, tell)
          @client = client
          @name = name
          @permission = permission
          @tell = tell
        end

        # @param letter [Outbox::Letter]
        # @param number [String, nil] of the broadcast
        # @raise [HeldPermission::Gone]
        def write(letter, number)
          reason = refusal(letter, number)
          @tell.call(Core::Answered.new(letter.answer_id, reason.nil?, reason))
        end

        private

        # @return [String, nil] why it did not go
        def refusal(letter, number)
          return "This feed reads as a guest; it has no permission to write." unless @permission&.may?("write")
          return "Nobody is broadcasting here just now." unless number

          answer = @client.post("/v1/broadcasts/#{number}/messages", {text: letter.text}, token: @permission.token)
          why(answer.status) unless answer.status == 201
        rescue Client::Unreachable, Client::Nonsense => error
          error.message
        end

        def why(status)
          case status
          when 401, 403 then "#{@name} does not let us write here."
          when 429 then "#{@name} wants to be asked less often."
          else "#{@name} did not take it (#{status})."
          end
        end
      end
    end
  end
end
