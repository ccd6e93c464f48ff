# frozen_string_literal: true

require "cgi"
require "json"
require_relative "../../error"
require_relative "../given"

module Bavard
  module Feeds
    module Activities
      # What an activity says (ActivityStreams 2.0, Activity Vocabulary), in Bavard's terms.
      #
      # Create of a Note is a line; Delete takes it away; Block silences a person; Follow, Join (subscription), Offer (tip
      # where it has an amount, else a gift) and Arrive (visit) are events. "bavard:event" names any of Bavard's events,
      # "bavard:amount" and "bavard:number" say what it was worth and how many.
      class Reading
        EVENTS = {"Follow" => :follow, "Join" => :subscription, "Offer" => :gift, "Arrive" => :visit}.freeze
        NOTES = %w[Note Article].freeze
        KNOWN = (%w[Create Delete Block] + EVENTS.keys).freeze
        TAG = /<[^<>]{0,2000}>/
        BREAK = %r{<(?:br|/p)\s*/?>}i
        # When it is dated longer ago than this, it is something of the past told again.
        HISTORY_AFTER_MS = 120_000

        # @param body [String] JSON
        # @param fallback_id [String] stands in for an id where the activity has none
        # @return [Core::Intake]
        # @raise [Bavard::Error] saying what is missing
        def self.read(body, feed_id, now_ms, fallback_id:)
          given = Given.json(body)
          raise Error.new("An activity is an object.", field: "body") unless given.is_a?(Hash)

          new(given, feed_id, now_ms, fallback_id).intake
        rescue JSON::ParserError
          raise Error.new("That is not JSON.", field: "body")
        end

        def initialize(activity, feed_id, now_ms, fallback_id)
          @activity = activity
          @object = activity["object"].is_a?(Hash) ? activity["object"] : {}
          @feed_id = feed_id
          @now_ms = now_ms
          @fallback_id = fallback_id
        end

        def intake
          return event(named_event) if @activity.key?("bavard:event")

          case @activity["type"]
          when "Create" then line
          when "Delete" then make(:delete_line, Given.id(@activity["object"]) || deleted_id, nil)
          when "Block" then make(:clear_person, nil, login(@activity["object"]) || refuse("A Block names whom it blocks as its object.", "object"))
          when *EVENTS.keys then event(kind_of_event)
          else refuse("An activity's type is one of #{KNOWN.join(", ")}.", "type")
          end
        end

        private

        def line
          refuse("A Create has a Note as its object.", "object") unless NOTES.include?(@object["type"])
          make(:line, note_id || Given.id(@activity["id"]) || @fallback_id, said(@object, text(@object)))
        end

        def event(what)
          message = text(@object["type"] == "Note" ? @object : @activity)
          happened = Core::Happened.new(what, said(@activity, message), Given.whole(@activity["bavard:number"]))
          make(:event, Given.id(@activity["id"]) || @fallback_id, happened)
        end

        def named_event
          Given.event(@activity["bavard:event"]) || refuse("bavard:event is one of #{Core::EVENTS.join(", ")}.", "bavard:event")
        end

        def kind_of_event
          @activity["type"] == "Offer" && amount ? :tip : EVENTS.fetch(@activity["type"])
        end

        def said(source, text)
          actor = @activity["actor"] || @object["attributedTo"]
          who = login(actor) || refuse("An activity names its actor.", "actor")
          actor = Given.object(actor)
          Core::Said.new(who, Given.name(actor["name"]), Given.colour(actor["bavard:colour"]), badges(actor), text, source["bavard:action"] == true,
            history?, nil, reply(source["inReplyTo"]), source["bavard:first"] == true, amount, Given.address(picture(actor)))
        end

        def login(actor)
          return Given.name(actor) if actor.is_a?(String)

          actor = Given.object(actor)
          Given.name(actor["preferredUsername"]) || Given.name(actor["name"]) || Given.name(actor["id"])
        end

        def picture(actor)
          icon = actor["icon"].is_a?(Array) ? actor["icon"].first : actor["icon"]
          icon.is_a?(Hash) ? icon["url"] : icon
        end

        def badges(actor)
          Given.list(actor["bavard:badges"]).first(Given::MOST_BADGES).filter_map { |badge| Given.name(badge) }
        end

        # Content is HTML unless it says otherwise; what is left of it is words.
        def text(source)
          content = Given.text(source["content"] || source["summary"]) || ""
          return content if source["mediaType"] == "text/plain"

          CGI.unescapeHTML(content.gsub(BREAK, " ").gsub(TAG, "")).strip
        end

        def reply(given)
          return if given.nil?
          return Core::Reply.new(Given.id(given), nil, nil) unless given.is_a?(Hash)

          Core::Reply.new(Given.id(given["id"]), login(given["attributedTo"]), text(given)[0, 500])
        end

        def amount = Core::Amount.read(@activity["bavard:amount"] || @object["bavard:amount"])
        def note_id = Given.id(@object["id"])
        def deleted_id = note_id || refuse("A Delete names what it deletes as its object.", "object")
        def at_ms = Given.time_ms(@activity["published"] || @object["published"])
        def history? = at_ms ? @now_ms - at_ms > HISTORY_AFTER_MS : false

        def make(kind, id, body)
          Core::Intake.new(kind, @feed_id, id, at_ms, @now_ms, body)
        end

        def refuse(words, field)
          raise Error.new(words, field:)
        end
      end
    end
  end
end
