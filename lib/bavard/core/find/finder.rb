# frozen_string_literal: true

require "did_you_mean"

module Bavard
  module Core
    # What somebody looks for, by any of the words that people use for it.
    module Find
      # kind:: one of KINDS; label:: what it is called; where:: where that is, or nil; at:: its address; also:: other words for it
      Entry = Struct.new(:kind, :label, :where, :at, :also, keyword_init: true)
      # As they stand where they fit alike.
      KINDS = %w[station room part piece cue setting rule person].freeze

      # Finds entries by words, also misspelt.
      #
      #   Finder.new(entries).find("behind camera").map(&:label)   # => ["Side of Chat"]
      class Finder
        MOST = 12
        MOST_ALIKE = 3
        # What is said about everything.
        IDLE = %w[a an and are as at be by do for from goes how i in is it its me my not of on or so than that the them this to too what when where
          why with somebody someone something].freeze
        # How well a word fits another: the same, its beginning, within it, but for a slip of the finger.
        SAME = 1.0
        BEGINS = 0.85
        WITHIN = 0.7
        ALIKE = 0.65
        # Words that a thing is called by count more than those that people use for it.
        ALSO = 0.9
        LEAST = 0.55
        # What fits so much worse than the best was not looked for.
        WORSE = 0.75
        # Of the words that somebody typed, how many may fit nothing.
        MISSED = 3
        LONGEST = 200
        MOST_WORDS = 12

        # @param entries [Enumerable<Entry>]
        def initialize(entries)
          # The same settings are there once for each piece.
          words = Hash.new { |known, text| known[text] = Finder.words(text) }
          also = Hash.new { |known, all| known[all] = all.to_a.flat_map { |one| words[one] } }.compare_by_identity
          @entries = entries.map { |entry| [entry, words[entry.label], words[entry.where], also[entry.also]] }
        end

        # @param text [String]
        # @return [Array<Entry>] best first
        def find(text, most: MOST)
          wanted = Finder.wanted(text)
          return [] if wanted.empty?

          fits = wanted.map { |one| Hash.new { |known, word| known[word] = fit(one, word) } }
          scored = @entries.filter_map do |entry, *called|
            score = score(fits, *called)
            [-score, KINDS.index(entry.kind), entry.label.length, entry] if score
          end
          scored.sort_by! { |one| one.first(3) }
          few(scored.take_while { |one| one.first <= scored.first.first * WORSE }.map(&:last)).first(most)
        end

        # @return [Array<String>] without signs, capitals and accents
        def self.words(text) = text.to_s.unicode_normalize(:nfd).gsub(/\p{Mn}/, "").downcase(:fold).scan(/[\p{L}\p{N}]+/)

        # @return [Array<String>] those that say something; all of them, where none does
        def self.wanted(text)
          all = words(text[0, LONGEST].dup.force_encoding(Encoding::UTF_8).scrub("")).first(MOST_WORDS)
          some = all - IDLE
          some.empty? ? all : some
        end

        private

        # The same setting of many pieces does not push out all others.
        def few(found)
          times = Hash.new(0)
          found.select { |entry| entry.kind != "setting" || (times[entry.label] += 1) <= MOST_ALIKE }
        end

        # @return [Float, nil] nil: it is something else
        def score(fits, label, where, also)
          best = fits.map { |known| [most(label, known), most(where, known), most(also, known) * ALSO].max }
          return if best.count { |fit| fit < LEAST } > fits.size / MISSED

          sum = best.sum
          sum / fits.size if sum.positive?
        end

        def most(words, known)
          most = 0.0
          words.each { |word| (fit = known[word]) > most && (most = fit) }
          most
        end

        def fit(wanted, word)
          return SAME if wanted == word
          return BEGINS if wanted.length > 1 && word.start_with?(wanted)
          return WITHIN if wanted.length > 3 && word.include?(wanted)

          slip?(wanted, word) ? ALIKE : 0.0
        end

        # One letter wrong in three to five, two in six to nine: as many as two that changed places take.
        def slip?(wanted, word)
          may = (wanted.length + 2) / 4
          wanted.length > 2 && (wanted.length - word.length).abs <= may && DidYouMean::Levenshtein.distance(wanted, word) <= may
        end
      end
    end
  end
end
