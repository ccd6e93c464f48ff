# frozen_string_literal: true

require_relative "../../error"
require_relative "../chat/cleaning"

module Bavard
  module Core
    module Cues
      # A fellow host: what their card says. clips:: ids of films, in the host's order
      Fellow = Struct.new(:id, :key, :name, :words, :last_shown, :followers, :picture, :clips, keyword_init: true)

      # See above.
      class Fellow
        LONGEST = {"name" => 120, "words" => 300, "last_shown" => 120}.freeze
        MOST_CLIPS = 12
        MOST_FOLLOWERS = 10**12

        # @param name [String] as somebody writes it: "@Marsh_Watch"
        # @return [String] the same for the same fellow
        def self.key(name) = Chat::Cleaning.text(name.to_s).delete_prefix("@").downcase(:fold).strip[0, LONGEST["name"]].to_s

        # @param given [Hash] name, words, last_shown, followers, as somebody typed them
        # @return [Hash] the same as a card keeps them
        # @raise [Bavard::Error]
        def self.read(given)
          read = given.slice(*LONGEST.keys).to_h { |name, text| [name.to_sym, Chat::Cleaning.text(text.to_s)[0, LONGEST[name]]] }
          raise Error.new("A fellow host has a name.", field: "name") if read[:name] && key(read[:name]).empty?

          read[:followers] = followers(given["followers"]) if given.key?("followers")
          read
        end

        def self.followers(given)
          text = given.to_s.delete("  ,.").strip
          return if text.empty?

          number = Integer(text, 10, exception: false)
          return number if number&.between?(0, MOST_FOLLOWERS)

          raise Error.new("How many follow them is a number.", field: "followers")
        end
        private_class_method :followers
      end
    end
  end
end
