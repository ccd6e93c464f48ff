# frozen_string_literal: true

require_relative "../lists"
require_relative "../rule_kind"
require_relative "../words/finder"

module Bavard
  module Core
    module Gate
      # Words that do not go on the picture, however they are written.
      class StoppedWords < RuleKind
        KEY = "stopped_words"
        LABEL = "Stopped words"
        ICON = "spell-check"
        ABOUT = "Words that are covered or kept off, however they are written."
        ACTIONS = %i[mask drop hold].freeze
        # Above that, finding them would cost more than they are worth.
        MOST = 50_000
        LONGEST_LIST = 1_500_000
        OWN = [
          Fields::Property.some("starters", "the house’s lists", Lists::STARTERS, []),
          Fields::Property.lines("words", "your own, one a line; * for any letters, ? for one", LONGEST_LIST),
          Fields::Property.switch("names", "in names as well", true)
        ].freeze
        NAMES = true
        # Names that were looked at lately.
        MOST_NAMES = 5000
        CLEAN = Object.new.freeze
        private_constant :CLEAN

        def look(sight, _memory)
          return if @finder.nil?

          all = @finder.find(sight.emotes_marked, sight.folded, sight.tokens)
          named = @in_names ? in_name(sight.person.display_name) : nil
          return if all.empty? && named.nil?

          all.map { |word| in_text(sight, word) }.push(named).compact
        end

        def words
          "#{@count == 1 ? "1 word" : "#{@count} words"}, look-alikes and spacing included"
        end

        private

        def in_text(sight, word)
          seen = sight.text[word.from...word.to]
          found(seen, why(word, seen), from: word.from, to: word.to,
            edits: @action == :mask ? [Edits.cover(sight.text, word.from, word.to, letters: word.letters)] : nil)
        end

        # A name stays the same from line to line, and so does what is in it.
        #
        # @return [Finding, nil]
        def in_name(name)
          known = @names[name]
          return known.equal?(CLEAN) ? nil : known if known

          @names.shift if @names.size >= MOST_NAMES
          (@names[name] = look_at_name(name) || CLEAN).then { |one| one.equal?(CLEAN) ? nil : one }
        end

        def look_at_name(name)
          all = @finder.find(name)
          return if all.empty?

          covered = Edits.apply(name, all.map { |word| Edits.cover(name, word.from, word.to, letters: word.letters) }).text if @action == :mask
          found(name, "in the name: “#{all.first.pattern.given}”", name: covered)
        end

        def prepare
          own = Lists.lines(settings["words"], most: MOST, field: "words")
          all = settings["starters"].flat_map { |name| Lists.starter(name) } + own
          @count = all.size
          @finder = Words::Finder.new(all) if all.any?
          @names = {}
          @in_names = settings["names"]
        end

        # How it was written, where that differs.
        def why(word, seen)
          return "“#{word.pattern.given}”" if seen.casecmp?(word.pattern.given)

          "“#{word.pattern.given}”, written as “#{seen}”"
        end
      end
    end
  end
end
