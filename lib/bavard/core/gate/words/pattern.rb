# frozen_string_literal: true

require_relative "fold"
require_relative "letters"

module Bavard
  module Core
    module Gate
      module Words
        # One stopped word as the host writes it: a whole word, words in a row, or with "*" for any letters and "?" for one.
        #
        #   Pattern.read("goose*")   # begins a word
        #   Pattern.read("*brain*")  # anywhere in a word
        #
        # folded:: as it is compared; given:: as it was written
        Pattern = Struct.new(:given, :folded) do
          # @return [Boolean] whether it stands for exactly one way to write it
          def whole? = !folded.match?(/[*?]/) && !unspaced?
          def phrase? = folded.include?(" ")

          # Scripts that write without spaces have no whole words to see: theirs are found anywhere.
          def unspaced? = folded.match?(Pattern::UNSPACED)

          # @return [String] the longest part of it that is written out, to be looked for first
          def literal = folded.split(/[*?]+/).max_by(&:length).to_s

          # @return [String] with what may stand around it
          def glob = unspaced? && !folded.match?(/[*?]/) ? "*#{folded}*" : folded
        end

        # See above.
        class Pattern
          LONGEST = 60
          SHORTEST_LITERAL = 2
          UNSPACED = /[\p{Han}\p{Hiragana}\p{Katakana}\p{Thai}\p{Lao}\p{Khmer}]/

          # @return [Pattern, nil] nil where there is nothing in it to look for
          # @raise [Bavard::Error]
          def self.read(given)
            given = given.strip
            raise Error.new("“#{given[0, 24]}…” is longer than #{LONGEST} characters.", field: "words", value: given) if given.length > LONGEST

            folded = Fold.text(given.tr("*?", "\u0001\u0002")).tr("\u0001\u0002", "*?").gsub(/[^\p{L}\p{N}\p{M}*? @$!|+<(#]+/, " ").gsub(/\s+/,
              " ").strip
            pattern = new(given, folded.squeeze("*"))
            pattern if pattern.literal.delete(" ").length >= SHORTEST_LITERAL
          end

          # Whether a whole word fits, by going forward only: with one "*" kept in mind the work is at most the product of
          # both lengths.
          #
          # @param glob [String]
          # @param word [String]
          # @return [Boolean]
          def self.fits?(glob, word)
            at = in_glob = back = 0
            star = nil
            while at < word.length
              if glob[in_glob] == "*"
                star = in_glob
                back = at
                in_glob += 1
              elsif fits_one?(glob[in_glob], word[at])
                at += 1
                in_glob += 1
              elsif star
                in_glob = star + 1
                at = back += 1
              else
                return false
              end
            end
            glob[in_glob..].delete("*").empty?
          end

          def self.fits_one?(sign, char) = !sign.nil? && (sign == "?" || Letters.stands?(char, sign))
          private_class_method :fits_one?
        end
      end
    end
  end
end
