# frozen_string_literal: true

require_relative "../chat/spoken_name"
require_relative "../dress/badge"
require_relative "ground"
require_relative "name_colour"

module Bavard
  module Core
    module Contrast
      # How a chat piece writes names, and in which colour: what the host chose as it was chosen, every other made readable
      # on what is behind the name.
      #
      #   names = Names.new(piece)
      #   names.written(line.person)              # => "kestrel ann"
      #   names.colour(line, feed: "#5fb8d6")     # => "#7cc6e0"
      class Names
        # Names of lines one after another: as far apart as a few hues can be.
        LINE_COLOURS = 6
        # What of a piece decides on the colours, and what on how names are written.
        COLOURED_BY = %w[name_colour one_name_colour plate_colour plate_opacity plate_for name_plate_colour name_plate_opacity name_plate_by
          text_colour role_colours person_colours form plate_by plate_other_colour].freeze
        WRITTEN_BY = %w[name_form].freeze
        # A plate counts as the ground from this opacity on, in percent; below it, the pictures the form is for.
        COVERS = 55
        # The luminance from which on black stands out better than white.
        MIDDLE = 0.179
        PLATE_LIGHTNESS = 0.9
        PLATE_CHROMA = 0.075
        PICTURES = {"dark" => "#10151a", "bright" => "#f4f6f8"}.freeze

        # @param piece [Hash] a chat piece as it is drawn
        def initialize(piece)
          @piece = piece
          @colours = NameColour.on(ground)
          @plates = {}
          @people = piece["person_colours"].to_h { |row| [Chat::Person.fold(row["person"]), row["colour"]] }
          @roles = piece["role_colours"].to_h { |row| row.values_at("role", "colour") }
        end

        # @return [Boolean] whether another piece has its names in the same colours, written in the same way
        def same?(piece)
          (COLOURED_BY + WRITTEN_BY).all? { |property| @piece[property] == piece[property] }
        end

        # @param person [Chat::Person]
        # @return [String]
        def written(person)
          case @piece["name_form"]
          when "login" then person.covered ? person.display_name : person.login
          when "spoken" then Chat::SpokenName.of(person.display_name)
          else person.display_name
          end
        end

        # @param line [Chat::Line]
        # @param feed [String] "#rrggbb" of its feed's mark
        # @return [String] "#rrggbb"
        def colour(line, feed:)
          person = line.person
          chosen = @people[Chat::Person.fold(person.login)] || @people[Chat::Person.fold(person.display_name)] if @people.any?
          return chosen if chosen

          case @piece["name_colour"]
          when "one" then @piece["one_name_colour"]
          when "person" then @colours.for(person.key, nil)
          when "line" then @colours.for("line #{line.id % LINE_COLOURS}", nil)
          when "feed" then @colours.for(person.key, feed)
          when "role" then role_colour(person) || @piece["one_name_colour"]
          else @colours.for(person.key, person.colour)
          end
        end

        # A light colour of the person's own, for the plate behind what they say.
        #
        # @return [String, nil] "#rrggbb", where plates are coloured by person
        def plate(line)
          return unless @piece["plate_by"] == "person"

          given = line.person.colour
          @plates.clear if @plates.size > NameColour::REMEMBERED
          @plates[given || NameColour.hue(line.person.key)] ||= begin
            hue = given ? Palette::Colour.parse(given).oklch.last : NameColour.hue(line.person.key) * Math::PI / 180
            Palette::Colour.oklch(PLATE_LIGHTNESS, PLATE_CHROMA, hue).to_s
          end
        end

        private

        # On a plate of the name's own colour it is written in ink: the colour has to stand out from that.
        def ground
          return Ground::INK if @piece["name_plate_by"] == "theirs"

          return at_worst("name_plate") if @piece["name_plate_opacity"] > COVERS
          return at_worst("plate") if @piece["plate_for"] != "none" && @piece["plate_opacity"] > COVERS

          PICTURES.fetch(@piece["form"])
        end

        # A plate that lets through what is hardest for it: white through a dark one, black through a bright one.
        def at_worst(plate)
          colour = Palette::Colour.parse(@piece["#{plate}_colour"])
          colour.over(Palette::Colour.parse(colour.luminance < MIDDLE ? "#ffffff" : "#000000"), @piece["#{plate}_opacity"] / 100.0).to_s
        end

        def role_colour(person)
          return if @roles.empty?

          person.badges.filter_map { |badge| @roles[Dress::Badge.read(badge).kind] }.first
        end
      end
    end
  end
end
