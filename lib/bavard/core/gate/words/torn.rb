# frozen_string_literal: true

require_relative "fold"

module Bavard
  module Core
    module Gate
      module Words
        # Words torn apart: letter by letter, by signs, or over emotes.
        #
        # A border between two parts can be closed over an emote; over signs without a space, save an apostrophe between
        # longer parts; and over spaces only where letters stand alone, since people do write one word after another.
        module Torn
          # A word is put together from at most so many parts.
          MOST_TOGETHER = 64
          # Letters that stand alone for good reason.
          ALONE = %w[a e i o u y n s].to_h { |letter| [letter, true] }.freeze
          WEAK_SIGNS = %r{[/,;:("'=)]}
          # A gap of spaces is closed only when that many parts come together, or a letter stands alone that never does.
          APART = 3
          LONG_ENOUGH = 5

          module_function

          # @return [Pattern, nil] the first there is
          def first(parts, index)
            found = nil
            each(parts, index) { |pattern, *| found ||= pattern }
            found
          end

          # @param parts [Array<String>] of a text, each followed by what stands behind it: part, gap, part …
          # @param index [Index]
          # @yieldparam pattern [Pattern]
          # @yieldparam first [Integer] where its first part is in the list
          # @yieldparam last [Integer]
          def each(parts, index)
            at = 0
            most = parts.size - 2
            while at < most
              pattern, last = begins_one?(parts, at) && from(parts, at, index)
              yield pattern, at, last if pattern
              at = (last || at) + 2
            end
            nil
          end

          # Most words are followed by a space and another word.
          def begins_one?(parts, at)
            return false if parts[at].length >= APART && parts[at + 1] == " " && parts[at + 2].length >= APART

            !drawn_out?(parts, at) && closes?(parts[at], parts[at + 1], parts[at + 2])
          end

          # The same three times: no word begins like that, and what begins with the last two is looked at there.
          def drawn_out?(parts, at) = parts[at] == parts[at + 2] && parts[at] == parts[at + 4]

          # @param before [String] a part
          # @param gap [String]
          # @param part [String] the next one
          # @return [Boolean] whether they may be one word
          def closes?(before, gap, part)
            return spaced?(before, part, false) if gap == " "
            return spaced?(before, part, gap.include?(Fold::EMOTE)) if gap.match?(/\s/)
            return true if gap.include?(Fold::EMOTE)

            !gap.match?(WEAK_SIGNS) || short?(before, part, gap)
          end

          # @param emote [Boolean] whether one stands between the two
          # @return [Boolean] whether parts with a blank between them may be one word
          def spaced?(before, part, emote)
            emote || (before.length < APART && part.length < APART) || lone?(before) || lone?(part)
          end

          def from(parts, first, index)
            return unless index.begins?(parts[first])

            word = parts[first].dup
            found = nil
            last = first + 2
            while last < parts.size && last - first < MOST_TOGETHER * 2 && closes?(parts[last - 2], parts[last - 1], parts[last])
              word << parts[last]
              break unless index.begins?(word)

              pattern = index.together(word)
              found = [pattern, last] if pattern && believable?(parts, first, last, word)
              last += 2
            end
            found
          end

          # Two short words side by side are two short words.
          def believable?(parts, first, last, word)
            spaced = ((first + 1)...last).step(2).any? { |at| parts[at].match?(/\s/) && !parts[at].include?(Fold::EMOTE) }
            return true if !spaced || last - first >= (APART - 1) * 2

            word.length >= LONG_ENOUGH && (lone?(parts[first]) || lone?(parts[last]))
          end

          # A letter by itself that is no word and no ending.
          def lone?(part) = part.length == 1 && !ALONE.key?(part)

          def short?(before, part, gap)
            return before.length == 1 && part.length == 1 if gap.include?("'")

            before.length < APART || part.length < APART
          end

          private_class_method :begins_one?, :drawn_out?, :from, :believable?, :lone?, :short?
        end
      end
    end
  end
end
