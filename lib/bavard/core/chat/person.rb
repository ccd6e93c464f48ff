# frozen_string_literal: true

require_relative "../dress/badge"

module Bavard
  module Core
    module Chat
      # Whoever wrote a line, known per feed.
      #
      # colour is the platform's "#rrggbb" for the name, or nil; badges are the platform's words for them; avatar and
      # badge_pictures (by badge) are addresses of its pictures, or nil.
      Person = Struct.new(:feed_id, :login, :display_name, :colour, :badges, :avatar, :badge_pictures) do
        # The same for every way the platform may write this login.
        def key
          @key ||= "#{feed_id}/#{Person.fold(login)}"
        end

        # @return [Array<String>] what they are; a viewer where nothing is known
        def roles = @roles ||= badges.empty? ? self.class::ONLY_VIEWER : badges.map { |badge| Dress::Badge.read(badge).kind } | [self.class::VIEWER]

        # @param name [String] what is to be seen of the name, also where the login would be
        # @return [Person]
        def called(name)
          dup.tap do |person|
            person.key
            person.display_name = name
            person.covered = true
          end
        end

        attr_accessor :covered

        # Names that differ only in case, width or composition are one name.
        # ASCII, which most logins are, needs no normalisation.
        def self.fold(name)
          return name.downcase if name.ascii_only?

          name.unicode_normalize(:nfkc).downcase(:fold)
        end
      end

      # See above.
      class Person
        VIEWER = "viewer"
        ONLY_VIEWER = [VIEWER].freeze
      end
    end
  end
end
