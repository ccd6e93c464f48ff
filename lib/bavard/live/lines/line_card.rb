# frozen_string_literal: true

require_relative "../../core/chat/event_words"
require_relative "../../core/dress/stack"
require_relative "../pictures/wardrobe"

module Bavard
  module Live
    # A line as it goes to a page: plain data, drawn there with text nodes only, so that nothing a viewer writes is ever
    # read as markup.
    #
    # i: id, t: the time it stands by, n: name, c: the name's colour, k: kind, m: [shape, colour] of its feed,
    # f: fragments: [kind, text]; of an emote [kind, text, picture, ratio, moves, [text, picture] of what lies over it …]
    # b: badges [kind, words, picture or null, letter, colour], x: 1 where there is nothing but emotes,
    # o: origin where it is not a feed, r: what it answers to (n: whose, t: words), v: what was paid,
    # w: 1 where it is a person's first line, e: what happened, of an event
    # Some pieces add: d: the name's colour in their other form, p: the plate's, a: avatar, h: the time, l: why it stands out
    module LineCard
      module_function

      # @param line [Core::Chat::Line]
      # @param colour [String] "#rrggbb"
      # @param mark [Array(String, String)]
      # @param wardrobe [Wardrobe, nil]
      # @param name [String]
      # @return [Hash]
      def of(line, colour, mark, wardrobe, name: line.person.display_name)
        card = {i: line.id, t: line.shown_at_ms, n: name, c: colour, k: line.kind, m: mark, f: fragments(line, wardrobe)}
        badges = wardrobe ? wardrobe.badges(line) : Wardrobe::NONE
        card[:b] = badges.map(&:to_a) if badges.any?
        card[:x] = 1 if Core::Dress::Stack.alone?(line.fragments)
        card[:o] = line.origin unless line.origin == :feed
        about(card, line)
      end

      # What only some lines have.
      # @return [Array<Array>] the text alone, as pages draw it
      def fragments_of(line, wardrobe) = fragments(line, wardrobe)

      def about(card, line)
        card[:r] = {n: line.reply.name, t: line.reply.text} if line.reply
        card[:v] = line.paid.words if line.paid
        card[:w] = 1 if line.first_time
        card[:e] = Core::Chat::EventWords.of(line) if line.event?
        card
      end

      # @param form [String] minutes, seconds or age, which the page counts itself
      # @return [String] when it was said, where the host is
      def time(line, form)
        Time.at(line.shown_at_ms / 1000).strftime(form == "seconds" ? "%H:%M:%S" : "%H:%M")
      end

      # An emote whose picture is not there (yet) stays the word it was.
      def fragments(line, wardrobe)
        return line.fragments unless line.fragments.any? { |fragment| fragment[0] == :emote }

        Core::Dress::Stack.of(line.fragments) do |emote|
          emote.is_a?(String) ? wardrobe&.platform_picture(line.feed_id, emote) : emote.picture
        end
      end

      private_class_method :about, :fragments
    end
  end
end
