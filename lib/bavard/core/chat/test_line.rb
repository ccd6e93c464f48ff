# frozen_string_literal: true

require_relative "../../error"
require_relative "../intake"
require_relative "cleaning"

module Bavard
  module Core
    module Chat
      # A line that a host sends to see how one stands on the picture: their own words, or some that are awkward.
      #
      #   TestLine.said("Ann", "hello", number: 1, of: 3)   # => what a feed would have told: a Said
      module TestLine
        PERSON = "test"
        COLOUR = "#f3b634"
        LONGEST_NAME = 80
        # Key, how it is called, who says it, and what.
        AWKWARD = {
          "long_name" => ["The longest name", "W" * 25, "short words"],
          "long_word" => ["One word without an end", "kingfisher_kit", "a#{"h" * 120}"],
          "long" => ["As long as a screen", "marsh_mara", "#{"never before have so many waders stood on this bank at once, " * 6}really"],
          "right_to_left" => ["From right to left", "هدهد الفجر", "صباح الخير من شرفة الطيور، ثلاثة طيور مائية على الضفة 🐦"],
          "mixed" => ["Both directions", "Odalys", "look: هدهد (hoopoe) at 05:51, two of them!"],
          "japanese" => ["Without spaces", "かわせみ", "おはようございます、今日も霧がきれいですね。また明日もここで会いましょう"],
          "stacked" => ["Marks upon marks", "tern_and_cough", "z#{"\u0300\u0301\u0302\u0303" * 12}algo and others"],
          "emoji" => ["Nothing but emoji", "mudlark7", "🐦" * 40],
          "link" => ["A link", "heron_house", "https://reedmere.example/#{"reeds/" * 12}?at=dawn"],
          "markup" => ["What looks like code", "<b>bold</b>", "<script>alert(1)</script> & \"quotes\" 'too'"]
        }.freeze

        module_function

        # @param name [String] whoever says it; empty: nobody in particular
        # @param text [String] empty: a sentence of ours
        # @param number, of [Integer] which of how many
        # @return [Said]
        # @raise [Bavard::Error] where nothing is left of what was typed
        def said(name, text, number: 1, of: 1)
          called = Cleaning.text(name)[0, LONGEST_NAME].strip
          words = Cleaning.text(text)
          raise Error.new("Nothing of that can be drawn.", field: "text") if words.empty? && !text.strip.empty?

          Said.new(PERSON, called.empty? ? "Test #{number} of #{of}" : called, COLOUR, [],
            words.empty? ? "This is a test line from Bavard, number #{number}." : words, false, false)
        end
      end
    end
  end
end
