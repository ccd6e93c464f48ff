# frozen_string_literal: true

require_relative "../lib/bavard/core/chat/placed"
require_relative "../lib/bavard/core/intake"
require_relative "../lib/bavard/feeds/given"

module Bench
  # A parser as one would write it by hand for what Lantern sends: what reading by its description is measured against.
  module WrittenParser
    Core = Bavard::Core
    Given = Bavard::Feeds::Given
    private_constant :Core, :Given
    KINDS = {"message" => :line, "deleted" => :delete_line, "silenced" => :clear_person, "cleared" => :clear_all}.freeze

    module_function

    # @param item [Object] as it came
    # @param history [Boolean] whether it was said before we came
    # @return [Core::Intake, nil] nil where it cannot be read
    def intake(item, feed_id, now_ms, history:)
      return unless item.is_a?(Hash)

      kind = KINDS[item["type"]] || (Given.event(item["type"]) && :event) or return
      body = body(kind, item, history)
      return if body.nil? && kind != :delete_line && kind != :clear_all

      id = Given.id(item[kind == :delete_line ? "target" : "id"])
      return if id.nil? && kind == :delete_line

      Core::Intake.new(kind, feed_id, id, Given.time_ms(item["at"]), now_ms, body)
    end

    def body(kind, item, history)
      case kind
      when :line then said(item, history)
      when :event then said(item, history)&.then { |said| Core::Happened.new(Given.event(item["type"]), said, Given.whole(item["number"])) }
      when :clear_person then Given.name(Given.object(item["author"])["login"])
      end
    end

    def said(item, history)
      author = Given.object(item["author"])
      login = Given.name(author["login"]) or return
      badges = badges(author["badges"])
      said = Core::Said.new(login, Given.name(author["name"]), Given.colour(author["colour"]), badges.filter_map(&:first),
        Given.text(item["text"]) || "", item["me"] == true, history)
      said.avatar = Given.address(author["avatar"])
      said.badge_pictures = badges.select(&:all?).to_h
      more(said, item)
    end

    # What only some lines have.
    def more(said, item)
      said.emotes = emotes(item["emotes"])
      said.reply = reply(item["reply_to"])
      said.first_time = item["first"] == true
      said.paid = Core::Amount.read(item["paid"])
      said
    end

    # @return [Array] of each its words and the address of its picture
    def badges(given)
      Given.list(given).grep(Hash).first(Given::MOST_BADGES).map { |badge| [Given.name(badge["kind"]), Given.address(badge["picture"])] }
    end

    def emotes(given)
      ranges = Given.list(given).grep(Hash).filter_map do |emote|
        range = [Given.whole(emote["at"]), Given.whole(emote["length"]), Given.address(emote["picture"])]
        range if range.all?
      end
      Core::Chat::Placed.new(:code_points, ranges) if ranges.any?
    end

    def reply(given)
      return unless given.is_a?(Hash)

      Core::Reply.new(Given.id(given["id"]), Given.name(given["name"]), Given.text(given["text"], 500))
    end

    private_class_method :body, :said, :more, :badges, :emotes, :reply
  end
end
