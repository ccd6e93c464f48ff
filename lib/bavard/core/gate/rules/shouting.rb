# frozen_string_literal: true

require_relative "../words/places"
require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Lines that take more room than others: capitals, length, emotes, stacked marks, letters drawn out.
      class Shouting < RuleKind
        KEY = "shouting"
        LABEL = "Shouting"
        ICON = "case-upper"
        ABOUT = "Capitals, length, emotes, stacked marks, letters drawn out."
        ACTIONS = %i[calm drop hold].freeze
        FEWEST_LETTERS = 8
        # What is left of a row of the same character.
        LEFT = 3
        OWN = [
          Fields::Property.number("capitals_percent", "capitals, over (100: any)", 20..100, 70, unit: "%"),
          Fields::Property.number("longest", "characters, over", 20..8191, 400),
          Fields::Property.number("emotes", "emotes, over", 0..200, 12),
          Fields::Property.number("marks", "marks stacked on one letter, over", 1..20, 3),
          Fields::Property.number("repeated", "the same character in a row, over", 3..200, 8)
        ].freeze
        NONE = [0, 0].freeze
        CAPITALS = /[\p{Lu}\p{Lt}][\p{Lu}\p{Lt}\p{M}]+/

        def look(sight, _memory)
          all = [capitals(sight), length(sight), emotes(sight), marks(sight), repeated(sight)]
          all.compact!
          all unless all.empty?
        end

        def words = "Over #{settings["capitals_percent"]} % capitals, #{settings["emotes"]} emotes, or stacked marks"

        private

        def prepare
          @capitals_percent, @longest, @emotes, @most_repeated = settings.values_at("capitals_percent", "longest", "emotes", "repeated")
          @marks = /(?<=\p{M}{#{settings["marks"]}})\p{M}+/
          @repeated = /([^\s\p{M}])(?:\1){#{@most_repeated},}/
        end

        def capitals(sight)
          letters, upper = letters_of(sight.text)
          return if upper.zero? || letters < FEWEST_LETTERS || upper * 100 <= @capitals_percent * letters
          return unless sight.text.match?(CAPITALS)

          found(sight.text[CAPITALS], "#{upper * 100 / letters} % capitals", edits: calm { lowered(sight) })
        end

        # @return [Array(Integer, Integer)] letters, and capitals among them
        def letters_of(text)
          if text.ascii_only?
            upper = text.count("A-Z")
            return upper.zero? ? NONE : [text.count("A-Za-z"), upper]
          end
          return NONE unless text.match?(/\p{Lu}/)

          [/\p{L}+/, /\p{Lu}+/].map { |kind| text.scan(kind).sum(&:length) }
        end

        # The first letter of the line stays.
        def lowered(sight)
          spared = sight.line.fragments.to_a.select { |kind, _| kind == :emote || kind == :link }.to_h { |_, words| [words, true] }
          Places.of(sight.text, CAPITALS).reject { |place| spared.key?(place.match) }.map do |place|
            words = place.match
            Edit.new(place.from, place.to, place.from.zero? ? words[0] + words[1..].downcase : words.downcase)
          end
        end

        def length(sight)
          return if sight.text.length <= @longest

          found(nil, "#{sight.text.length} characters", from: @longest, to: sight.text.length, edits: calm { [cut(sight.text, @longest)] })
        end

        # At the end of a word where one is near, and never through a grapheme cluster.
        def cut(text, longest)
          kept = text[0, longest].grapheme_clusters[0...-1].join
          kept = kept[0, kept.rindex(" ")] if kept.rindex(" ").to_i > longest - 24
          Edit.new(kept.length, text.length, "…")
        end

        def emotes(sight)
          return if sight.line.fragments.nil? || sight.line.fragments.size <= @emotes

          all = sight.emotes
          found(nil, "#{all.size} emotes", edits: calm { all.drop(@emotes).map { |from, to| Edit.new(from, to, "") } }) if all.size > @emotes
        end

        def marks(sight)
          return if sight.text.ascii_only? || !sight.text.match?(@marks)

          all = places(sight.text, @marks)
          found(sight.text[[all[0][0] - settings["marks"] - 1, 0].max...all[0][1]], "marks stacked on a letter", from: all[0][0], to: all[0][1],
            edits: calm { all.map { |from, to| Edit.new(from, to, "") } })
        end

        def repeated(sight)
          text = sight.text
          return unless text.length - text.squeeze.length >= @most_repeated && text.match?(@repeated)

          all = places(sight.text, @repeated)
          from, to = all.first
          found(sight.text[from...to][0, 24], "“#{sight.text[from]}” #{to - from} times in a row", from:, to:,
            edits: calm { all.map { |first, last| Edit.new(first + LEFT, last, "") } })
        end

        def calm = @action == :calm ? yield : nil

        def places(text, pattern) = Places.of(text, pattern).map { |place| [place.from, place.to] }
      end
    end
  end
end
