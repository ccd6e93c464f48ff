# frozen_string_literal: true

require_relative "automaton"
require_relative "letters"
require_relative "pattern"

module Bavard
  module Core
    module Gate
      module Words
        # Says which stopped word one written word is meant as. What was asked once is remembered, for most of what people
        # write are the same few thousand words.
        class Index
          MOST_REMEMBERED = 20_000
          # Longer ones hardly come again, and would fill the memory with what somebody sends for that.
          LONGEST_REMEMBERED = 40
          SHORTEST = 2
          # Only so much of one unbroken word is looked at, for words with signs.
          LONGEST_WRITTEN = 200
          BEFORE = /\A[#{Regexp.escape(Letters::SIGNS)}*]+/
          BEHIND = /(?<![#{Regexp.escape(Letters::SIGNS)}*])[#{Regexp.escape(Letters::SIGNS)}*]+\z/
          SIGN = /[#{Regexp.escape(Letters::SIGNS)}*]/
          EDGE_SIGNS = Regexp.union(BEFORE, BEHIND)
          EDGE_DIGITS = /\A[0-9]+|[0-9]+\z/

          # Beginnings of two words in a row: the first word, then the others.
          attr_reader :phrases

          # @param patterns [Array<Pattern>]
          def initialize(patterns)
            @whole = Hash.new { |hash, key| hash[key] = [] }
            @by_shape = Hash.new { |hash, shape| hash[shape] = [] }
            @phrases = {}
            globs = []
            patterns.each { |pattern| pattern.whole? ? add(pattern) : globs << pattern }
            @whole.default = nil
            @by_shape.default = nil
            @globs = globs
            @torn = torn(globs)
            @automaton = Automaton.new(globs.map { |pattern| Letters.key(pattern.literal.delete(" ")) }) if globs.any?
            @beginnings = nil
            @remembered = {}
            @beginning = {}
          end

          # @param written [String] folded, without spaces
          # @return [Array(Pattern, Integer, Integer), nil] and where in it the word begins and ends
          def find(written)
            return look_for(written[0, LONGEST_WRITTEN]) if written.length > LONGEST_REMEMBERED

            known = @remembered[written]
            return known || nil unless known.nil?

            @remembered.clear if @remembered.size >= MOST_REMEMBERED
            @remembered[written] = look_for(written) || false
            @remembered[written] || nil
          end

          # @return [Pattern, nil] that is meant by exactly this, nothing cut off
          def exactly(written)
            @whole[Letters.key(written)]&.find { |pattern| Letters.meant?(written, plain(pattern)) }
          end

          # @return [Pattern, nil] that is meant by this, put together from parts
          def together(written)
            key = Letters.key(written)
            (@whole[key] || @torn[key])&.find { |pattern| Letters.meant?(written, pattern.whole? ? plain(pattern) : pattern.literal) }
          end

          # @return [Boolean] whether some word begins like this
          def begins?(written)
            return beginnings.key?(Letters.key(written)) if written.length > LONGEST_REMEMBERED

            known = @beginning[written]
            return known unless known.nil?

            @beginning.clear if @beginning.size >= MOST_REMEMBERED
            @beginning[written] = beginnings.key?(Letters.key(written))
          end

          private

          def add(pattern)
            word = plain(pattern)
            @whole[Letters.key(word)] << pattern
            @by_shape[[word.length, word[0]]] << pattern if word.length > Letters::LETTERS_PER_STAR
            return unless pattern.phrase?

            first, *others = pattern.folded.split
            (@phrases[Letters.key(first)] ||= []) << [pattern, first, others]
          end

          # What is written out in patterns: torn apart it stands for the whole of them.
          def torn(globs)
            globs.select { |pattern| pattern.literal.length >= Letters::LETTERS_PER_STAR + 1 }.group_by { |pattern| Letters.key(pattern.literal) }
          end

          def plain(pattern) = pattern.folded.delete(" ")

          def beginnings
            @beginnings ||= (@whole.keys + @torn.keys).each_with_object({}) do |key, all|
              (1..key.length).each do |length|
                all[key[0, length]] = true
              end
            end
          end

          def look_for(written)
            return with_signs(written) if written.match?(SIGN)

            as_it_is(written, 0) || (written.match?(EDGE_DIGITS) ? trimmed(written, EDGE_DIGITS) : nil)
          end

          # Without the signs around it, whole, without digits around it, without stars between letters, with stars for letters.
          def with_signs(written)
            trimmed(written, EDGE_SIGNS) || trimmed(written, BEFORE) || trimmed(written, BEHIND) || as_it_is(written, 0) ||
              trimmed(written, EDGE_DIGITS) || trimmed(written.gsub(EDGE_SIGNS, ""), EDGE_DIGITS, written[BEFORE].to_s.length) ||
              (written.include?("*") ? starred(written) : nil)
          end

          def trimmed(written, edges, offset = 0)
            bare = written.gsub(edges, "")
            return if bare.length < SHORTEST || bare.length == written.length

            as_it_is(bare, offset + written.index(bare))
          end

          def as_it_is(written, offset)
            pattern = exactly(written) || joined_letters(written)
            return [pattern, offset, offset + written.length] if pattern

            found = @automaton && globbed(written)
            found && [found[0], offset + found[1], offset + found[2]]
          end

          # Two letters drawn as one.
          def joined_letters(written)
            return unless written.include?("vv") || written.include?("rn")

            [["vv", "w"], ["rn", "m"]].each do |two, one|
              next unless written.include?(two)

              pattern = exactly(written.gsub(two, one))
              return pattern if pattern && pattern.folded.length >= (two == "rn" ? Letters::LONG : SHORTEST)
            end
            nil
          end

          def globbed(written)
            candidates = []
            @automaton.each_in(Letters.key(written)) { |index, _| candidates << index }
            candidates.uniq.each do |index|
              pattern = @globs[index]
              return [pattern, *part(pattern, written)] if fits?(pattern, written)
            end
            nil
          end

          def fits?(pattern, written)
            Pattern.fits?(pattern.glob, written) || (shorter(written) != written && Pattern.fits?(pattern.glob, shorter(written)))
          end

          # Letters that are drawn out, as often as a word has them.
          def shorter(written) = written.gsub(/(.)\1{2,}/, '\1')

          # Only what is written out in it is covered, where it may stand anywhere.
          def part(pattern, written)
            literal = pattern.literal
            return [0, written.length] unless pattern.glob.match?(/\A\*[^*?]+\*\z/)

            from = (0..(written.length - literal.length)).find { |at| Letters.meant?(written[at, literal.length], literal) }
            from ? [from, from + literal.length] : [0, written.length]
          end

          def starred(written)
            bare = written.gsub(/\A\*+|\*+\z/, "")
            pattern = exactly(bare.delete("*")) || @by_shape[[bare.length, bare[0]]]&.find { |one| Letters.starred?(bare, plain(one)) }
            pattern && [pattern, written.index(bare), written.index(bare) + bare.length]
          end
        end
      end
    end
  end
end
