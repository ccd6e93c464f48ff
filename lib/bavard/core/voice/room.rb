# frozen_string_literal: true

require_relative "../chat/cleaning"
require_relative "talking"

module Bavard
  module Core
    module Voice
      # What a service says of one person in a room. Fields that it says nothing about are nil.
      # key:: theirs, which stays when the name changes; avatar:: an address or nil; marks:: of MARKS, those that hold
      Person = Struct.new(:key, :name, :avatar, :marks)
      MARKS = %i[muted deafened away sharing].freeze

      # What happens in a room, as an adapter tells it: the body of an intake of the kind :voice.
      # what:: one of HAPPENINGS; room:: Card or nil; people:: of Person; levels:: [[key, dBov] …]
      Happening = Struct.new(:what, :room, :people, :levels)
      HAPPENINGS = %i[room card join change leave levels packets].freeze
      # How a room is called and shown. picture, link:: addresses or nil; online:: people on the whole service, where it tells
      Card = Struct.new(:key, :name, :picture, :link, :online)

      # One voice room as far as it is known: who is there, with which marks, and who talks. Keeps the last sure state while
      # nothing is heard of it.
      class Room
        MOST_PEOPLE = 500
        LONGEST_NAME = 200
        NOBODY = "nobody’s name"
        # number:: grows with each who joins; talked_ms:: when they talked last, or nil; began_ms:: when they began to, last
        Member = Struct.new(:key, :name, :avatar, :marks, :number, :talking, :talked_ms, :began_ms) do
          def talks? = talking.on?
          def marked?(mark) = marks.include?(mark)
        end

        # changes:: grows whenever somebody would be drawn otherwise, but for their loudness; heard:: grows with every level
        attr_reader :card, :changes, :heard, :lost_at_ms

        def initialize
          @members = {}
          @card = Card.new(nil, nil, nil, nil)
          @changes = @heard = @number = 0
        end

        def members = @members.values
        def size = @members.size
        def [](key) = @members[key]
        def talkers = @members.each_value.select(&:talks?)

        # @param happening [Happening]
        # @return [Array<String>] of what could not be understood, in words
        def receive(happening, now_ms)
          case happening.what
          when :room then enter(happening, now_ms)
          when :card then add(happening.room)
          when :join, :change then happening.people.each { |person| put(person, now_ms) }
          when :leave then happening.people.each { |person| remove(person.key, now_ms) }
          when :levels then return levels(happening.levels, now_ms)
          when :packets then return levels(happening.levels.map { |key, _| [key, nil] }, now_ms)
          end
          []
        end

        # Nothing is heard of it any more.
        def lost(now_ms)
          return if @lost_at_ms

          @lost_at_ms = now_ms
          @members.each_value { |member| member.talking.hush(now_ms) }
          @changes += 1
        end

        # Moves on what time moves on.
        def advance(now_ms)
          @members.each_value do |member|
            next unless member.talks?

            member.talked_ms = now_ms
            @changes += 1 if member.talking.advance(now_ms)
          end
        end

        # @return [Integer, nil]
        def due_ms = @members.each_value.filter_map { |member| member.talking.due_ms }.min

        private

        # Who is there now: whoever is not named has left, and the others are who they were.
        def enter(happening, now_ms)
          another = card.key && happening.room && happening.room.key != card.key
          @lost_at_ms = nil
          @members.clear if another
          show(happening.room)
          there = happening.people.to_h { |person| [person.key, true] }
          @members.each_key { |key| remove(key, now_ms) unless there[key] }
          happening.people.each { |person| put(person, now_ms) }
          @changes += 1
        end

        def show(card)
          @card = card if card
          @changes += 1
        end

        # What is not told stays.
        def add(card)
          show(@card.dup.tap { |known| card.to_h.compact.each { |name, value| known[name] = value } })
        end

        def put(person, now_ms)
          member = @members[person.key]
          return if member.nil? && @members.size >= MOST_PEOPLE

          member ||= @members[person.key] = Member.new(person.key, name_of(person), nil, [], @number += 1, Talking.new)
          member.name = name_of(person) if person.name
          member.avatar = person.avatar if person.avatar
          member.marks = person.marks if person.marks
          member.talking.hush(now_ms) if member.marked?(:muted)
          @changes += 1
        end

        def name_of(person)
          Chat::Cleaning.name(person.name&.to_s, person.key, nobody: NOBODY)[0, LONGEST_NAME]
        end

        def remove(key, _now_ms)
          @changes += 1 if @members.delete(key)
        end

        def levels(levels, now_ms)
          unknown = []
          levels.each do |key, dbov|
            member = @members[key]
            next unknown << "a level of somebody who is not there: #{key.to_s[0, 40]}" unless member
            next if member.marked?(:muted)

            hear(member, dbov, now_ms)
          end
          @heard += 1
          unknown
        end

        def hear(member, dbov, now_ms)
          turned = dbov ? member.talking.level(now_ms, dbov) : member.talking.packet(now_ms)
          member.talked_ms = now_ms if member.talks?
          return unless turned

          member.began_ms = now_ms if member.talks?
          @changes += 1
        end
      end
    end
  end
end
