# frozen_string_literal: true

require_relative "style_names"

module Bavard
  module Core
    module OwnCode
      # Selectors of own CSS: published names alone, and what they are joined by; no elements, no ids, no escapes.
      #
      #   OwnSelector.bound(".line.odd > .name::before", "[data-piece=\"chat1\"]")
      #   # => "[data-piece=\"chat1\"] .line.odd > .name::before"
      module OwnSelector
        NTH = /nth-(?:last-)?child\(\s*(?:odd|even|[-+]?\d*n?(?:\s*[-+]\s*\d+)?)\s*\)/
        LIST = /(?:not|is|where|has)\(\s*\.[a-z][a-z0-9-]*(?:\s*,\s*\.[a-z][a-z0-9-]*)*\s*\)/
        STATE = /::?(?:#{NTH}|#{LIST}|before|after|first-child|last-child|first-letter|first-line)/
        ATTRIBUTE = /\[\s*(?:#{StyleNames::ATTRIBUTES.keys.join("|")})\s*(?:=\s*"?[a-z_-]{1,40}"?\s*)?\]/
        COMPOUND = /(?:\*|\.[a-z][a-z0-9-]*|#{ATTRIBUTE}|#{STATE})+/
        WHOLE = /\A#{COMPOUND}(?:\s*[\s>+~]\s*#{COMPOUND})*\z/
        # What begins with the piece itself: alone, or with what stands in it. What stands beside it is another piece.
        FROM_ROOT = /\A(?=\.chat(?![a-z0-9-]))#{COMPOUND}/
        BESIDE = /\A\s*[+~]/

        module_function

        # @param text [String] perhaps several, with commas between them
        # @return [Array<String>]
        def split(text) = text.split(/,(?![^(]*\))/).map(&:strip)

        # @return [String, nil] what of it cannot stand there
        def trouble(text)
          return text unless text.match?(WHOLE)
          return text if text[FROM_ROOT]&.then { |root| text.delete_prefix(root).match?(BESIDE) }

          text.scan(/\.([a-z][a-z0-9-]*)/).flatten.find { |name| !StyleNames.class?(name) }&.then { |name| ".#{name}" }
        end

        # @return [String] for one piece alone
        def bound(text, scope) = text.match?(FROM_ROOT) ? "#{scope}#{text}" : "#{scope} #{text}"

        # @return [Boolean] whether it is the piece itself, and no part of it
        def root?(text) = text[FROM_ROOT] == text
      end
    end
  end
end
