# frozen_string_literal: true

require_relative "../chat/cleaning"
require_relative "../chat/person"
require_relative "words/finder"

module Bavard
  module Core
    module Gate
      # One line as the rules see it. What several of them want to know is worked out once, when it is first asked for.
      class Sight
        VIEWER = Chat::Person::VIEWER
        EMOTES = %i[emote emoji].freeze
        # Lines that begin alike for so long are the same.
        LONGEST_SAME = 200
        BETWEEN = /[^\p{L}\p{N}]+/
        # Lines with fewer letters are the same where they are written the same.
        SHORTEST_SAME = 3

        # at_ms:: when it came, Unix milliseconds
        attr_reader :line, :text, :person, :at_ms

        # @param line [Chat::Line]
        def initialize(line)
          @line = line
          @text = line.text
          @person = line.person
          @at_ms = line.arrived_at_ms
        end

        # @return [Boolean] whether the picture would have nothing but its name: neither a sign that draws something, nor an emote, nor money
        def unseen? = !Chat::Cleaning.seen?(text) && !line.event? && line.paid.nil? && (line.placed.nil? || line.placed.empty?)

        # @return [Array<String>] what the person is; a viewer where nothing is known
        def roles = person.roles

        def folded = @folded ||= Words::Fold.text(emotes_marked)

        # @return [Array<Words::Token>] as Words::Finder takes them
        def tokens = @tokens ||= Words::Token.all(folded)

        # @return [String] the text with emotes as marks of the same length, so that places in it stay right
        def emotes_marked
          return text if line.fragments.nil? || line.fragments.none? { |kind, _| kind == :emote }

          line.fragments.map { |kind, words| kind == :emote ? Words::Fold::EMOTE * words.length : words }.join
        end

        # @return [Array<Array(Integer, Integer)>] where emotes and emoji stand, in code points
        def emotes
          at = 0
          line.fragments.filter_map do |kind, words, *|
            from = at
            at += words.length
            [from, at] if EMOTES.include?(kind)
          end
        end

        # @return [Integer] the same for lines that say the same, however drawn out; numbers are told apart
        def sameness
          @sameness ||= begin
            letters = folded.ascii_only? ? folded.delete("^a-z0-9") : folded.gsub(BETWEEN, "")
            letters = letters.length < SHORTEST_SAME ? text.downcase.strip : letters.squeeze("a-z")
            (letters.length > LONGEST_SAME ? letters.slice(0, LONGEST_SAME) : letters).hash
          end
        end

        # @return [Array<Integer>] its words, as numbers: the same ones in every process, so that what is alike does not hang on chance
        def words
          @words ||= begin
            words = []
            tokens.each { |token| (number = token.number) ? words << number : words.concat(token.numbers) }
            words.uniq! || words
          end
        end

        # @return [Array<Integer>] pairs of the smallest of them: lines that share most of their words mostly share one of
        #   these (MinHash, Broder 1997), and one alone may well be of a word that every line has. Of three words or more.
        def signatures
          @signatures ||= begin
            first, second, third = words.min(3)
            [first ^ (second >> 1), first ^ (third >> 1), second ^ (third >> 1)]
          end
        end
      end
    end
  end
end
