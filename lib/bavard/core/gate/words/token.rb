# frozen_string_literal: true

require "zlib"
require_relative "torn"

module Bavard
  module Core
    module Gate
      module Words
        # One stretch of a folded text between blanks, cut into parts, and what is asked of it for line after line. What was cut
        # once is remembered, for most of what people write are the same few thousand words.
        class Token
          MOST_REMEMBERED = 20_000
          # Longer ones hardly come again.
          LONGEST_REMEMBERED = 32
          # What stands between parts, kept when a text is split there.
          GAP = /([^\p{L}\p{M}\p{N}]+)/
          ASCII_GAP = /([^a-z0-9]+)/

          # parts:: each followed by what stands between it and the next; the first is empty where signs come before it
          # numbers:: one for each part of two characters or more, the same in every process
          # number:: where there is only one of them
          # first, last:: of its parts that have something in them; nil: there is none
          # emote:: whether an emote stands somewhere in it
          attr_reader :written, :parts, :numbers, :number, :first, :last, :emote

          class << self
            # @param folded [String]
            # @return [Array<String>] its parts, each followed by what stands between it and the next
            def parts(folded) = folded.split(folded.ascii_only? ? ASCII_GAP : GAP)

            # @param folded [String] as Fold.text gives it
            # @return [Array<Token>]
            def all(folded) = folded.split.map { |written| of(written) }

            # @param written [String] without blanks
            # @return [Token]
            def of(written)
              known = (@remembered ||= {})[written] and return known
              token = new(written)
              return token unless token.lasts?

              @remembered = {} if @remembered.size >= MOST_REMEMBERED
              @remembered[written] = token
            end
          end

          def initialize(written)
            @written = written
            @parts = Token.parts(written)
            words = (0...@parts.size).step(2).filter_map { |at| @parts[at] unless @parts[at].empty? }
            @first = words.first
            @last = words.last
            @numbers = words.filter_map { |word| Zlib.crc32(word) if word.length > 1 }.freeze
            @number = @numbers.first if @numbers.size == 1
            @emote = written.include?(Fold::EMOTE)
          end

          # @return [Boolean] whether it is worth remembering
          def lasts? = written.length <= LONGEST_REMEMBERED
        end
      end
    end
  end
end
