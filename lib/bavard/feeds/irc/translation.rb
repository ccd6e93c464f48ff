# frozen_string_literal: true

require_relative "../../core/amount"
require_relative "../../core/chat/placed"
require_relative "../../core/intake"

module Bavard
  module Feeds
    module Irc
      # What a channel's messages say, in Bavard's terms, by the feed's mapping of tags.
      class Translation
        FORMATTING = /\u0003(?:\d{1,2}(?:,\d{1,2})?)?|\u0004(?:\h{6}(?:,\h{6})?)?|[\u0002\u000F\u0011\u0016\u001D-\u001F]/
        CTCP = /\A\u0001([A-Z]+)(?: (.*?))?\u0001?\z/m
        # "+b nick!*@*" and the like, by which people are silenced.
        SILENCING = /\A\+[bqm]*[bq]/
        EMOTE = /([\w.-]{1,80}):(\d{1,4}-\d{1,4}(?:,\d{1,4}-\d{1,4})*)/

        # @param mapping [Mapping]
        # @param members [Members]
        def initialize(mapping, members)
          @mapping = mapping
          @members = members
        end

        # @param message [Message] PRIVMSG
        # @return [Core::Said, nil] nil where it is none, such as a client's question to another
        def said(message, history)
          text = message.params[1]
          action = false
          if text.start_with?("\u0001")
            return unless (match = text.match(CTCP)) && match[1] == "ACTION"

            action = true
            text = match[2].to_s
          end
          placed = placed(message.tags, text, action ? message.params[1].index(text) : 0)
          text = text.gsub(FORMATTING, "") if placed.nil? && text.match?(FORMATTING)
          from(message, text, action, history, placed)
        end

        # @param message [Message] TAGMSG
        # @return [Core::Happened, nil] nil where it is no event that Bavard knows
        def happened(message, history)
          what = @mapping.event(message.tags) or return
          said = from(message, @mapping.message(message.tags) || "", false, history, nil)
          said.paid = @mapping.amount(message.tags)
          Core::Happened.new(what, said, @mapping.number(message.tags))
        end

        # @return [Array<String>] whose lines are to go: put out of the channel, or banned by nick; by all their names
        def silenced(message)
          nick = message.command == "KICK" ? message.params[1] : banned(*message.params[1, 2])
          nick ? [@members.login(nick), *@members.former(nick)] : []
        end

        private

        def banned(modes = nil, mask = nil, *) = modes&.match?(SILENCING) && mask ? mask[/\A([^!*?]+)!/, 1] : nil

        def from(message, text, action, history, placed)
          tags = message.tags
          # What somebody is now says nothing of who had this nick then.
          badges = history ? @mapping.badges(tags) : @mapping.badges(tags) | @members.badges(message.nick)
          Core::Said.new(login(message, history), @mapping.display_name(tags) || message.nick, @mapping.colour(tags), badges,
            text, action, history, placed, reply(tags), @mapping.first?(tags), @mapping.amount(tags), @mapping.avatar(tags),
            @mapping.badge_pictures(badges))
        end

        # By account where the server knows one. Of somebody without one it knows only what they call themselves.
        def login(message, history)
          account = @mapping.account(message.tags)
          @members.account_of(message.nick, account) if !history && (account || @members.told)
          account || (history ? @members.guest(message.nick) : @members.login(message.nick))
        end

        def reply(tags)
          id = @mapping.reply(tags)
          Core::Reply.new(id, nil, nil) if id
        end

        # "owl:0-4,6-10/egg:12-16": the emote's id, and where it stands, first and last.
        def placed(tags, text, shift)
          given = @mapping.emotes(tags) or return
          ranges = given.scan(EMOTE).flat_map do |id, places|
            address = @mapping.emote_address(id)
            places.split(",").map { |place| place.split("-").map(&:to_i).then { |from, to| [from - shift, to - from + 1, address] } }
          end
          Core::Chat::Placed.new(@mapping.emote_unit, ranges.select(&:last).reject { |from, *| from.negative? }) if text && ranges.any?
        end
      end
    end
  end
end
