# frozen_string_literal: true

require_relative "../../core/chat/placed"
require_relative "../given"

module Bavard
  module Feeds
    module WebSocketFeed
      # What events say, in Bavard's terms. Offsets of emotes count UTF-16 code units.
      module Items
        module_function

        # @param event [Hash] as it came
        # @param history [Boolean] whether it is told again
        # @return [Core::Intake, nil] nil where it cannot be read
        def intake(event, feed_id, now_ms, history:)
          at_ms = Given.ms(event["ts"])
          case event["kind"]
          when "line" then said(event, history)&.then { |said| Core::Intake.new(:line, feed_id, Given.id(event["id"]), at_ms, now_ms, said) }
          when "gone" then Given.id(event["line"])&.then { |id| Core::Intake.new(:delete_line, feed_id, id, at_ms, now_ms, nil) }
          when "silenced" then Given.name(event["who"])&.then { |who| Core::Intake.new(:clear_person, feed_id, nil, at_ms, now_ms, who) }
          else happened(event, feed_id, at_ms, now_ms, history)
          end
        end

        # @return [Core::Profile, nil] of somebody we asked about
        def profile(message)
          login = Given.name(message["login"]) or return
          Core::Profile.new(login:, name: Given.name(message["nick"]), words: Given.text(message["about"], 300),
            last_shown: Given.text(message["showed"], 120), followers: Given.whole(message["followers"]), avatar: Given.address(message["face"]))
        end

        def happened(event, feed_id, at_ms, now_ms, history)
          what = Given.event(event["kind"]) or return
          said = said(event, history) or return
          Core::Intake.new(:event, feed_id, Given.id(event["id"]), at_ms, now_ms, Core::Happened.new(what, said, Given.whole(event["count"])))
        end

        def said(event, history)
          from = Given.object(event["from"])
          login = Given.name(from["login"]) or return
          badges = Given.list(from["badges"]).first(Given::MOST_BADGES).filter_map { |badge| Given.name(badge) }
          said = Core::Said.new(login, Given.name(from["nick"]), Given.colour(from["tint"]), badges, Given.text(event["body"]) || "",
            event["style"] == "action", history)
          said.avatar = Given.address(from["face"])
          said.badge_pictures = pictures(from["badge_pictures"])
          more(said, event)
        end

        # What only some lines have.
        def more(said, event)
          said.emotes = emotes(event["emotes"])
          said.reply = reply(event["re"])
          said.first_time = event["newcomer"] == true
          said.paid = worth(event["worth"])
          said
        end

        def emotes(given)
          ranges = Given.list(given).grep(Array).filter_map do |at, length, picture|
            range = [Given.whole(at), Given.whole(length), Given.address(picture)]
            range if range.all?
          end
          Core::Chat::Placed.new(:utf16, ranges) if ranges.any?
        end

        def reply(given)
          id, name, text = given if given.is_a?(Array)
          Core::Reply.new(Given.id(id), Given.name(name), Given.text(text, 500)) if id
        end

        def worth(given)
          number, unit = given if given.is_a?(Array)
          Core::Amount.money(number, unit) || Core::Amount.own(number, unit)
        end

        def pictures(given)
          Given.object(given).first(Given::MOST_BADGES).to_h.select { |badge, address| Given.name(badge) && Given.address(address) }
        end

        private_class_method :happened, :said, :more, :emotes, :reply, :worth, :pictures
      end
    end
  end
end
