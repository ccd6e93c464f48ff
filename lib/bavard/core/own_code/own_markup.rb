# frozen_string_literal: true

require "strscan"
require_relative "style_names"

module Bavard
  module Core
    module OwnCode
      # A template for a line: a few elements with classes of the host's own, and placeholders for its parts. A page builds
      # it element by element, so that it can hold nothing else.
      #
      #   OwnMarkup.read('<b class="own-who">{name}</b>: {text}').tree
      #   # => [["b", "own-who", [["{name}"]]], ": ", ["{text}"]]
      class OwnMarkup
        LONGEST = 4000
        ELEMENTS = %w[b i em strong small span div sup sub].freeze
        PARTS = %w[mark avatar badges time name text paid].freeze
        DEEPEST = 12

        # @return [OwnMarkup] with tree and errors
        def self.read(text) = new(text.to_s[0, LONGEST])

        # tree:: [element, class or nil, children] | ["{part}"] | String; nil where there is none, or it is not usable
        # errors:: line and words each
        attr_reader :tree, :errors

        def initialize(text)
          @scanner = StringScanner.new(text)
          @errors = []
          read = text.strip.empty? ? nil : children(nil, 0)
          wrong("It shows no {text}.") if read && !shows?(read, "text")
          @tree = read if @errors.empty?
        end

        private

        def children(inside, depth)
          found = []
          until @scanner.eos?
            return found if closing?(inside)

            child = child(depth)
            found << child if child
          end
          wrong("<#{inside}> has no end.") if inside
          found
        end

        def closing?(inside)
          return false unless @scanner.check(%r{</})

          name = @scanner.scan(%r{</\s*([a-zA-Z0-9]*)\s*>?}) && @scanner[1]
          wrong("</#{name}> ends nothing.") unless name == inside
          true
        end

        def child(depth)
          if @scanner.scan(/\{([a-z]+)\}/) then part(@scanner[1])
          elsif @scanner.scan(/<([a-zA-Z0-9]+)([^<>]*)>/) then element(@scanner[1], @scanner[2], depth)
          elsif @scanner.scan(/[^<{]+/) then @scanner.matched.gsub(/\s+/, " ")
          else
            wrong("“#{@scanner.getch}” cannot stand here.")
          end
        end

        def part(name)
          PARTS.include?(name) ? ["{#{name}}"] : wrong("There is no {#{name}}; there are #{PARTS.map { |one| "{#{one}}" }.join(" ")}.")
        end

        def element(name, attributes, depth)
          wrong("<#{name}> is not used here; #{ELEMENTS.join(", ")} are.") unless ELEMENTS.include?(name)
          wrong("It goes too deep.") if depth >= DEEPEST
          [name, class_of(attributes.strip), depth < DEEPEST ? children(name, depth + 1) : []]
        end

        def class_of(attributes)
          return if attributes.empty?

          names = attributes[/\Aclass\s*=\s*"([^"]*)"\z/, 1]
          return wrong("An element has a class and nothing else: class=\"own-…\".") unless names
          return names.strip if names.split.all? { |one| one.match?(StyleNames::OWN_CLASS) }

          wrong("Own classes begin with “own-”.")
        end

        def shows?(tree, part)
          tree.any? { |node| node == ["{#{part}}"] || (node.is_a?(Array) && node.size == 3 && shows?(node[2], part)) }
        end

        # @return [nil]
        def wrong(words)
          @errors << [@scanner.string[0, @scanner.charpos].count("\n") + 1, words]
          nil
        end
      end
    end
  end
end
