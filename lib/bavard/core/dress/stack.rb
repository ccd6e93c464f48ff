# frozen_string_literal: true

module Bavard
  module Core
    module Dress
      # Lays overlays over the emote before them, and says whether a line is nothing but emotes.
      module Stack
        # More than this many are no small matter, however alone they are.
        MOST_ALONE = 12
        # Fragments that are no words.
        PICTURES = %i[emote emoji].freeze
        # Anything but blanks, of whatever width.
        SEEN = /[[:^space:]]/

        module_function

        # @param fragments [Array] of a line, as Chat::Fragments cuts them
        # @yieldparam emote [Emote, String] or the address of the platform's own
        # @yieldreturn [String, nil] its picture, if it is there
        # @return [Array] the same; of an emote [:emote, text, picture, ratio, moves, [text, picture] of what lies over it …]
        def of(fragments)
          fragments.each_with_object([]) do |fragment, stacked|
            kind, text, emote = fragment
            picture = kind == :emote ? yield(emote) : nil
            next stacked << (kind == :emote ? [:text, text] : fragment) unless picture

            lay(stacked, text, picture, emote)
          end
        end

        # @return [Boolean] whether nothing else is in it, and not too many of them
        def alone?(fragments)
          pictures = 0
          fragments.each do |kind, text|
            next if kind == :text && !text.match?(SEEN)
            return false unless PICTURES.include?(kind)

            pictures += 1
          end
          pictures.between?(1, MOST_ALONE)
        end

        def lay(stacked, text, picture, emote)
          ours = emote.is_a?(Emote)
          under = ours && emote.overlay ? under(stacked) : nil
          return under << [text, picture] if under

          stacked << [:emote, text, picture, ours ? emote.ratio : 0, ours && emote.animated ? 1 : 0]
        end

        # The emote right before, with nothing but a blank between.
        def under(stacked)
          stacked.pop if stacked.last && stacked.last[0] == :text && !stacked.last[1].match?(SEEN) && stacked[-2]&.first == :emote
          stacked.last if stacked.last && stacked.last[0] == :emote
        end

        private_class_method :lay, :under
      end
    end
  end
end
