# frozen_string_literal: true

require_relative "../dress/badge"

module Bavard
  module Core
    module Chat
      # Whoever wrote a line, known per feed.
      #
      # colour is the platform's "#rrggbb" for the name, or nil; badges are the platform's words for them; avatar and
      # badge_pictures (by badge) are addresses of its pictures, or nil.
      class Person
        VIEWER = "viewer"
        HOST = "host"
        ONLY_VIEWER = [VIEWER].freeze
        # How somebody is called of whom nothing is kept any more; nobody has their login, which is empty.
        ERASED = "erased"

        attr_reader :feed_id, :login, :display_name, :colour, :badges, :avatar, :badge_pictures
        # @return [Boolean, nil] whether the gate covers something of the name
        attr_reader :covered

        def initialize(feed_id, login, display_name, colour = nil, badges = [], avatar: nil, badge_pictures: nil)
          @feed_id = feed_id
          @login = login
          @display_name = display_name
          @colour = colour
          @badges = badges
          @avatar = avatar
          @badge_pictures = badge_pictures
        end

        def ==(other) = other.is_a?(Person) && values == other.values
        alias eql? ==
        def hash = values.hash

        # The same for every way the platform may write this login.
        def key
          @key ||= "#{feed_id}/#{Person.fold(login)}"
        end

        # @return [Array<String>] what they are; a viewer where nothing is known
        def roles = @roles ||= badges.empty? ? ONLY_VIEWER : badges.map { |badge| Dress::Badge.read(badge).kind } | [VIEWER]

        # @param account [String] with which the host is signed in on that platform
        # @return [Person] with the host's role, if it is theirs; what is drawn beside the name is the platform's
        def signed_in(account)
          return self if roles.include?(HOST) || Person.fold(login) != Person.fold(account)

          dup.tap { |person| person.be([HOST, *roles]) }
        end

        # @param name [String] what is to be seen of the name, also where the login would be
        # @return [Person]
        def called(name)
          key
          dup.tap { |person| person.cover(name) }
        end

        # @return [Person] nobody, who wrote there
        def erased = Person.new(feed_id, "", ERASED)

        # Names that differ only in case, width or composition are one name.
        # ASCII, which most logins are, needs no normalisation.
        def self.fold(name)
          return name.downcase if name.ascii_only?

          name.unicode_normalize(:nfkc).downcase(:fold)
        end

        protected

        def values = [feed_id, login, display_name, colour, badges, avatar, badge_pictures]

        def be(roles) = @roles = roles

        def cover(name)
          @display_name = name
          @covered = true
        end
      end
    end
  end
end
