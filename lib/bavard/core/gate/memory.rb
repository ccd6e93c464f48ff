# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      # What rules need to know of the time before a line: what was said in the last minutes and by whom, who is left out,
      # and since when people are known. Rules read it; only {#note} changes it.
      class Memory
        # No rule looks back further.
        LONGEST_MS = 600_000
        MOST_KEPT = 20_000
        FORGETS_EVERY = 2000
        MOST_ALIKE = 60
        # Of nearly the same, the newest few are enough to compare with.
        MOST_COMPARED = 8
        # Lines with fewer words are the same or they are not.
        FEWEST_WORDS = 4
        # Up to so many are looked for one by one, and no further than it is clear.
        FEW_WORDS = 16
        # So many of ten words in common.
        ALIKE = 7
        OF_ALL = 10
        # When, the person's key, the words, and for which question it was looked at last.
        Said = Struct.new(:at_ms, :person, :words, :looked_at)

        attr_reader :left_out

        # @param left_out [LeftOut]
        # @param first_seen [#call] gives when a person's key was first seen, Unix milliseconds, or nil
        def initialize(left_out: LeftOut.new, first_seen: nil)
          @left_out = left_out
          @first_seen = first_seen
          @count = 0
          @questions = 0
          @same = {}
          @alike = {}
          @by_person = {}
        end

        # @return [Integer, nil] for how long a person is known; nil: never seen before
        def known_ms(person, now_ms)
          first = @first_seen&.call(person.key)
          first && (now_ms - first)
        end

        # @return [Integer] how often the same was said lately, not counting this line
        def same(sight, within_ms, by_one:)
          since = sight.at_ms - within_ms
          list = @same.fetch(sight.sameness, NONE)
          at = list.bsearch_index { |said| said.at_ms > since } || list.size
          by_one ? list[at..].count { |said| said.person == sight.person.key } : list.size - at
        end

        # @param enough [Integer] nobody wants to know about more
        # @return [Integer] how often nearly the same was said lately
        def alike(sight, within_ms, by_one:, enough:)
          return 0 if sight.words.size < FEWEST_WORDS

          since = sight.at_ms - within_ms
          found = 0
          each_candidate(sight) do |said|
            next unless said.at_ms > since && (!by_one || said.person == sight.person.key) && alike?(said.words, sight.words)
            break if (found += 1) == enough
          end
          found
        end

        # @return [Integer] lines of that person lately, not counting this one
        def lines_of(sight, within_ms)
          since = sight.at_ms - within_ms
          list = @by_person.fetch(sight.person.key, NONE)
          list.size - (list.bsearch_index { |at_ms| at_ms > since } || list.size)
        end

        # The line was judged; whatever came of it, it was said.
        def note(sight)
          forget(sight.at_ms) if ((@count += 1) % FORGETS_EVERY).zero?
          key = sight.person.key
          put(@by_person, key, sight.at_ms)
          said = Said.new(sight.at_ms, key, sight.words)
          put(@same, sight.sameness, said)
          sight.signatures.each { |signature| put(@alike, signature, said, MOST_COMPARED) } if sight.words.size >= FEWEST_WORDS
        end

        # What one said counts for nothing any more.
        #
        # @param person [Chat::Person]
        def forget_person(person)
          @by_person.delete(person.key)
          [@same, @alike].each { |all| all.delete_if { |_, list| list.delete_if { |said| said.person == person.key }.empty? } }
        end

        NONE = [].freeze

        private

        # What is too old, and of a flood that still is too much the older half.
        def forget(now_ms)
          @by_person.delete_if { |_, list| now_ms - list.last > LONGEST_MS }
          [@same, @alike].each { |all| all.delete_if { |_, list| now_ms - list.last.at_ms > LONGEST_MS } }
          [@same, @alike, @by_person].each { |all| (all.size / 2).times { all.shift } if all.size > MOST_KEPT }
        end

        def put(all, key, said, most = MOST_ALIKE)
          list = all[key]
          return all[key] = [said] unless list

          list << said
          list.shift if list.size > most
        end

        # Lines that share most of their words mostly share two of the smallest of their hashes (MinHash, Broder 1997).
        # Each is looked at once for a question, however many it shares.
        def each_candidate(sight)
          question = (@questions += 1)
          sight.signatures.each do |signature|
            @alike[signature]&.each do |said|
              next if said.looked_at == question

              said.looked_at = question
              yield said
            end
          end
        end

        # @return [Boolean] by the share of words in common (Jaccard)
        def alike?(words, others)
          return true if words == others

          all = words.size + others.size
          # So many in common at least: a line of other length, and most others, are soon told apart.
          wanted = ((ALIKE * all) + OF_ALL + ALIKE - 1) / (OF_ALL + ALIKE)
          return false if wanted > words.size || wanted > others.size
          return (words & others).size >= wanted if words.size > FEW_WORDS

          strange = words.size - wanted
          words.none? { |word| !others.include?(word) && (strange -= 1).negative? }
        end
      end
    end
  end
end

require_relative "left_out"
