# frozen_string_literal: true

require_relative "../lists"
require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Only lines that have a certain word or mark in them, such as questions.
      class AskedFor < RuleKind
        KEY = "asked_for"
        LABEL = "Only what is asked for"
        ICON = "message-circle-question-mark"
        ABOUT = "Only lines with a word or a mark, such as questions."
        ACTIONS = %i[drop hold].freeze
        MOST = 50
        # As other scripts write it.
        OTHER_QUESTIONS = /[？¿؟]/
        QUESTION = /\A[?？¿؟]\z/
        OWN = [Fields::Property.text("marks", "words or marks, one a line", 2000, "?")].freeze

        def look(sight, _memory)
          return if @words.empty? || (@questions && question?(sight.text)) || @marks.any? { |mark| mark.match?(sight.text) }

          one(nil, @why)
        end

        def words = "Only lines with #{@words.empty? ? "anything" : @words.join(" or ")}"

        private

        # A word stands by itself; a mark may stand anywhere.
        def prepare
          @words = Lists.lines(settings["marks"], most: MOST, field: "marks").map { |word| word.match?(QUESTION) ? "?" : word }
          @questions = @words.include?("?")
          @why = "has none of #{@words.join(" ")} in it"
          @marks = (@words - %w[?]).map { |word| pattern(word.downcase) }
        end

        def question?(text) = text.include?("?") || (!text.ascii_only? && text.match?(OTHER_QUESTIONS))

        def pattern(word)
          written = Regexp.escape(word)
          word.match?(/\A[\p{L}\p{N}]/) ? /(?<![\p{L}\p{N}])#{written}(?![\p{L}\p{N}])/i : /#{written}/i
        end
      end
    end
  end
end
