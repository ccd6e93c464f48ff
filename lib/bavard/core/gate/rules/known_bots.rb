# frozen_string_literal: true

require_relative "../lists"
require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Programs that write into chats: by the house's list, by the host's, and by the platform's own badge.
      class KnownBots < RuleKind
        KEY = "known_bots"
        LABEL = "Known bots"
        ICON = "bot"
        ABOUT = "Programs that write into chats."
        ACTIONS = %i[drop hold].freeze
        MOST_NAMES = 5000
        OWN = [
          Fields::Property.switch("kept_list", "the house’s list of bots", true),
          Fields::Property.switch("badge", "whoever the platform calls a bot", true),
          Fields::Property.lines("names", "your own, one a line", 60_000)
        ].freeze

        def look(sight, _memory)
          return one(sight.person.display_name, "the platform calls it a bot") if @badge && sight.roles.include?("bot")

          entry = @bots.find(sight.person, sight.at_ms)
          entry && one(sight.person.display_name, "on the list of bots")
        end

        def words
          kept = "#{Lists.bots.size} names kept by the house" if settings["kept_list"]
          [kept, "#{own.size} of yours"].compact.join(", ")
        end

        private

        def prepare
          @badge = settings["badge"]
          @bots = LeftOut.new(((settings["kept_list"] ? Lists.bots : []) + own).map { |name| LeftOut::Entry.new(name) })
        end

        def own = @own ||= Lists.lines(settings["names"], most: MOST_NAMES, field: "names")
      end
    end
  end
end
