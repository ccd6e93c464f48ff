# frozen_string_literal: true

require_relative "../../feeds/activities"
require_relative "../../feeds/irc"
require_relative "../../feeds/polling"
require_relative "../../feeds/socket"
require_relative "../../feeds/voice"

module Bavard
  module Live
    # The kinds of feeds there are, by what they are called in the database.
    FEED_KINDS = [Feeds::Irc, Feeds::Polling, Feeds::WebSocketFeed, Feeds::Activities, Feeds::Voice].to_h { |kind| [kind::KIND, kind] }.freeze
  end
end
