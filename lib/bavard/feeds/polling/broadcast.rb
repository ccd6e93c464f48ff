# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Feeds
    module Polling
      # Which broadcast is read: by its number, which is another one each day, or found by the name of its channel.
      Broadcast = Struct.new(:number, :channel)

      # See above.
      class Broadcast
        NUMBER = /\A\d{4}-?\d{4}\z/
        NAME = /\A[a-z0-9][\w-]{0,59}\z/
        # The same somewhere in an address.
        IN_ADDRESS = /(?<![\d-])(\d{4})-?(\d{4})(?![\d-])/

        # @param text [String] "7741-0392", "77410392", or an address that holds it
        # @return [String, nil] "7741-0392"; nil where nothing is given
        # @raise [Bavard::Error]
        def self.number(text)
          text = text.strip
          return if text.empty?
          return wrong(text) unless text.match?(NUMBER) || text.match?(%r{\A\S+[/=?&]\S*\z})

          match = text.match(IN_ADDRESS) or return wrong(text)
          "#{match[1]}-#{match[2]}"
        end

        # @return [Boolean] whether it is the name of a channel, and no number
        def self.name?(text) = text.strip.delete_prefix("@").downcase.match?(NAME) && !text.strip.match?(NUMBER)

        # @return [String, nil]
        # @raise [Bavard::Error]
        def self.channel(text)
          name = text.strip.delete_prefix("@").downcase
          return if name.empty?
          return name if name.match?(NAME)

          raise Error.new("“#{text[0, 60]}” cannot be a channel's name.", field: "channel", value: text)
        end

        def self.wrong(text)
          raise Error.new("“#{text[0, 60]}” holds no broadcast's number; one looks like 7741-0392.", field: "number", value: text)
        end
        private_class_method :wrong
      end
    end
  end
end
