# frozen_string_literal: true

require "json"
require_relative "../core/chat/event_words"
require_relative "document"

module Bavard
  module Exports
    # As an OrderedCollection of activities, which can be sent to an address of one's own again (ActivityStreams 2.0).
    class ActivityStreams
      NAME = "log.activities.json"
      TYPE = "application/activity+json"
      CONTEXT = ["https://www.w3.org/ns/activitystreams", {"bavard" => "urn:bavard:"}].freeze
      EVENTS = {
        follow: "Follow", subscription: "Join", renewal: "Join", gift: "Offer", tip: "Offer", purchase: "Offer", visit: "Arrive", cause: "Offer"
      }.freeze

      def initialize(feeds) = @feeds = feeds
      def head = %({"@context":#{JSON.generate(CONTEXT)},"type":"OrderedCollection","orderedItems":[)
      def foot = "]}\n"

      def entry(entry)
        comma = @begun ? "," : ""
        @begun = true
        "#{comma}\n#{JSON.generate(activity(entry.line).compact)}"
      end

      private

      def activity(line)
        common = {"published" => Document.time(line.platform_time_ms || line.arrived_at_ms), "actor" => actor(line.person),
                  "bavard:amount" => line.paid&.document, "bavard:number" => line.number, "context" => @feeds.dig(line.feed_id, :name)}
        common.merge(line.event? ? event(line) : {"type" => "Create", "object" => note(line)})
      end

      def event(line)
        {"id" => id(line), "type" => EVENTS.fetch(line.kind, "Create"), "bavard:event" => line.kind.to_s,
         "object" => {"type" => "Note", "mediaType" => "text/plain", "content" => line.text}, "summary" => Core::Chat::EventWords.of(line)}
      end

      def note(line)
        {"type" => "Note", "id" => id(line), "mediaType" => "text/plain", "content" => line.text, "inReplyTo" => line.reply&.platform_id,
         "bavard:action" => line.kind == :action ? true : nil, "bavard:first" => line.first_time || nil}.compact
      end

      def id(line) = line.platform_id || "urn:bavard:line:#{line.id}"

      def actor(person)
        {"type" => "Person", "preferredUsername" => person.login, "name" => person.display_name, "bavard:colour" => person.colour,
         "icon" => person.avatar && {"type" => "Image", "url" => person.avatar},
         "bavard:badges" => person.badges.empty? ? nil : person.badges}.compact
      end
    end
  end
end
