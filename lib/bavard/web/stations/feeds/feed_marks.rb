# frozen_string_literal: true

module Bavard
  module Web
    # Feeds are told apart by shape and colour together.
    module FeedMarks
      ALL = [
        ["circle", "#5fb8d6"], ["diamond", "#e58fb0"], ["triangle", "#63c58a"], ["square", "#f3b634"],
        ["drop", "#b79cf0"], ["hexagon", "#ea9a85"], ["ring", "#a8c46a"], ["cross", "#d9c8a0"]
      ].freeze

      module_function

      # @param feeds [Array<Store::Feeds::Feed>] that are there already
      # @return [Array(String, String)] the first that none of them has
      def next(feeds)
        taken = feeds.map { |feed| [feed.shape, feed.colour] }
        ALL.find { |mark| !taken.include?(mark) } || ALL[feeds.size % ALL.size]
      end
    end
  end
end
