# frozen_string_literal: true

require "nokogiri"

module Bavard
  module Feeds
    module Described
      # The words of a text that comes as HTML or Markdown: what would be read of it, never how it would be drawn.
      #
      #   PlainWords.html("see <b>the</b> <img alt=\":wren:\"><br>now")   # => "see the :wren: now"
      module PlainWords
        # What stands by itself has a space around it.
        APART = %w[br p div li tr h1 h2 h3 h4 h5 h6 blockquote].to_h { |name| [name, true] }.freeze
        # Nothing of these is read.
        UNREAD = %w[script style template head title noscript].to_h { |name| [name, true] }.freeze
        MARKUP = /[<&]/
        # What is marked, and the mark: **loud**, __loud__, ~~gone~~, `code`, [words](address), ![words](address)
        LINK = /!?\[([^\[\]]{0,400})\]\([^()\s]{0,2000}\)/
        MARKS = /(?<!\\)(\*{1,3}|__|~~|`{1,3})(?=\S)([^*_~`\n]{1,2000}?)(?<=\S)\1/
        ESCAPED = /\\([\\`*_{}\[\]()#+\-.!~>|])/

        module_function

        # @param text [String]
        # @return [String]
        def html(text)
          return text unless text.match?(MARKUP)

          words = +""
          read(Nokogiri::HTML4.fragment(text), words)
          words = words.gsub(/[[:space:]]+/, " ").strip
          # What is nested too deep for a parser is read without its tags.
          words.empty? ? text.gsub(/<[^<>]*>/, " ").strip : words
        end

        # @param text [String]
        # @return [String]
        def markdown(text)
          text.gsub(LINK, '\1').gsub(MARKS, '\2').gsub(/^\s{0,3}(?:>|\#{1,6}\s)\s?/, "").gsub(ESCAPED, '\1')
        end

        def read(top, words)
          below = [top]
          while (node = below.pop)
            case node
            when String then words << node
            when Nokogiri::XML::Text then words << node.text
            else element(node, words, below)
            end
          end
        end

        def element(node, words, below)
          return if UNREAD.key?(node.name)

          words << node["alt"].to_s if node.name == "img"
          apart = APART.key?(node.name)
          words << " " if apart
          below << " " if apart
          below.concat(node.children.to_a.reverse)
        end
        private_class_method :read, :element
      end
    end
  end
end
