# frozen_string_literal: true

require_relative "room"

module Bavard
  module Core
    module Voice
      # Who of a room stands where in a piece, and how many more there are. Remembers the order for those orders that move,
      # so that they move calmly.
      class Places
        # seats:: of Room::Member, in their order; more:: how many are left out of it
        Seated = Struct.new(:seats, :more)
        # Whoever talked so lately keeps their place before those who are silent.
        LATELY_MS = 4000
        # By who talked last: nobody moves more often.
        CALM_MS = 1500

        def initialize
          @order = []
          @ordered_ms = nil
        end

        # @param room [Room]
        # @param piece [Hash] a voices piece
        # @param host [#call] says of a member whether they are the host
        # @return [Seated]
        def of(room, piece, now_ms, host: ->(_member) { false })
          shown = room.members.select { |member| shown?(member, piece, now_ms) }
          shown = latest(shown, piece["at_most"]) if piece["shown"] == "last"
          ordered = first(order(shown, piece, now_ms), piece, host)
          seats = fitting(ordered, piece, host, now_ms)
          Seated.new(seats, shown.size - seats.size)
        end

        private

        def shown?(member, piece, now_ms)
          case piece["shown"]
          when "talking" then member.talks?
          when "lately" then member.talks? || (!member.talked_ms.nil? && now_ms - member.talked_ms < piece["lately_s"] * 1000)
          when "last" then !member.talked_ms.nil?
          else true
          end
        end

        def latest(members, count) = members.max_by(count) { |member| [member.talked_ms, -member.number] }

        def order(members, piece, now_ms)
          case piece["order"]
          when "name" then members.sort_by { |member| [member.name.unicode_normalize(:nfkd).downcase(:fold), member.number] }
          when "talked" then by_talk(members, now_ms)
          else members.sort_by(&:number)
          end
        end

        # Whoever is new comes behind those who stand; the order itself is renewed now and then.
        def by_talk(members, now_ms)
          if @ordered_ms.nil? || now_ms - @ordered_ms >= CALM_MS
            @ordered_ms = now_ms
            @order = members.sort_by { |member| [-(member.began_ms || 0), member.number] }.map(&:key)
          end
          at = @order.each_with_index.to_h
          members.sort_by { |member| [at[member.key] || @order.size, member.number] }
        end

        def first(members, piece, host)
          return members unless piece["host_first"]

          members.partition { |member| host.call(member) }.flatten
        end

        # Those who talk take the places of those who do not; the others stay where they were.
        def fitting(members, piece, host, now_ms)
          most = piece["at_most"]
          return members if members.size <= most

          chosen = members.each_with_index.sort_by { |member, index| [rank(member, piece, host, now_ms), index] }.first(most)
          chosen.sort_by(&:last).map(&:first)
        end

        def rank(member, piece, host, now_ms)
          return 0 if piece["host_first"] && host.call(member)
          return 1 if member.talks?

          member.talked_ms && now_ms - member.talked_ms < LATELY_MS ? 2 : 3
        end
      end
    end
  end
end
