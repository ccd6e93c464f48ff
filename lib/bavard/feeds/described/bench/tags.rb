# frozen_string_literal: true

require "json"
require_relative "../transports/irc_server"
require_relative "../../irc/translation"
require_relative "offers"

module Bavard
  module Feeds
    module Described
      module Bench
        # What a tag of an IRC server that nothing reads yet could carry, by what stands in it.
        module Tags
          BELOW = "tags."
          AMOUNT = %r{\A\d{1,15}/\S}
          EMOTES = %r{\A#{Irc::Translation::EMOTE}(?:/#{Irc::Translation::EMOTE})*\z}
          WHATEVER = %w[display_name account badges id message reply event].freeze

          module_function

          # @return [Array<String>] entries of {Irc::Mapping}, the likeliest first
          def of(value)
            case value.to_s
            when EMOTES then %w[emotes]
            when Offers::COLOUR then %w[colour]
            when Offers::ADDRESS then %w[avatar message]
            when Offers::ISO then %w[time message]
            when AMOUNT then %w[amount badges]
            when *Irc::Mapping::EVENTS.keys then ["event", *(WHATEVER - %w[event])]
            when "1" then %w[first number]
            when /\A\d{1,9}\z/ then %w[number id account]
            when %r{\A[\w.-]+/|,} then ["badges", *(WHATEVER - %w[badges])]
            else WHATEVER
            end
          end

          # @param document [Hash]
          # @param entry [String] of {Irc::Mapping}
          # @param path [String] of the tag, as {Unread} writes it
          # @return [Hash] in which that tag is looked at before those that carried it so far
          # @raise [Bavard::Error]
          def added(document, entry, path)
            raise Error.new("There is nothing called “#{entry}”.", field: "field") unless IrcServer::ENTRIES.include?(entry)

            tags = Given.object(document["irc"]["tags"])
            tag = path.delete_prefix(BELOW)
            tag = JSON.parse(tag) if tag.start_with?('"')
            before = tags.fetch(entry) { Irc::Mapping::DEFAULT.fetch(entry) }
            document.merge("irc" => document["irc"].merge("tags" => tags.merge(entry => [tag, *before].uniq.first(IrcServer::MOST))))
          end
        end
      end
    end
  end
end
