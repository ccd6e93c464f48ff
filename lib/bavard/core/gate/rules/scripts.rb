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
        KNOWN = %w[Latin Greek Cyrillic Arabic Hebrew Han Hiragana Katakana Hangul Thai Devanagari Bengali Tamil Armenian Georgian].freeze
        OWN = [
          Stage::Property.some("read", "scripts that are read", KNOWN, %w[Latin]),
          Stage::Property.number("percent", "kept off from so many letters in others", 1..100, 30, unit: "%")
        ].freeze

        def look(sight, _memory)
          return if sight.text.ascii_only? && @latin

          letters = sight.text.scan(/\p{L}/)
          others = letters.grep_v(@read)
          return if letters.empty? || others.size * 100 < settings["percent"] * letters.size

          one(others.first(12).join, "#{others.size} of #{letters.size} letters are in another script")
        end

        def words = "Only #{settings["read"].join(", ")}"

        private

        def prepare
          @latin = settings["read"].include?("Latin")
          @read = /[#{["Common", *settings["read"]].map { |script| "\\p{#{script}}" }.join}]/
        end
      end
    end
  end
end
