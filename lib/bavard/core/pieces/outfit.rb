# frozen_string_literal: true

require "json"
require_relative "../../error"
require_relative "look_document"

module Bavard
  module Core
    module Pieces
      # What dresses a whole stage: what all pieces have in common, and what a kind has besides. Places, sizes, words and what pieces show
      # stay as the host has them. Chat wears the look of the same key.
      #
      #   outfit = Outfit.shipped.fetch("quiet")
      #   outfit.values(piece)    # => what to set so that the piece belongs to it
      class Outfit
        FORMAT = "bavard/outfit@1"
        FOLDER = File.expand_path("outfits", __dir__)
        # What of a piece's look an outfit dresses: its type, its plate, its colours and how it moves; not how large it is, where its words
        # stand and what it shows.
        DRESSED = /\A(?:text|name|amount|message|plate|motion)_|_colour\z|\Achime\z|
          \A(?:goal_pattern|sign|gap|thick|face_round|quiet_opacity|drawn|step_form)/x
        KEPT = %w[text_size_px text_align text_upright name_place name_width motion_room motion_room_ms].freeze
        FORM = "bright"
        # What is drawn alike wears the same.
        ALIKE = {"challenge" => "goal"}.freeze
        # A goal that fills a shape of the host's own goes on filling it.
        OWN_DRAWING = {"drawn" => "shape"}.freeze

        # @return [Hash{String => Outfit}] those that ship, by key, in their order
        def self.shipped
          @shipped ||= Dir[File.join(FOLDER, "*.json")].to_h do |file|
            key = File.basename(file, ".json").sub(/\A\d+_/, "")
            [key, new(key, JSON.parse(File.read(file)))]
          end.freeze
        end

        # @param key [Object]
        # @return [Outfit]
        # @raise [Bavard::Error]
        def self.find(key) = shipped[key] || raise(Error.new("There is no outfit called “#{key.to_s[0, 60]}”.", field: "outfit", value: key))

        # house:: by colours and faces, the values of those names that are always there
        attr_reader :key, :name, :about, :behind, :house

        # @param key [String]
        # @param document [Hash] name, about, behind, house; set: of all kinds that have it; kinds: by their keys
        def initialize(key, document)
          raise Error.new("That is no outfit of Bavard's: its format is #{FORMAT}.", field: "format") unless document["format"] == FORMAT

          @key = key
          @name, @about, @behind, @house = document.values_at("name", "about", "behind", "house")
          @set = document.fetch("set")
          @kinds = document.fetch("kinds")
          @looks = {}
        end

        # @param kind [Class] of pieces
        # @return [Hash] the look that a kind has in it; nothing where it has none of its own
        def look(kind)
          @looks[kind::KEY] ||= kind == ChatPiece ? LookDocument.shipped.fetch(key)["set"] : made(kind)
        end

        # @param piece [Hash]
        # @return [Hash] all values to set, so that nothing of what it wore before is left; nothing where its kind has no look
        def values(piece)
          kind = Pieces.kind(piece["kind"])
          return LookDocument.values(piece, look(kind)) if kind == ChatPiece

          dressed = dressed(kind)
          return {} if dressed.empty?

          values = dressed.to_h { |name| [name, kind.properties[name].default] }.merge(kind.read(look(kind)))
          OWN_DRAWING.each { |name, own| values.delete(name) if piece[name] == own }
          # Named with its form, so that the values go where the outfit has them.
          kind.properties.key?("form") ? {FORM => {}, **values, "form" => piece["form"]} : values
        end

        private

        def made(kind)
          own = @kinds.fetch(ALIKE.fetch(kind::KEY, kind::KEY), {})
          set = only(kind, @set.except(FORM)).merge(own.except(FORM))
          bright = only(kind, @set.fetch(FORM, {})).merge(own.fetch(FORM, {}))
          kind.properties.key?(FORM) && bright.any? ? set.merge(FORM => bright) : set
        end

        # Of what all have in common, what this kind has.
        def only(kind, set) = set.slice(*dressed(kind))
        def dressed(kind) = kind.look_names.grep(DRESSED) - KEPT
      end
    end
  end
end
