# frozen_string_literal: true

require_relative "emote"
require_relative "phrases"

module Bavard
  module Core
    module Dress
      # Finds the emotes of all shelves in a text, and says which shelf wins where several have the same code.
      #
      # A code counts as a whole word, in its own case unless it is for any; punctuation around it does not matter, and
      # of "wren" and "wren!" the longer one wins. A code between colons counts anywhere: "look:wren::owl:".
      #
      #   index = EmoteIndex.new(shelves, phrases)
      #   index.cut("look up :wren: !", feed_id)   # => [[:text, "look up "], [:emote, ":wren:", emote], [:text, " !"]]
      class EmoteIndex
        # Blanks of every width: a Japanese keyboard writes the ideographic one between words.
        TOKENS = /[[:^space:]]+|[[:space:]]+/
        COLON_CODE = /:[^\s:]{1,98}:/
        TRAILING = /[.,;:!?…'"»”’)\]}]\z/
        LEADING = /\A[«“‘'"(\[{¿¡]+/
        LONGEST_CODE = 100
        PLAIN = Array.new(256) { |byte| byte.chr.match?(/[A-Za-z0-9]/n) }.freeze

        # Every shelf that has a code, the first of them winning.
        Contender = Struct.new(:shelf, :emote)

        # @param shelves [Array<Shelf>] in their order
        # @param phrases [Array<Phrase>]
        def initialize(shelves, phrases = [])
          @exact = {}
          @folded = {}
          @phrases = Phrases.new(phrases)
          shelves.each { |shelf| add(shelf) if shelf.looked_for? }
          @any_folded = @folded.any?
          @any_phrases = !@phrases.empty?
        end

        # @param text [String] without mentions, links and emoji
        # @param feed_id [Integer, nil]
        # @return [Array, nil] fragments; nil where nothing is in it
        def cut(text, feed_id)
          return unless maybe?(text)

          tokens = text.scan(TOKENS)
          found = []
          at = 0
          at += take_token(tokens, at, feed_id, found) while at < tokens.size
          found unless found.all? { |fragment| fragment[0] == :text }
        end

        # @return [Array<Contender>] for this code on this feed, the winner first
        def contenders(code, feed_id = nil)
          all = (@exact[code] || []) + (@folded[code.downcase] || [])
          all.select { |contender| feed_id.nil? || contender.shelf.worn_on?(feed_id) }
        end

        # @return [Array<Array(String, Array<Contender>)>] codes that several shelves have
        def clashes
          @exact.select { |_, contenders| contenders.size > 1 }.to_a
        end

        private

        def add(shelf)
          shelf.emotes.each do |emote|
            list = emote.any_case ? (@folded[emote.code.downcase] ||= []) : (@exact[emote.code] ||= [])
            list << Contender.new(shelf, emote)
          end
        end

        # Quick, and never wrong where it says no.
        def maybe?(text)
          return true if text.include?(":") && text.match?(COLON_CODE)

          words = text.ascii_only? ? text.split : text.scan(Phrases::WORD)
          words.each { |word| return true if @exact.key?(word) || (edged?(word) && !bare(word).nil?) }
          return true if @any_folded && words.any? { |word| folded?(word) }

          @any_phrases && @phrases.any_begin?(words)
        end

        # Whether anything but an ASCII letter or digit stands at either end.
        def edged?(word)
          !(PLAIN[word.getbyte(0)] && PLAIN[word.getbyte(-1)])
        end

        def folded?(word)
          word = word.downcase
          @folded.key?(word) || (edged?(word) && !bare(word).nil?)
        end

        # The word for which the least punctuation has to go and that somebody knows, or nothing.
        def bare(word)
          core = word.sub(LEADING, "")
          until known?(core)
            return unless core.match?(TRAILING)

            core = core[0..-2]
          end
          core
        end

        def known?(code)
          @exact.key?(code) || (@any_folded && @folded.key?(code.downcase))
        end

        # @return [Integer] how many tokens were used up
        def take_token(tokens, at, feed_id, found)
          token = tokens[at]
          return add_text(found, token) unless token.match?(Phrases::WORD)

          count, emote = @phrases.at(tokens, at)
          return add_emote(found, tokens[at, count].join, emote, count) if count && count > 1

          take_word(token, feed_id, found) || (count && add_emote(found, token, emote, 1)) || add_text(found, token)
        end

        def take_word(token, feed_id, found)
          emote = find(token, feed_id)
          return add_emote(found, token, emote, 1) if emote

          trimmed(token, feed_id, found) || colon_codes(token, feed_id, found)
        end

        def find(code, feed_id)
          contenders = @exact[code]
          if contenders
            first = contenders.first
            return first.emote if feed_id.nil? || first.shelf.worn_on?(feed_id)
          end
          ((contenders || []) + ((@any_folded && @folded[code.downcase]) || []))
            .find { |contender| feed_id.nil? || contender.shelf.worn_on?(feed_id) }&.emote
        end

        def trimmed(token, feed_id, found)
          before = token[LEADING].to_s
          core = token[before.length..]
          after = ""
          loop do
            emote = find(core, feed_id)
            return around(found, before, core, emote, after) if emote
            return unless core.match?(TRAILING)

            after = core[-1] + after
            core = core[0..-2]
          end
        end

        def around(found, before, core, emote, after)
          add_text(found, before) unless before.empty?
          add_emote(found, core, emote, 1)
          add_text(found, after) unless after.empty?
          1
        end

        # Codes between colons, anywhere in a word: a colon may close one or open the next.
        def colon_codes(token, feed_id, found)
          return unless token.include?(":")

          position = 0
          from = 0
          hit = false
          while (start = token.index(COLON_CODE, from))
            code = token.match(COLON_CODE, from)[0]
            emote = find(code, feed_id)
            next from = start + code.length - 1 unless emote

            add_text(found, token[position...start]) if start > position
            add_emote(found, code, emote, 1)
            hit = true
            position = from = start + code.length
          end
          add_text(found, token[position..]) if hit && position < token.length
          hit ? 1 : nil
        end

        def add_text(found, text)
          last = found.last
          found.pop if last && last[0] == :text
          found << [:text, last && last[0] == :text ? last[1] + text : text].freeze
          1
        end

        def add_emote(found, text, emote, count)
          found << [:emote, text, emote].freeze
          count
        end
      end
    end
  end
end
