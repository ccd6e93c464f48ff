# frozen_string_literal: true

require_relative "../../feeds/activities"
require_relative "../../feeds/described"
require_relative "../../feeds/irc"
require_relative "../../feeds/microphones"
require_relative "../../feeds/voice"
require_relative "../../feeds/xmpp"

module Bavard
  module Live
    # The kinds of feeds there are, by what they are called in the database.
    FEED_KINDS = [Feeds::Irc, Feeds::Xmpp, Feeds::Activities, Feeds::Voice, Feeds::Microphones, Feeds::Described].to_h do |kind|
      [kind::KIND, kind]
    end.freeze
    # Those of which people are heard.
    ROOMS = [Feeds::Voice::KIND, Feeds::Microphones::KIND].freeze
  end
end
