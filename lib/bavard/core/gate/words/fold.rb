# frozen_string_literal: true

require "unicode/confusable"
require_relative "places"
require_relative "look_alikes"

module Bavard
  module Core
    module Gate
      module Words
        # What a text reads as, whichever characters it is written with: lower case, without accents, stacked marks and
        # characters that draw nothing; look-alikes of other scripts (UTS #39), wide, styled and enclosed letters as the
        # plain ones they look like. Digits and signs stay, for only a whole word shows which letter they stand for.
        #
        #   Fold.text("ｂυｙ nест​lings")   # => "buy nestlings"
        #
        # Each character is folded once and remembered, since the whole table takes milliseconds for a line; so are words.
        module Fold
          # An emote, an emoji or a code such as ":wren:" stands here; letters on both sides may be one word.
          EMOTE = "\u001F"
          # From here on the text is drawn from right to left, whatever it is (U+202E), until that ends.
          TURNED = "\u001E"
          TURN_ENDS = "\u001D"
          # Words that stand on their head: at least one letter that only then is drawn like that, and none that cannot be.
          UPSIDE_DOWN = "ɐǝɟƃɥᴉɾʞɯɹʇʌʍʎɔ"
          STANDING = "#{UPSIDE_DOWN}qpdbunloszxiı\u05DF".freeze
          UPRIGHT = "aefghijkmrtvwycbdpqnuloszxiil"
          ON_ITS_HEAD = /(?<![[:alpha:]])[#{STANDING}]*[#{UPSIDE_DOWN}][#{STANDING}]*(?![[:alpha:]])/
          # Where all letters are that stand on their head.
          RARE = /[\u0180-\u02AF\u1D00-\u1DBF]/
          CODE = /:[a-z0-9_+-]*[a-z][a-z0-9_+-]*:/
          # Above this a memo of characters is begun anew: there are not that many in use at once.
          MOST_REMEMBERED = 20_000
          NON_ASCII = /[^\x00-\x7f]+/
          LONGEST_REMEMBERED = 24
          # With its sound mark, which is a character of its own there.
          HALF_WIDTH_KANA = /[\uFF61-\uFF9F][\uFF9E\uFF9F]?/
          UNIT = /#{HALF_WIDTH_KANA}|./m
          IGNORED = /\p{Default_Ignorable_Code_Point}|[\uFFF9-\uFFFB]/
          STACKING = /[\p{Mn}&&[\p{Inherited}\p{Latin}\p{Greek}\p{Cyrillic}\p{Arabic}\p{Hebrew}]&&[^\u3099\u309A]]|\p{Me}/
          # Scripts whose own letters would be torn apart by a table made for addresses.
          AS_THEY_ARE =
            /[\p{Arabic}\p{Hebrew}\p{Han}\p{Hiragana}\p{Katakana}\p{Hangul}\p{Thai}\p{Lao}\p{Devanagari}\p{Bengali}\p{Tamil}\p{Telugu}\p{Khmer}]/

          module_function

          # @param text [String] valid UTF-8
          # @return [String]
          def text(text)
            folded = plain(text)
            folded.include?(":") ? folded.gsub(CODE, EMOTE) : folded
          end

          # The same, with where each character of it comes from.
          #
          # @return [Array(String, Array<Integer>)] indexes of code points in the text
          def mapped(text)
            folded = String.new(encoding: Encoding::UTF_8)
            from = []
            index = 0
            heads = text.ascii_only? ? {} : on_their_heads(text)
            text.scan(UNIT) do |unit|
              piece = unit.length > 1 ? char(unit.unicode_normalize(:nfkc)) : one(text, unit, index)
              folded << piece
              piece.length.times { from << index }
              index += unit.length
              word = heads[index] or next
              folded << " " << TURNED << upright(word) << TURN_ENDS
              from.push(index - 1, index - 1, *((index - word.length)...index), index - 1)
            end
            without_codes(folded, from)
          end

          # @return [Hash{Integer => String}] words, by where the text goes on behind them
          def on_their_heads(text)
            found = {}
            text.scan(ON_ITS_HEAD) { |word| found[Regexp.last_match.end(0)] = word }
            found
          end

          # Letter by letter; from right to left it is read where what is turned is.
          def upright(word) = word.tr(STANDING, UPRIGHT)

          # @return [String] one character's reading, perhaps none or several
          def char(char)
            char.ascii_only? ? char.downcase : memo[char]
          end

          def plain(text)
            text = text.gsub(CAPITAL_I, "|") if text.include?("I")
            return text.downcase if text.ascii_only?

            text = text.gsub(ON_ITS_HEAD) { |word| "#{word} #{TURNED}#{upright(word)}#{TURN_ENDS}" } if text.match?(RARE)
            text = text.gsub(HALF_WIDTH_KANA) { |kana| kana.unicode_normalize(:nfkc) } if text.match?(HALF_WIDTH_KANA)
            text.gsub(NON_ASCII) { |run| run.length > LONGEST_REMEMBERED ? each_of(run) : runs[run] }.downcase
          end

          # A capital I behind a small letter may be an l.
          CAPITAL_I = /(?<=[a-z])I/

          def one(text, char, index)
            return "|" if char == "I" && index.positive? && text[index - 1].between?("a", "z")

            char(char)
          end

          def without_codes(folded, from)
            return [folded, from] unless folded.include?(":") && folded.match?(CODE)

            [folded.gsub(CODE, EMOTE), Places.kept(from, Places.of(folded, CODE))]
          end

          def runs
            @runs = nil if @runs && @runs.size > MOST_REMEMBERED
            @runs ||= Hash.new { |runs, run| runs[run] = each_of(run) }
          end

          def each_of(run) = run.each_char.map { |char| memo[char] }.join

          def memo
            @memo = nil if @memo && @memo.size > MOST_REMEMBERED
            @memo ||= Hash.new { |memo, char| memo[char] = read(char) }
          end

          def read(char)
            case char
            when "\u202E" then return TURNED
            when "\u202C", "\u2069" then return TURN_ENDS
            when IGNORED, STACKING then return ""
            end
            known = LOOK_ALIKES[char] and return known
            bare = char.unicode_normalize(:nfkd).gsub(STACKING, "")
            return bare.downcase if bare.ascii_only?

            drawn(bare.length == 1 ? bare : char.unicode_normalize(:nfkc))
          end

          def drawn(char)
            case char
            when /\A\p{Nd}\z/ then digit(char)
            when /\A\p{Space}\z/, "\u2800" then " "
            when /\A(?:\p{Emoji_Presentation}|\p{Extended_Pictographic})/ then EMOTE
            when AS_THEY_ARE then kana(char.downcase(:fold))
            else skeleton(char)
            end
          end

          # Decimal digits stand in rows of ten.
          def digit(char)
            code = char.ord
            row = code
            row -= 1 while code - row < 9 && [row - 1].pack("U").match?(/\p{Nd}/)
            (code - row).to_s
          end

          # Katakana reads as hiragana.
          def kana(char)
            char.gsub(/[\u30A1-\u30F6]/) { |one| [one.ord - 0x60].pack("U") }
          end

          # An "l" that comes of the table may be an i as well: it is what capital I, 1 and | become there.
          def skeleton(char)
            drawn = Unicode::Confusable.skeleton(char).gsub(STACKING, "").gsub("rn", "m").tr("l", "|")
            drawn.each_char.map { |one| LOOK_ALIKES[one] || one }.join.downcase(:fold)
          end

          private_class_method :on_their_heads, :upright, :plain, :runs, :each_of, :one, :without_codes, :memo, :read, :drawn, :digit, :kana,
            :skeleton
        end
      end
    end
  end
end
