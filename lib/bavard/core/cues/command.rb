# frozen_string_literal: true

module Bavard
  module Core
    module Cues
      # A line of chat that asks for something: a word, then perhaps a name.
      module Command
        # Who may where a piece names nobody.
        USUAL = %w[host moderator].freeze
        ROLES = %w[viewer host moderator guest subscriber supporter].freeze
        LONGEST_REST = 120

        module_function

        # @param text [String] of a line
        # @param word [String] as the host set it, such as "!ringed"
        # @return [String, nil] what stands behind it; nil where the line does not begin with that word
        def rest(text, word)
          word = word.strip
          return if word.empty? || text.length < word.length

          head = text[0, word.length]
          return unless head.casecmp?(word)

          rest = text[word.length..]
          rest.strip[0, LONGEST_REST] if rest.empty? || rest.match?(/\A\s/)
        end

        # @param piece [Hash] with "may"
        # @param roles [Array<String>] of the person
        def may?(piece, roles) = (piece["may"].empty? ? USUAL : piece["may"]).intersect?(roles)
      end
    end
  end
end
