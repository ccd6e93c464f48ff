# frozen_string_literal: true

require "strscan"
require_relative "../code_points"

module Bavard
  module Core
    module Chat
      # Cuts the text of a line, once, on arrival, into what it is made of.
      #
      #   Fragments.cut("hi @Odalys 🌅 see reedmere.example")
      #   # => [[:text, "hi "], [:mention, "@Odalys"], [:text, " "], [:emoji, "🌅"], [:text, " see "], [:link, "reedmere.example"]]
      #
      # A fragment is a frozen pair of kind and text; the texts together are the line as it came. An emote's has a third
      # part: the Dress::Emote of a shelf, or the address of the platform's own picture.
      module Fragments
        TOP_LEVEL = "[a-z]{2,24}"
        MENTION = /(?<![\p{L}\p{N}_])@[\p{L}\p{N}_](?:[\p{L}\p{M}\p{N}_.-]{0,62}[\p{L}\p{M}\p{N}_])?/
        HOST = /(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.){1,8}#{TOP_LEVEL}\b/
        LINK = %r{(?<![\w@.])(?:https?://[^[:space:]<>"]{1,2000}|#{HOST.source}(?::\d{1,5})?(?:/[^[:space:]<>"]{0,2000})?)}i
        MARKED = Regexp.union(MENTION, LINK)
        TRAILING = /(?<![.,;:!?'"»)\]])[.,;:!?'"»)\]]+\z/
        # Digits, "#" and "*" have the Emoji property too, but are one only under an enclosing keycap.
        MAYBE_EMOJI = /[\p{Emoji}&&[^0-9#*]]|[0-9#*]\uFE0F?\u20E3/
        BEFORE_EMOJI = /(?=#{MAYBE_EMOJI})/
        CLUSTER = /\X/
        # An emoji of one character that nothing is added to, told without looking for the end of its cluster.
        ALONE = /[\p{Emoji_Presentation}&&[^\p{Regional_Indicator}]](?![\p{M}\p{Cf}\p{Emoji_Modifier}])/
        KEYCAP = /[0-9#*]\uFE0F?\u20E3/
        EMOJI_CLUSTER =
          /\A(?:\p{Emoji_Presentation}|\p{Emoji}\uFE0F|\p{Regional_Indicator}{2}|#{KEYCAP}|\p{Emoji_Modifier_Base}\p{Emoji_Modifier})/

        module_function

        # @param text [String] valid UTF-8
        # @param placed [Array] emotes the platform points out: [offset, length, address] in code points, in order
        # @param emotes [#cut, nil] gives the fragments of a text on a feed, or nil where no emote is in it
        # @param feed_id [Integer, nil]
        # @return [Array<Array(Symbol, String)>]
        def cut(text, placed: nil, emotes: nil, feed_id: nil)
          return [] if text.empty?

          found = placed.nil? || placed.empty? ? cut_plain(text, []) : around(text, placed)
          emotes ? dressed(found, emotes, feed_id) : found
        end

        def cut_plain(text, found)
          return found if text.empty?
          return emoji_or_text(text, found) unless text.include?("@") || text.include?(".") || text.include?("://")

          cut_marked(text, found)
        end

        def around(text, placed)
          found = []
          position = 0
          letters = CodePoints.of(text)
          placed.each do |from, length, address|
            cut_plain(letters.part(position, from - position), found)
            found << [:emote, letters.part(from, length), address].freeze
            position = from + length
          end
          cut_plain(letters.rest(position), found)
        end

        # Most lines have no emote of a shelf in them: those stay as they are.
        def dressed(found, emotes, feed_id)
          worn = nil
          found.each_with_index do |fragment, index|
            parts = fragment[0] == :text ? emotes.cut(fragment[1], feed_id) : nil
            worn ||= found[0, index] if parts
            worn&.concat(parts || [fragment])
          end
          worn || found
        end

        # By bytes, as all that goes through a text: its characters would be counted from the beginning each time.
        def cut_marked(text, found)
          scanner = StringScanner.new(text, fixed_anchor: true)
          position = 0
          while scanner.search_full(MARKED, true, false)
            taken = scanner.matched
            from = scanner.pos - scanner.matched_size
            kind = taken.start_with?("@") ? :mention : :link
            taken = taken.sub(TRAILING, "") if kind == :link
            emoji_or_text(text.byteslice(position, from - position), found) if from > position
            found << [kind, taken].freeze
            scanner.pos = position = from + taken.bytesize
          end
          emoji_or_text(text.byteslice(position..), found) if position < text.bytesize
          found
        end

        # Jumps from one character that may begin an emoji to the next and takes its whole grapheme cluster.
        def emoji_or_text(text, found)
          scanner = StringScanner.new(text)
          plain_from = 0
          while scanner.skip_until(BEFORE_EMOJI)
            from = scanner.pos
            cluster = scanner.scan(ALONE) || clustered(scanner) or next

            found << [:text, text.byteslice(plain_from, from - plain_from)].freeze if from > plain_from
            found << [:emoji, cluster].freeze
            plain_from = scanner.pos
          end
          found << [:text, text.byteslice(plain_from..)].freeze if plain_from < text.bytesize
          found
        end

        # @return [String, nil] the cluster that stands there, where it is one; behind it either way
        def clustered(scanner) = scanner.scan(CLUSTER).then { |cluster| cluster if emoji?(cluster) }

        # @param cluster [String] one grapheme cluster (UAX #29)
        # @return [Boolean] whether it is drawn as an emoji (UTS #51, emoji presentation)
        def emoji?(cluster)
          return false if cluster.length == 1 && cluster.ord < 0x2000

          cluster.match?(EMOJI_CLUSTER)
        end

        private_class_method :cut_plain, :around, :dressed, :cut_marked, :emoji_or_text, :clustered
      end
    end
  end
end
