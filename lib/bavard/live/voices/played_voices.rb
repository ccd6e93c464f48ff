# frozen_string_literal: true

require_relative "../../core/own_code/code_path"
require_relative "../../core/contrast/name_colour"
require_relative "../../core/contrast/names"
require_relative "../../core/stage/document"
require_relative "../../core/voice/places"
require_relative "../../core/voice/portrait"

module Bavard
  module Live
    # A piece that shows a voice room, as a document being played has it: says what the page draws, whenever that has
    # changed. Its rules are in the core; here they are put together for one piece.
    class PlayedVoices
      # Loudness is told in so many steps.
      STEPS = 10
      NOBODY = {p: []}.freeze

      attr_reader :id, :told

      # @param piece [Hash]
      # @param house [Hash] the document's house style
      # @param shared [Playout::Shared]
      def initialize(piece, house, shared)
        @shared = shared
        @places = Core::Voice::Places.new
        @portraits = Hash.new { |all, key| all[key] = Core::Voice::Portrait.new }
        play(piece, house)
      end

      def play(piece, house)
        @id = piece["id"]
        @piece = Core::Stage::Document.drawn(piece, house)
        @colours = @piece.key?("plate_opacity") && Core::Contrast::NameColour.new(ground)
        @told = nil
      end

      # @return [Boolean] whether it is drawn otherwise as somebody grows louder
      def loud?
        case @piece["kind"]
        when "voices" then @piece["sign"] == "bar"
        else @piece["kind"] == "portraits"
        end
      end

      # @return [Array<String>] of all who are in the room, as this piece writes them
      def names(voices)
        lane_id, room = voices&.room(@piece["room"])
        room ? room.members.map { |member| written(member, dressed(voices, lane_id, member)) } : []
      end

      # @return [Hash, nil] what is new to the page, or nil
      def change(voices, now_ms)
        card = card(voices, now_ms)
        return if card == @told

        @told = card
      end

      # @param voices [Voices, nil] the running show's, or a rehearsal's
      # @return [Hash] p: people; o: how many more; q: dimmed; e: words where nobody is
      def card(voices, now_ms)
        lane_id, room = voices&.room(@piece["room"])
        return alone(voices) unless room

        card = case @piece["kind"]
               when "voices" then seated(voices, lane_id, room, now_ms)
               when "portraits" then figures(voices, lane_id, room, now_ms)
               else about(room)
        end
        card[:q] = 1 if room.lost_at_ms && now_ms - room.lost_at_ms >= @piece["dims_after_s"] * 1000
        card
      end

      private

      # There is no room to show.
      def alone(voices)
        return NOBODY unless @piece["kind"] == "portraits" && voices && @piece["absent"]

        {p: [chosen(voices)].compact.map { |member| {i: member.key, n: member.short || member.name, s: member.states, w: "silent"} }}
      end

      def seated(voices, lane_id, room, now_ms)
        seated = @places.of(room, @piece, now_ms, host: ->(member) { host?(voices, lane_id, member) })
        card = {p: seated.seats.map { |member| seat(voices, lane_id, member) }}
        card[:o] = seated.more if @piece["more"] == "shown" && seated.more.positive?
        card[:e] = @piece["when_empty"] if seated.seats.empty? && !@piece["when_empty"].empty?
        card
      end

      def seat(voices, lane_id, member)
        worn = dressed(voices, lane_id, member)
        name = written(member, worn)
        seat = {i: member.key, n: name, a: (name.empty? ? member.name : name)[/\X/], c: colour(lane_id, member, worn)}
        face = worn&.face || @shared.wardrobe&.call&.picture(member.avatar)
        seat[:f] = face if face
        marks = member.marks.map(&:to_s) & @piece["marks"]
        seat[:m] = marks if marks.any?
        seat[:t] = 1 if member.talks?
        seat[:l] = steps(member) if member.talks? && loud?
        seat
      end

      def written(member, worn)
        case @piece["names"]
        when "none" then ""
        when "first" then member.name[/\S+/] || member.name
        when "own" then worn&.short || member.name
        else member.name
        end
      end

      def colour(lane_id, member, worn)
        @colours.for("#{lane_id}/#{member.key}", worn&.colour)
      end

      def figures(voices, lane_id, room, now_ms)
        people = in_row(voices, lane_id, room, now_ms)
        people = people.select { |member, _| member&.talks? } if @piece["talking_only"]
        {p: people.map { |member, worn| figure(member, worn, now_ms) }}
      end

      # @return [Array<Array(Room::Member, CastMember)>] the one that is chosen, or all who have pictures
      def in_row(voices, lane_id, room, now_ms)
        return [one_of(voices, lane_id, room)].compact unless @piece["person"].empty?

        row = {"shown" => "everyone", "order" => "fixed", "host_first" => @piece["host_first"], "at_most" => 60}
        @places.of(room, row, now_ms, host: ->(member) { host?(voices, lane_id, member) }).seats
          .filter_map { |member| (worn = dressed(voices, lane_id, member)) && worn.states.any? && [member, worn] }.first(@piece["at_most"])
      end

      def one_of(voices, lane_id, room)
        worn = chosen(voices) or return
        member = room.members.find { |one| dressed(voices, lane_id, one)&.id == worn.id }
        [member, worn] if member || @piece["absent"]
      end

      def chosen(voices) = voices.members.find { |member| member.id.to_s == @piece["person"] }

      def figure(member, worn, now_ms)
        figure = {i: worn.key, n: worn.short || worn.name, s: worn.states}
        figure[:w] = member ? @portraits[worn.key].of(member, worn.states, now_ms, least_ms: @piece["least_ms"]) : "silent"
        figure[:t] = 1 if member&.talks?
        figure[:l] = steps(member) if member&.talks? && @piece["bounce"].positive?
        figure
      end

      def steps(member) = (member.talking.loudness * STEPS).round

      def about(room)
        card = {n: room.card.name, c: room.size, w: Core::Pieces::RoomCardPiece.count_words(room.size)}
        room.card.online&.then { |online| card[:o] = Core::Pieces::RoomCardPiece.online_words(online) }
        picture = @shared.wardrobe&.call&.picture(room.card.picture)
        card[:f] = picture if picture
        link = {"room" => room.card.link, "own" => @piece["link"]}[@piece["code"]].to_s
        code = Core::OwnCode::CodePath.of(link) and card[:k] = code
        card
      end

      def host?(voices, lane_id, member)
        worn = dressed(voices, lane_id, member)
        return worn.host if worn && voices.members.any?(&:host)

        [member.name, member.key].any? { |name| @shared.host.to_s.downcase.split.first == name.downcase.split.first }
      end

      def dressed(voices, lane_id, member) = voices.worn(lane_id, member.key)

      # What names stand on.
      def ground
        covers = @piece["plate_for"] != "none" && @piece["plate_opacity"] > Core::Contrast::Names::COVERS
        covers ? @piece["plate_colour"] : Core::Contrast::Names::PICTURES.fetch(@piece["form"])
      end
    end
  end
end
