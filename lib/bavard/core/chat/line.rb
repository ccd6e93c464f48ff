# frozen_string_literal: true

require_relative "../intake"
require_relative "fragments"
require_relative "person"

module Bavard
  module Core
    module Chat
      # One chat message, after it has been made alike for all feeds.
      #
      # id:: ours: an Integer that grows with arrival and stays below 2**53
      # origin:: :feed, :rehearsal or :test
      # shown_at_ms:: from when it counts as standing: arrival, or for history the platform's own time
      Line = Struct.new(:id, :feed_id, :platform_id, :person, :kind, :text, :fragments, :arrived_at_ms, :platform_time_ms,
        :shown_at_ms, :origin)

      # See above.
      class Line
        # Longest text taken in, in code points; no platform we can read sends more in one line.
        LONGEST = 8191
        # Controls that draw nothing and are not part of any script or emoji; tab becomes a space.
        UNPRINTED = /[\u0000-\u001F\u007F-\u009F\u2028\u2029\uFFF9-\uFFFB]/

        # @param intake [Intake] of kind :line
        # @param id [Integer]
        # @return [Line]
        def self.from(intake, id:, origin: :feed)
          said = intake.body
          text = clean(said.text)
          login = clean(said.login)
          shown_name = clean(said.display_name || said.login)
          shown_name = login if shown_name.empty?
          person = Person.new(intake.feed_id, login, shown_name, said.colour, said.badges)
          new(id, intake.feed_id, intake.platform_id, person, said.action ? :action : :said, text, Fragments.cut(text),
            intake.arrived_at_ms, intake.platform_time_ms, standing_from(intake), origin)
        end

        def self.clean(text)
          text = text.tr("\t", " ")
          text = text.gsub(UNPRINTED, "") if text.match?(UNPRINTED)
          text = text[0, LONGEST] if text.length > LONGEST
          text.strip
        end

        def self.standing_from(intake)
          return intake.arrived_at_ms unless intake.history? && intake.platform_time_ms

          [intake.platform_time_ms, intake.arrived_at_ms].min
        end

        private_class_method :clean, :standing_from
      end
    end
  end
end
