# frozen_string_literal: true

require "addressable/template"

module Bavard
  module Feeds
    module Described
      # Addresses with places to fill in, as URI Templates (RFC 6570): "/rooms/{room}/chat{?since}".
      class Place
        LONGEST = 1000
        WRITTEN = %r(\A(?:/|(?:https?|wss?)://[^\s/{}]+(?:/|\z|\{)|\{\+\w+\}))

        # What may be missing is asked for as {?since} or {&since}.
        NEEDED = %r(\{[+/#.;]?([a-z]\w*)[*}])

        attr_reader :names

        # @param text [Object]
        # @raise [ArgumentError]
        def initialize(text)
          raise ArgumentError, "an address is a text such as /rooms/{room}" unless text.is_a?(String) && text.length.between?(1, LONGEST)

          @template = Addressable::Template.new(text)
          @names = @template.variables
          raise ArgumentError, "“#{text}” cannot be an address" unless text.match?(WRITTEN) && !text.match?(/[\s\\]/)
        rescue Addressable::Template::InvalidTemplateOperatorError, Addressable::Template::InvalidTemplateValueError => error
          raise ArgumentError, "“#{text}” is no address: #{error.message}"
        end

        # @param values [Hash{String => String, Integer, nil}] what is not known is left out
        # @return [String]
        def fill(values) = @template.expand(values.slice(*names).compact).to_s

        # @return [Array<String>] names without which it comes to no address
        def needed = to_s.scan(NEEDED).flatten

        # @return [String] as it is written
        def to_s = @template.pattern
      end

      # Something to be sent, with places to fill in: {"op": "join", "room": "{room}"}.
      class Letter
        HOLE = /\{([a-z]\w{0,39})\}/
        WHOLE = /\A\{([a-z]\w{0,39})\}\z/
        DEEPEST = 8

        attr_reader :names

        # @param document [Object] as JSON has it
        # @raise [ArgumentError]
        def initialize(document)
          raise ArgumentError, "what is said is an object, a list or a text" unless [Hash, Array, String].any? { |kind| document.is_a?(kind) }

          @document = document
          @names = holes(document, DEEPEST).uniq
        end

        # @param values [Hash{String => Object}]
        # @return [Object] a place that stands by itself keeps its value's kind; what is not known is nil, or nothing inside of a text
        def fill(values) = filled(@document, values)

        private

        def holes(value, deep)
          raise ArgumentError, "what is said has too many levels" if deep.zero?

          case value
          when Hash then value.values.flat_map { |one| holes(one, deep - 1) }
          when Array then value.flat_map { |one| holes(one, deep - 1) }
          when String then value.scan(HOLE).flatten
          else []
          end
        end

        def filled(value, values)
          case value
          when Hash then value.transform_values { |one| filled(one, values) }
          when Array then value.map { |one| filled(one, values) }
          when WHOLE then values[Regexp.last_match(1)]
          when String then value.gsub(HOLE) { values[Regexp.last_match(1)].to_s }
          else value
          end
        end
      end
    end
  end
end
