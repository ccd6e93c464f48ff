# frozen_string_literal: true

module Bavard
  module Web
    # The rooms of stations that have more than one, as their second row shows them.
    module Rooms
      # key:: of the page; right:: of Core::Rights, to see it
      Room = Struct.new(:key, :path, :label, :right)
      ALL = {
        "feeds" => [["feeds", "/feeds", "Chats and voices", :direct], ["describe", "/feeds/describe/", "Describe a platform", :direct]],
        "gate" => [["gate", "/gate", "Rules", :act], ["people", "/people/", "People, and what was done", :read],
          ["log", "/log/", "Everything that came in", :read]],
        "dress" => [["dress", "/dress", "Emotes and badges", :direct], ["cast", "/dress/cast/", "Cast", :direct],
          ["cues", "/dress/cues/", "Cue sheet", :direct],
          ["files", "/dress/files/", "Sounds and films", :direct], ["fellows", "/dress/fellows/", "Fellow hosts", :direct]],
        "air" => [["air", "/links", "Links and checks", :direct], ["report", "/links/report", "Report", :direct]]
      }.transform_values { |rooms| rooms.map { |room| Room.new(*room) } }.freeze

      module_function

      # @param here [String, nil] key of a page
      # @return [String, nil] the station it belongs to, where that has rooms
      def station(here) = ALL.find { |_, rooms| rooms.any? { |room| room.key == here } }&.first

      # @param here [String, nil]
      # @param visitor [Visitor]
      # @return [Array<Room>] those that may be seen; none where there is but one
      def of(here, visitor)
        rooms = ALL.fetch(station(here), []).select { |room| visitor.may?(room.right) }
        rooms.size > 1 ? rooms : []
      end

      # @param key [String] of a room
      # @param show [Live::Show] inside of its thread
      # @return [Integer, nil] how many there are of what it is about
      def figure(key, show)
        case key
        when "feeds" then show.lanes.size
        when "gate" then Core::Gate::Settings.in_force(show.record.gate)["rules"].count { |rule| rule["on"] }
        when "dress" then show.wardrobe.size
        when "cast" then show.voices.members.size
        when "cues" then show.cues.document["cues"].count { |cue| cue["on"] }
        when "fellows" then show.shout_outs.size
        when "air" then show.desks.each_value.sum { |desk| desk.screens.all.size }
        end
      end
    end
  end
end
