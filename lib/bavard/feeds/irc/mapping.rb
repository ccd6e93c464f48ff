# frozen_string_literal: true

require "json"
require_relative "../../core/amount"
require_relative "../../core/intake"
require_relative "../../error"
require_relative "../../core/palette/colour"

module Bavard
  module Feeds
    module Irc
      # Which tag of a server carries what: data of the feed, for servers differ. Each entry lists the tags to look
      # at, the first that is there counts.
      #
      # A tag with "+" in front is set by whoever writes (IRCv3 client-only tags): it says what the writer claims, not what is.
      # It is looked at only for entries that anybody may say of themselves, as the host decided ("anybody").
      #
      #   Mapping.new("colour" => ["x/colour"]).colour({"x/colour" => "#F3B634"})   # => "#f3b634"
      class Mapping
        DEFAULT = {
          "id" => ["msgid"],
          "time" => ["time"],
          "account" => ["account"],
          "display_name" => ["draft/display-name", "display-name"],
          "colour" => ["draft/color", "color"],
          "badges" => ["draft/badges", "badges"],
          "emotes" => ["draft/emotes", "emotes"],
          "reply" => ["+reply", "+draft/reply"],
          "first" => ["draft/first"],
          "avatar" => ["draft/avatar"],
          "amount" => ["draft/amount"],
          "event" => ["draft/event"],
          "message" => ["draft/message"],
          "number" => ["draft/number"],
          "emote_unit" => ["code points"],
          "emote_address" => [],
          "badge_address" => [],
          "off_topic" => ["off air"],
          "anybody" => ["reply"]
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
        # What a wrong word would do, where anybody may say it: told before the host decides.
        DANGERS = {
          "id" => "replace and delete lines of others", "time" => "stand before or after others as they like",
          "account" => "write as anybody, you too",
          "display_name" => "be called like anybody, you too", "colour" => "choose the colour of their name",
          "badges" => "be a moderator, a subscriber or the host for every rule of the gate", "emotes" => "show any emote in their lines",
          "reply" => "answer any line", "first" => "be greeted as new", "avatar" => "show any picture you fetch", "amount" => "tip a million",
          "event" => "set off every alert", "message" => "say anything in an alert", "number" => "make an event as large as they like"
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
            next [entry, text.split(/[\s,]+/) & DANGERS.keys] if entry == "anybody"
            next [entry, phrases(text)] if WORDS.include?(entry)

            keys = text.split(/[\s,]+/).reject(&:empty?).first(MOST_KEYS)
            wrong = keys.find { |key| !key.match?(KEY) }
            raise Error.new("“#{wrong}” cannot be a tag's name.", field: entry, value: wrong) if wrong

            [entry, keys]
          end
        end

        # What a host set otherwise than it is described, so that the rest goes on following the description.
        #
        # @param document [Hash] as {.read} gives it
        # @param described [Hash{String => Array<String>}]
        # @return [Hash]
        def self.own(document, described)
          document.reject { |entry, keys| keys == described.fetch(entry) { DEFAULT.fetch(entry) } }
        end

        def self.phrases(text)
          text.split(",").map { |phrase| phrase.strip[0, 300] }.reject(&:empty?).first(MOST_KEYS)
        end
        private_class_method :phrases

        attr_reader :document

        def initialize(document = {})
          @document = DEFAULT.merge(document)
          anybody = @document["anybody"]
          @keys = DANGERS.keys.to_h { |entry| [entry, anybody.include?(entry) ? @document[entry] : @document[entry].reject { |key| claim?(key) }] }
        end

        # @return [Array<Hash>] as a page sets them: entry, label, keys; danger: what anybody could do; anybody: whether they may
        def entries
          LABELS.map do |entry, label|
            {entry:, label:, keys: document.fetch(entry).join(WORDS.include?(entry) ? ", " : " "), danger: DANGERS[entry],
             anybody: document["anybody"].include?(entry)}
          end
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
          Core::Palette::Colour.normal(first("colour", tags))
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

        # Whoever writes can set it.
        def claim?(key) = key.start_with?("+")

        def first(entry, tags)
          @keys.fetch(entry).each do |key|
            value = tags[key]
            return value if value && !value.empty?
          end
          nil
        end
      end
    end
  end
end
