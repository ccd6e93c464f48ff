# frozen_string_literal: true

require_relative "settings"

module Bavard
  module Core
    module Cues
      # How many there are in all, besides what Bavard counted itself: what the host typed, and what each platform told of its chat. Each
      # gives the parts of the cue sheet's document that are another one now.
      module Totals
        # What of a chat's address may be another one tomorrow.
        PASSING = %w[number nick].freeze

        module_function

        # @param kind [String] the platform's key, or the kind of feed
        # @param address [Hash] where it is
        # @param each_time [Array<String>] names of what every broadcast has another one of
        # @return [String] the same for the same chat, also where it was taken away and connected anew, and whichever number its broadcast
        #   has today
        def place(kind, address, each_time = [])
          [kind, *address.except(*PASSING, *each_time).values.compact].join("/")[0, Settings::LONGEST_PLACE]
        end

        # What was there already, besides what Bavard counted. What the host typed is of no certain chat.
        #
        # @param document [Hash] of the cue sheet
        # @param places [Array<String>, nil] of chats; nil: all there are
        # @return [Integer]
        def there(document, counted, places = nil)
          told = places ? document["told"].values_at(*places.uniq).compact : document["told"].each_value
          told.sum { |one| one.fetch(counted, 0) } + (places ? 0 : document["totals"].fetch(counted, 0))
        end

        # The host says how many there are now.
        #
        # @param number [Integer] in all
        # @param present [Integer] how many there are by what was known until now
        # @return [Hash]
        def typed(document, counted, number, present:)
          typed = document["totals"]
          {"totals" => typed.merge(counted => typed.fetch(counted, 0) + number - present)}
        end

        # A platform says how many there are of a chat in all. What was typed before stood for them as well.
        #
        # @param told [Hash{String => Integer}] in all, by what is counted
        # @param come [Hash{String => Integer}] how many of them Bavard counted itself
        # @return [Hash, nil] nil: nothing is otherwise
        def from_platform(document, place, told, come)
          before = document["told"].fetch(place, {})
          now = before.merge(told.to_h { |counted, number| [counted, number - come.fetch(counted)] })
          return if now == before

          typed = document["totals"].to_h { |counted, number| [counted, before.key?(counted) ? number : [number - now.fetch(counted, 0), 0].max] }
          {"told" => document["told"].merge(place => now), "totals" => typed}
        end
      end
    end
  end
end
