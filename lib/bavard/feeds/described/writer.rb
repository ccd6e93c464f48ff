# frozen_string_literal: true

require_relative "../held_permission"
require_relative "clients"

module Bavard
  module Feeds
    module Described
      # Sends the host's lines to a described platform over HTTP, and says of each whether it went.
      class Writer
        # @param description [Description]
        # @param permission [HeldPermission, nil]
        # @param clients [Clients]
        # @param tell [#call] takes each Core::Answered
        def initialize(description, permission, clients, tell)
          @description = description
          @permission = permission
          @clients = clients
          @tell = tell
        end

        # @param letter [Outbox::Letter]
        # @param kept [Hash{String => Object}] what is known by now
        def write(letter, kept)
          reason = refusal(letter, kept)
          @tell.call(Core::Answered.new(letter.answer_id, reason.nil?, reason))
        end

        private

        # @return [String, nil] why it did not go
        def refusal(letter, kept)
          writes = @description.transport.writes or return "Nobody described how to write there."
          return "This feed reads as a guest; it has no permission to write." unless @permission&.may?("write")

          why(@clients.ask(writes, {**kept, "text" => letter.text, "nonce" => letter.answer_id.to_s}).status)
        rescue HttpClient::Unreachable, HttpClient::Nonsense => error
          error.message
        rescue HeldPermission::Gone
          "The permission has ended."
        end

        def why(status)
          case status
          when 200..299 then nil
          when 401, 403 then "#{@description.name} does not let us write here."
          when 429 then "#{@description.name} wants to be asked less often."
          else "#{@description.name} did not take it (#{status})."
          end
        end
      end
    end
  end
end
