# frozen_string_literal: true

module Bavard
  module Core
    module Dress
      # Finds phrases among the words of a text: in any case, whatever spaces and punctuation stand around them, the
      # longest first.
      class Phrases
        EDGES = /\A[^\p{L}\p{N}]+|[^\p{L}\p{N}]+\z/
        # String#split knows the blanks of ASCII alone.
        WORD = /[[:^space:]]+/
        # Words of one phrase.
        MOST_WORDS = 8

        # @param phrases [Array<Phrase>]
        def initialize(phrases)
          @by_first = Hash.new { |hash, word| hash[word] = [] }
          phrases.each do |phrase|
            words = self.class.split(phrase.words)
            @by_first[words.first] << [words, phrase.emote] if words.any?
          end
          @by_first.each_value { |list| list.sort_by! { |words, _| -words.size } }
          @by_first.default = nil
        end

        # @return [Array<String>] the words of a text, as they are compared
        def self.split(text)
          text.scan(WORD).map { |word| fold(word) }.reject(&:empty?).first(MOST_WORDS)
        end

        # @return [String] as it is compared
        def self.fold(word)
          (word.ascii_only? ? word.downcase : word.unicode_normalize(:nfkc).downcase(:fold)).gsub(EDGES, "")
        end

        def empty?
          @by_first.empty?
        end

        # @param words [Array<String>]
        # @return [Boolean] whether one may begin here
        def any_begin?(words)
          words.any? { |word| @by_first.key?(self.class.fold(word)) }
        end

        # @param tokens [Array<String>] words and the blanks between them, in turn
        # @param at [Integer] of a word
        # @return [Array(Integer, Emote), nil] how many tokens it takes up, and its picture
        def at(tokens, at)
          @by_first[self.class.fold(tokens[at])]&.each do |words, emote|
            there = Array.new(words.size) { |step| tokens[at + (step * 2)] }
            return [(words.size * 2) - 1, emote] if there.all? && there.map { |word| self.class.fold(word) } == words
          end
          nil
        end
      end
    end
  end
end
