# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      module Words
        # Which letters a character may stand for, and whether what was written can be meant as a word.
        module Letters
          # Signs that can be a letter inside of a word.
          SIGNS = "@$!|+<(#"
          # Characters that may be mistaken for one another come to one place, to look a word up by.
          MEETS_FROM = "l1!|0345$@7+bq6892z<(#v"
          MEETS_AT = "iiiioeassattgggggeecchu"
          STANDS = {
            "1" => "il", "!" => "il", "|" => "il", "0" => "o", "3" => "ez", "4" => "a", "@" => "a", "5" => "s", "$" => "s", "7" => "t", "+" => "t",
            "6" => "gb", "8" => "b", "9" => "gq", "2" => "z", "(" => "c", "<" => "c", "#" => "h", "v" => "u"
          }.freeze
          # From this length on one letter written twice is taken for a slip on purpose; in a shorter word it may be another word.
          LONG = 6
          # A letter written so often is never meant.
          DRAWN_OUT = 3
          # Signs in place of letters: so many letters to each of them must be there.
          LETTERS_PER_STAR = 3

          module_function

          # @param word [String] folded
          # @return [String] what it is looked up by: the same for all that may be meant as it
          def key(word)
            word.ascii_only? ? word.tr(MEETS_FROM, MEETS_AT).squeeze : word.tr(MEETS_FROM, MEETS_AT).gsub(/(.)\1+/m, '\1')
          end

          # @param written [String] folded, with the same key as the word
          # @param word [String] folded
          # @return [Boolean]
          def meant?(written, word)
            return true if written == word
            return false if written.length < word.length || (!written.match?(/\p{L}/) && word.match?(/\p{L}/))

            extra = extra_letters(written, word) or return false
            doubled, drawn_out = extra.partition { |length| length < DRAWN_OUT }
            doubled.empty? || drawn_out.any? || doubled.size > 1 || word.length >= LONG
          end

          # @param written [String] folded, with "*" for letters
          # @param word [String]
          # @return [Boolean] whether it is that word with some letters starred
          def starred?(written, word)
            return false unless written.length == word.length && written.count("*") * (LETTERS_PER_STAR + 1) <= word.length

            written.each_char.with_index.all? { |char, index| char == "*" || stands?(char, word[index]) }
          end

          def stands?(char, letter)
            char == letter || STANDS[char]&.include?(letter) || STANDS[letter]&.include?(char) || false
          end

          # Goes through both, letter by letter; what is left over must repeat the letter before it.
          #
          # @return [Array<Integer>, nil] the lengths of runs that are longer than the word's
          def extra_letters(written, word)
            at = -1
            run = 1
            extra = []
            fits = written.each_char.all? do |char|
              if at + 1 < word.length && stands?(char, word[at + 1])
                at += 1
                run = at.positive? && word[at] == word[at - 1] ? run + 1 : 1
              elsif at >= 0 && stands?(char, word[at])
                extra << (run += 1)
              end
            end
            fits && at == word.length - 1 ? extra : nil
          end
          private_class_method :extra_letters
        end
      end
    end
  end
end
