# frozen_string_literal: true

require_relative "places"
require_relative "fold"
require_relative "index"
require_relative "token"
require_relative "torn"

module Bavard
  module Core
    module Gate
      module Words
        # Finds stopped words in a text, however they are written.
        #
        #   finder = Finder.new(["goosebrain"])
        #   finder.find("you g o o s e b r a 1 n")   # => [Found(pattern, from: 4, to: 23)] in code points
        #
        # A first, quick look says only whether there may be something; where is found out only then.
        class Finder
          # pattern:: which; from, to:: in code points of the text, the end left out; letters:: how many are written for it
          Found = Struct.new(:pattern, :from, :to, :letters)
          LETTER = /[\p{L}\p{N}@$!|+*]/
          NOTHING = [].freeze
          WORD = /[\p{L}\p{M}\p{N}@$!|+<(#*]+/
          ASCII_WORD_WITH_SIGN = /[a-z0-9]*[@$!|+<(#*][a-z0-9@$!|+<(#*]*/
          # Signs that may be letters: before a letter, or behind one unless it ends a sentence; or alone.
          SIGNED = /[@$!|+<(#*][a-z0-9]|[a-z0-9][$@+|]/
          LONE_SIGN = /(?<![a-z0-9])[@$!|+](?![a-z0-9])/
          SIGN = /[@$!|+<(#*]/
          GAP_BUT_SIGNS = /([^\p{L}\p{M}\p{N}@$!|+]+)/
          # Letters drawn with signs.
          DRAWN = {"()" => "o", "[]" => "o", "|<" => "k", "/\\" => "a", "\\/\\/" => "w", "\\/" => "v", "|)" => "d", "|-|" => "h", "|3" => "b"}.freeze
          DRAWING = Regexp.union(DRAWN.keys.sort_by { |signs| -signs.length })
          # Without any of these, a text is what its parts are.
          MORE_TO_SEE = %r{[@$!|+<(#*\[/\\#{Fold::TURNED}]}
          TURNS = [Fold::TURNED, Fold::TURN_ENDS].freeze
          MOST_FOUND = 50
          PART = /[\p{L}\p{M}\p{N}]+/

          # @param words [Array<String>] as the host writes them
          def initialize(words)
            @index = Index.new(words.filter_map { |word| Pattern.read(word) }.uniq(&:folded))
            @phrases = @index.phrases
            @clean = {}.compare_by_identity
          end

          # @param text [String]
          # @param folded [String] Fold.text(text)
          # @param tokens [Array<Token>] Token.all(folded)
          # @return [Array<Found>] from left to right, none over another
          def find(text, folded = Fold.text(text), tokens = Token.all(folded))
            return NOTHING unless maybe?(tokens) && any?(folded, Token.parts(folded))

            folded, from = Fold.mapped(text)
            apart(variants(folded, from).flat_map { |variant, map| found_in(variant, map) })
          end

          private

          def found_in(variant, map)
            all_in(variant).map { |pattern, first, last| found(pattern, map[first...last], variant[first...last]) }
          end

          # Looks at tokens by themselves, which mostly were looked at before, and at what is around the blanks between them.
          #
          # @return [Boolean] false: there is nothing in the text
          def maybe?(tokens)
            before = nil
            emote = false
            tokens.each do |token|
              return true unless clean?(token)

              emote ||= token.emote
              first = token.first or next
              return true if before && Torn.spaced?(before, first, emote) && begins?(before, first)

              before = token.last
              emote = token.emote
            end
            false
          end

          # @return [Boolean] whether there is nothing in it, and nothing that begins in it goes on behind it but with its last part
          def clean?(token)
            return true if @clean.key?(token)
            return false if token.written.match?(LONE_SIGN) || any?(token.written, token.parts) || begins_within?(token.parts)

            @clean.clear if @clean.size >= Token::MOST_REMEMBERED
            @clean[token] = true if token.lasts?
            true
          end

          def begins_within?(parts)
            (0...(parts.size - 2)).step(2).any? { |at| begins?(parts[at], parts[at + 2]) }
          end

          def begins?(part, next_one) = @index.begins?(part) && @index.begins?(part + next_one)

          # @return [Boolean] whether there may be something
          def any?(folded, parts)
            return true if written?(parts) || torn?(parts)
            return false unless folded.match?(MORE_TO_SEE)

            folded.include?(Fold::TURNED) || signed?(folded) || folded.match?(DRAWING)
          end

          # Every other part is a gap.
          def written?(parts)
            at = 0
            phrases = @phrases.any?
            while at < parts.size
              return true if @index.find(parts[at]) || (phrases && @phrases.key?(Letters.key(parts[at])))

              at += 2
            end
            false
          end

          # Signs may be letters.
          def signed?(folded)
            return true if folded.match?(LONE_SIGN) && torn?(folded.split(GAP_BUT_SIGNS))
            return false unless folded.match?(SIGNED)

            return folded.scan(ASCII_WORD_WITH_SIGN).any? { |word| @index.find(word) } if folded.ascii_only?

            folded.scan(WORD).any? { |word| word.match?(SIGN) && @index.find(word) }
          end

          def torn?(parts)
            !Torn.first(parts, @index).nil?
          end

          # The text, with letters drawn by signs as letters, and with what is turned around the right way.
          def variants(folded, from)
            all = [[folded, from]]
            all << drawn(folded, from) if folded.match?(DRAWING)
            all << turned(folded, from) if folded.include?(Fold::TURNED)
            all
          end

          def drawn(folded, from)
            [folded.gsub(DRAWING) { |drawing| DRAWN[drawing] }, Places.kept(from, Places.of(folded, DRAWING))]
          end

          # Whatever is not between the two stands as it is.
          def turned(folded, from)
            parts = folded.each_char.zip(from).slice_when { |before, after| [before[0], after[0]].intersect?(TURNS) }
            around = false
            chars = parts.flat_map do |part|
              case part[0][0]
              when Fold::TURNED then (around = true) && []
              when Fold::TURN_ENDS then (around = false) || []
              else around ? part.reverse : part
              end
            end
            [chars.map(&:first).join, chars.map(&:last)]
          end

          def all_in(folded)
            whole_words(folded) + phrases(folded) + torn_words(folded)
          end

          def whole_words(folded)
            each(folded, WORD).flat_map do |word, from, _|
              hit = @index.find(word)
              next [placed(hit, from)] if hit

              each(word, PART).filter_map { |part, at, _| part != word && (inner = @index.find(part)) && placed(inner, from + at) }
            end
          end

          def placed(hit, from) = [hit[0], from + hit[1], from + hit[2]]

          def phrases(folded)
            return NOTHING if @phrases.empty?

            words = each(folded, WORD)
            words.each_with_index.flat_map do |(word, from, _), at|
              @phrases.fetch(Letters.key(word), NOTHING).filter_map do |pattern, first, others|
                following = words[at + 1, others.size]
                next unless following.size == others.size && Letters.meant?(word, first)

                [pattern, from, following.last[2]] if following.zip(others).all? { |(written, _, _), other| same?(written, other) }
              end
            end
          end

          def same?(written, word) = Letters.key(written) == Letters.key(word) && Letters.meant?(written, word)

          def torn_words(folded)
            [Token::GAP, GAP_BUT_SIGNS].flat_map do |gap|
              parts = folded.split(gap)
              begins = parts.inject([0]) { |all, part| all << (all.last + part.length) }
              found = []
              Torn.each(parts, @index) { |pattern, first, last| found << [pattern, begins[first], begins[last + 1]] }
              found
            end
          end

          # @return [Array<Array(String, Integer, Integer)>]
          def each(text, pattern)
            Places.of(text, pattern).map { |place| [place.match, place.from, place.to] }
          end

          def found(pattern, indexes, written)
            letters = indexes.zip(written.each_char).filter_map { |index, char| index if char.match?(LETTER) }.uniq.size
            Found.new(pattern, indexes.min, indexes.max + 1, letters)
          end

          # From the left, the longest first.
          def apart(all)
            free_from = 0
            sorted = all.sort_by { |one| [one.from, -one.to] }.select do |one|
              next false if one.from < free_from

              free_from = one.to
            end
            sorted.first(MOST_FOUND)
          end
        end
      end
    end
  end
end
