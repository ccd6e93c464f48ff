# frozen_string_literal: true

require "json"
require_relative "../skein/client"

module Hidewire
  # One connection to Hidewire. It says hello; the client joins a room, or follows a person into whichever they are in. Where it was
  # in that room before, it is told what was written since. Who is there is told whole at first and then change by change; levels come by
  # themselves, unnumbered, in −dBov (RFC 6464).
  #
  #   ← {"op":"hello","beat_ms":5000}
  #   → {"op":"join","room":"hides","follow":"odalys","text":null,"token":null,"resume":null,"after":null}
  #   ← {"op":"joined","resume":"…","seq":12,"again":false,"room":{"id":"hides","name":"The hides",…},"people":[{"id":"odalys",…}]}
  #   ← {"op":"levels","l":[["odalys",31],["teo",66]]}
  #   ← {"op":"event","kind":"joined","who":{…}}  "left" "changed"; and the room's text, numbered, as lines
  class Client < Skein::Client
    PICTURES = File.expand_path("../../demo/pictures/avatars", __dir__)

    attr_reader :place

    def initialize(env, io, rooms, grants, mischief, beat_ms:)
      @rooms = rooms
      super(env, io, rooms.places.fetch("hides").text, grants, mischief, beat_ms:)
    end

    # Told by {Rooms}.
    def happened(room, message)
      return moved(message) if room == :moved
      return unless @joined && room == @place && !@mischief.on?("stall")

      told = message.key?("who") ? message.merge("who" => with_picture(message["who"])) : message
      @mischief.disturb([told]).each { |one| tell("op" => "event", **one) }
    end

    def levels(levels)
      return unless @joined && !@mischief.on?("stall")

      levels = levels.transform_values { |level| level * 40 } if @mischief.on?("garbage")
      tell("op" => "levels", "l" => levels.to_a)
    end

    # What is written in a room comes to those who are in it, or chose it; one or the other.
    def written(room, post)
      post(post) if room == (@chosen || @place)
    end

    private

    # Nobody follows a room.
    def tell_totals = nil

    def join(said)
      @word = said["token"]
      @token = @word && @grants.token(@word)
      return close("token not accepted", 4401) if @word && !@token

      @followed = said["follow"]
      room = @rooms.member(@followed)&.room || said["room"]
      @chosen = said["text"]
      return close("no such room", 4404) unless @rooms.places.key?(room) && (@chosen.nil? || @rooms.texts.key?(@chosen))

      enter(room)
      since = self.class.resumes[said["resume"]]&.first == [room, @chosen].compact.join("/") ? said["after"] : nil
      told_again(room, since)
    end

    def enter(room)
      @place = room
      @room = (@chosen ? @rooms.texts.fetch(@chosen) : @rooms.places.fetch(room)).text
    end

    def joined(room, seq, again: false)
      key = SecureRandom.urlsafe_base64(12)
      self.class.remember(key, [room, @chosen].compact.join("/"), @word)
      tell("op" => "joined", "resume" => key, "seq" => seq, "again" => again, **there)
      @joined = true
    end

    def there
      place = @rooms.places.fetch(@place)
      {"room" => {"id" => place.key, "name" => place.name, "picture" => picture("avatars", "reed"),
                  "link" => "http://#{env["HTTP_HOST"]}/#{place.key}", "online" => @rooms.online},
       "people" => @rooms.in_room(@place).map { |one| with_picture(one) }}
    end

    def with_picture(person)
      file = [person["id"], StandIns::Emotes.avatar(person["id"])].find { |name| File.exist?(File.join(PICTURES, "#{name}.svg")) }
      person.merge("picture" => picture("avatars", file))
    end

    def moved(member)
      tell("op" => "online", "count" => @rooms.online) if @joined && !@mischief.on?("stall")
      follow(member)
    end

    # Whoever is followed has gone elsewhere.
    def follow(member)
      return unless @joined && member.key == @followed && member.room && member.room != @place

      enter(member.room)
      tell("op" => "event", "kind" => "room", "seq" => @room.last_seq, **there)
    end
  end
end
