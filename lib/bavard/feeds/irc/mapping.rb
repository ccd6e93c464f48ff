# frozen_string_literal: true

require "json"
require_relative "../../core/amount"
require_relative "../../core/intake"
require_relative "../../error"
require_relative "../../core/look/colour"

module Bavard
  module Feeds
    module Irc
      # Which tag of a server carries what: data of the feed, for servers differ. Each entry lists the tags to look
      # at, the first that is there counts.
      #
      #   Mapping.new("colour" => ["x/colour"]).colour({"x/colour" => "#F3B634"})   # => "#f3b634"
      class Mapping
        DEFAULT = {
          "id" => ["msgid"],
          "time" => ["time"],
          "account" => ["account"],
          "display_name" => ["+draft/display-name", "draft/display-name", "display-name"],
          "colour" => ["+draft/color", "draft/color", "color"],
          "badges" => ["+draft/badges", "draft/badges", "badges"],
          "emotes" => ["+draft/emotes", "draft/emotes", "emotes"],
          "reply" => ["+reply", "+draft/reply"],
          "first" => ["+draft/first"],
          "avatar" => ["+draft/avatar"],
          "amount" => ["+draft/amount"],
          "event" => ["+draft/event"],
          "message" => ["+draft/message"],
          "number" => ["+draft/number"],
          "emote_unit" => ["code points"],
          "emote_address" => [],
          "badge_address" => [],
          "off_topic" => ["off air"]
        }.freeze
        LABELS = {
          "id" => "Id of a line", "time" => "Time", "account" => "Account", "display_name" => "Shown name",
          "colour" => "Name colour", "badges" => "Badges", "avatar" => "Avatar’s address", "reply" => "Reply to",
          "first" => "First line of a person", "amount" => "Amount, as in 500/EUR or 300/sparks",
          "event" => "Event", "message" => "Message of an event", "number" => "Number of an event",
          "emotes" => "Emote ranges", "emote_unit" => "Ranges count bytes, UTF-16 or code points",
          "emote_address" => "Emote’s picture, its address with {id}", "badge_address" => "Badge’s picture, its address with {id}",
          "off_topic" => "Topic says when nobody is broadcasting"
        }.freeze
        # Words rather than tags.
        WORDS = %w[off_topic emote_unit emote_address badge_address].freeze
        UNITS = {"bytes" => :bytes, "utf-16" => :utf16, "utf16" => :utf16}.freeze
        # What events are called.
        EVENTS = Core::EVENTS.to_h { |what| [what.to_s, what] }.freeze
        KEY = %r{\A\+?[\w./-]{1,120}\z}
        MOST_KEYS = 8
        MOST_BADGES = 12

        # What a form says, read.
        #
        # @param given [Hash{String => String}] by entry, keys separated by spaces or commas
        # @return [Hash] document that differs from nothing in shape
        # @raise [Bavard::Error]
        def self.read(given)
          DEFAULT.to_h do |entry, default|
            text = given[entry]
            next [entry, default] if text.nil?
            next [entry, phrases(text)] if WORDS.include?(entry)

            keys = text.split(/[\s,]+/).reject(&:empty?).first(MOST_KEYS)
            wrong = keys.find { |key| !key.match?(KEY) }
            raise Error.new("“#{wrong}” cannot be a tag's name.", field: entry, value: wrong) if wrong

            [entry, keys]
          end
        end

        def self.phrases(text)
          text.split(",").map { |phrase| phrase.strip[0, 300] }.reject(&:empty?).first(MOST_KEYS)
        end
        private_class_method :phrases

        attr_reader :document

        def initialize(document = {})
          @document = DEFAULT.merge(document)
        end

        def id(tags) = first("id", tags)
        def account(tags) = first("account", tags)
        def display_name(tags) = first("display_name", tags)
        def emotes(tags) = first("emotes", tags)
        def reply(tags) = first("reply", tags)
        def avatar(tags) = first("avatar", tags)
        def message(tags) = first("message", tags)
        def first?(tags) = first("first", tags) == "1"

        # @return [Symbol, nil] one of Core::EVENTS
        def event(tags) = EVENTS[first("event", tags)]

        # @return [Integer, nil]
        def number(tags) = first("number", tags)&.slice(/\A\d{1,9}\z/)&.to_i

        # "500/EUR": minor units of a currency; "300/sparks": a unit of the platform's own.
        #
        # @return [Core::Amount, nil]
        def amount(tags)
          match = first("amount", tags)&.match(%r{\A(\d{1,15})/(.{1,40})\z}) or return
          Core::Amount.money(match[1].to_i, match[2]) || Core::Amount.own(match[1].to_i, match[2])
        end

        # @return [Symbol] what emote ranges count, as Core::Chat::Placed has it
        def emote_unit = UNITS.fetch(document["emote_unit"].first.to_s.downcase, :code_points)

        # @return [String, nil] address of that emote's picture
        def emote_address(id) = address("emote_address", id)

        # @return [Hash{String => String}, nil] addresses by badge
        def badge_pictures(badges)
          return if document["badge_address"].empty? || badges.empty?

          badges.to_h { |badge| [badge, address("badge_address", badge[%r{\A[^/]*}])] }
        end

        # @return [String, nil] "#rrggbb"
        def colour(tags)
          Core::Look::Colour.normal(first("colour", tags))
        end

        # @return [Array<String>] such as ["subscriber/12", "ringer"]
        def badges(tags)
          list = first("badges", tags)
          list ? list.split(",").first(MOST_BADGES) : NONE
        end

        TIME = /\A(\d{4}-\d\d-\d\dT\d\d:\d\d):(\d\d)(?:\.(\d{1,3})\d*)?Z\z/

        # @return [Integer, nil] Unix milliseconds (IRCv3 server-time: ISO 8601 in UTC)
        def time_ms(tags)
          parts = TIME.match(first("time", tags) || "") or return
          minute_ms(parts[1])&.+((parts[2].to_i * 1000) + (parts[3] ? parts[3].ljust(3, "0").to_i : 0))
        end

        # @param topic [String]
        # @return [Boolean] whether the channel's topic says that nobody is broadcasting
        def off?(topic)
          document["off_topic"].any? { |phrase| topic.downcase.include?(phrase.downcase) }
        end

        NONE = [].freeze

        private

        def address(entry, id)
          document[entry].first&.gsub("{id}", id)
        end

        # Most lines of a busy chat are of the same minute.
        def minute_ms(text)
          return @minute_ms if text == @minute

          @minute = text
          @minute_ms = Time.utc(*text.split(/\D/).map(&:to_i)).to_i * 1000
        rescue ArgumentError
          @minute_ms = nil
        end

        def first(entry, tags)
          document.fetch(entry).each do |key|
            value = tags[key]
            return value if value && !value.empty?
          end
          nil
        end
      end
    end
  end
end
