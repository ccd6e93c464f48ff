# frozen_string_literal: true

module Bavard
  module Web
    # The rooms of stations that have more than one, as their second row shows them.
    module Rooms
      # key:: of the page; right:: of Core::Rights, to see it; counted:: what its figure counts, or nil
      Room = Struct.new(:key, :path, :label, :right, :counted)
      ALL = {
        "feeds" => [["feeds", "/feeds", "Chats and voices", :direct, "connected"], ["describe", "/feeds/describe/", "Describe a platform", :direct]],
        "gate" => [["gate", "/gate", "Rules", :act, "in force"], ["people", "/people/", "People, and what was done", :read],
          ["log", "/log/", "Everything that came in", :read]],
        "dress" => [["dress", "/dress", "Emotes and badges", :direct, "emotes"], ["cast", "/dress/cast/", "Cast", :direct, "people"],
          ["cues", "/dress/cues/", "Cue sheet", :direct, "cues in force"], ["files", "/dress/files/", "Sounds and films", :direct, "files"],
          ["fellows", "/dress/fellows/", "Fellow hosts", :direct, "hosts"]],
        "air" => [["air", "/links", "Links and checks", :direct, "screens"], ["report", "/links/report", "Report", :direct]]
      }.transform_values { |rooms| rooms.map { |room| Room.new(*room) } }.freeze

      module_function

      # @param here [String, nil] key of a page
      # @return [String, nil] the station it belongs to, where that has rooms
      def station(here) = ALL.find { |_, rooms| rooms.any? { |room| room.key == here } }&.first

      # @param here [String, nil] key of a page
      # @return [String, nil] what the room is called
      def label(here) = ALL.values.flatten.find { |room| room.key == here }&.label

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
