# frozen_string_literal: true

require "json"
require_relative "../../error"
require_relative "../../feeds/activities"
require_relative "../../relay/topic"
require_relative "inbox_app"

module Bavard
  module Web
    # /in/<token>/live?timestamp=…&signature=…: takes activities one after another over a WebSocket, the opening of which
    # is signed: the signature is over "timestamp.live". Each message is answered: {"taken": id} or {"error": words}.
    class InboxSocket
      OPENING = "live"

      attr_reader :topic

      # @return [InboxSocket, nil] nil where nothing is taken there, or the opening is not signed
      def self.open(site, token, query)
        show, lane = site.shows.by_inbox(token)
        return unless lane&.feed&.wanted

        InboxApp::SEEN.check(lane.feed.password, query["timestamp"], query["signature"], OPENING, site.clock.call)
        new(site, show, lane)
      rescue Error => error
        site.mishaps.rejected(:inbox, error.message)
        nil
      end

      def initialize(site, show, lane)
        @site = site
        @show = show
        @lane = lane
        @topic = Relay::Topic.new("inbox:#{lane.id}", timed: false)
        @count = 0
      end

      def show_id = @show.id
      def opened(_connection) = nil
      def closed(_connection) = nil

      def heard(connection, text)
        connection.send_frame(JSON.generate(answer_to(text)))
      end

      private

      def answer_to(text)
        raise Error.new("This address is switched off just now.", field: "feed") unless @show.lanes[@lane.id].equal?(@lane) && @lane.feed.wanted

        now_ms = @site.clock.call
        @lane.connection&.heard
        intake = Feeds::Activities::Reading.read(text, @lane.id, now_ms, fallback_id: "ws:#{@topic.object_id}:#{now_ms}:#{@count += 1}")
        @show.hand_in(@lane, intake)
        {taken: intake.platform_id || intake.body}
      rescue Error => error
        @site.mishaps.rejected(:inbox, error.message)
        {error: error.message, field: error.field}
      end
    end
  end
end
