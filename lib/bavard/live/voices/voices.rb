# frozen_string_literal: true

require_relative "../../core/voice/cast"
require_relative "../../core/voice/room"

module Bavard
  module Live
    # The voice rooms of a running show, and the cast in them. Belongs to its show's thread.
    class Voices
      # Pieces that go by how long ago something was look again that often.
      PULSE_MS = 500
      # As long as somebody may be shown after they talked.
      LATELY_MS = 600_000
      LARGEST_CAST = 2000
      # Of a room, on the pages of its host.
      MOST_REPORTED = 12
      LONGEST_REPORTED = 60
      MOST_IN_STRIP = 24

      attr_reader :rooms, :heard

      # @return [String] by which people are known over all rooms of one service
      def self.service(lane) = service_of(lane.feed)
      def self.service_of(feed) = feed.platform || "feed #{feed.id}"

      # @param cast [Store::Cast] whoever was never seen before joins it
      # @param journal [Journal] by which they do
      # @param mishaps [Mishaps]
      def initialize(show_id, cast, journal, mishaps)
        @show_id = show_id
        @cast = cast
        @journal = journal
        @mishaps = mishaps
        @rooms = {}
        @services = {}
        @heard = @pulse = @pulsed_ms = @dressed = 0
        self.members = cast.of_show(show_id)
      end

      # @param members [Array<Core::Voice::CastMember>] the cast, told anew
      def members=(members)
        @members = members.to_h { |member| [[member.service, member.key], member] }
        @dressed += 1
      end

      def members = @members.values

      # @param lane [FeedLane]
      # @param happening [Core::Voice::Happening]
      def receive(lane, happening, now_ms)
        room = @rooms[lane.id] ||= Core::Voice::Room.new
        @services[lane.id] ||= Voices.service(lane)
        room.receive(happening, now_ms).each { |what| @mishaps.rejected(:voice, what) }
        happening.what == :levels ? @heard += 1 : note(lane, room, happening.people, now_ms)
      end

      # The line to the service broke; what is known stays.
      def lost(lane, now_ms) = @rooms[lane.id]&.lost(now_ms)

      # The feed of a room is gone.
      def forget(lane_id)
        @dressed += 1 if @rooms.delete(lane_id)
      end

      # @return [Array] another one whenever somebody may have to be drawn otherwise, but for their loudness
      def revision = [@rooms.each_value.sum(&:changes), @rooms.size, @pulse, @dressed]

      # Who talks ends to talk, and what is shown follows.
      def advance(now_ms)
        @rooms.each_value { |room| room.advance(now_ms) }
        return if now_ms - @pulsed_ms < PULSE_MS

        @pulsed_ms = now_ms
        @pulse += 1 if @rooms.each_value.any? { |room| fading?(room, now_ms) }
      end

      # @return [Integer, nil] when {#advance} has something to do
      def due_ms
        due = @rooms.each_value.filter_map(&:due_ms).min
        pulse = @pulsed_ms + PULSE_MS if @rooms.each_value.any? { |room| fading?(room, @pulsed_ms) }
        [due, pulse].compact.min
      end

      # @param feed_id [String] of a piece; empty: the first room there is
      # @return [Array(Integer, Core::Voice::Room), nil]
      def room(feed_id)
        feed_id.empty? ? @rooms.min_by(&:first) : @rooms.assoc(feed_id.to_i)
      end

      # @return [Array<Hash>] all rooms for the prompter: who is there, who talks
      def strip
        return @strip if @strip_of == (changes = [@rooms.each_value.sum(&:changes), @rooms.size, @dressed])

        @strip_of = changes
        @strip = @rooms.map do |lane_id, room|
          people = room.members.sort_by { |member| member.talks? ? 0 : 1 }.first(MOST_IN_STRIP).sort_by(&:number)
          {name: room.card.name, lost: !room.lost_at_ms.nil?, more: room.size - people.size,
           people: people.map { |member| [worn(lane_id, member.key)&.short || member.name, member.talks?, member.marks] }}
        end
      end

      # @return [Hash, nil] a room for the host's own pages: its name and who is in it
      def report(lane_id)
        room = @rooms[lane_id] or return
        {name: room.card.name, people: room.members.first(MOST_REPORTED).map { |member| cut(member.name) }, count: room.size}
      end

      # @param lane_id [Integer] of whose room it is
      # @return [Core::Voice::CastMember, nil]
      def worn(lane_id, key) = @members[[@services[lane_id], key]]

      private

      def cut(name) = name.length > LONGEST_REPORTED ? "#{name[0, LONGEST_REPORTED - 1]}…" : name

      def fading?(room, now_ms)
        room.lost_at_ms || room.members.any? { |member| member.talked_ms && now_ms - member.talked_ms < LATELY_MS }
      end

      # Whoever was never seen before joins the cast.
      def note(lane, room, people, now_ms)
        service = @services[lane.id]
        people.each do |person|
          member = room[person.key] or next
          known = @members[[service, person.key]]
          next if known ? known.name == member.name : @members.size >= LARGEST_CAST

          remember(service, member, known, now_ms)
        end
      end

      def remember(service, member, known, now_ms)
        if known
          known.name = member.name
        else
          @members[[service, member.key]] = Core::Voice::CastMember.new(service:, key: member.key, name: member.name, states: {}, seen_at_ms: now_ms)
        end
        key = member.key
        name = member.name
        @journal.later { @cast.seen(@show_id, service, key, name, now_ms) }
      end
    end
  end
end
