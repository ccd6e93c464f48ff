# frozen_string_literal: true

require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Lines in scripts that the host, or the picture, cannot read.
      class Scripts < RuleKind
        KEY = "scripts"
        LABEL = "Scripts"
        ICON = "languages"
        ABOUT = "Lines written in other scripts than these."
        ACTIONS = %i[hold drop].freeze
        LETTERS = /\p{L}+/
        KNOWN = %w[Latin Greek Cyrillic Arabic Hebrew Han Hiragana Katakana Hangul Thai Devanagari Bengali Tamil Armenian Georgian].freeze
        OWN = [
          Fields::Property.some("read", "scripts that are read", KNOWN, %w[Latin]),
          Fields::Property.number("percent", "kept off from so many letters in others", 1..100, 30, unit: "%")
        ].freeze

        def look(sight, _memory)
          text = sight.text
          return if (@latin && text.ascii_only?) || !text.match?(@others)

          others = text.scan(@others).join
          letters = text.scan(LETTERS).sum(&:length)
          one(others[0, 12], "#{others.length} of #{letters} letters are in another script") if others.length * 100 >= @percent * letters
        end

        def words = "Only #{settings["read"].join(", ")}"

        private

        def prepare
          @latin = settings["read"].include?("Latin")
          @percent = settings["percent"]
          @others = /[\p{L}&&[^#{["Common", *settings["read"]].map { |script| "\\p{#{script}}" }.join}]]+/
        end
      end
    end
  end
end
