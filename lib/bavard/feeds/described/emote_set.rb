# frozen_string_literal: true

require_relative "transports/transport"
require_relative "values"

module Bavard
  module Feeds
    module Described
      # A list of emotes that stands at an address: for everybody, or for what a feed reads.
      #
      #   {"label": "Of this channel", "ask": "/emotes/{room}.json", "items": "emotes", "code": "name",
      #    "picture": {"at": "id", "put_into": "https://pictures.example/{id}.webp"}, "overlay": "zero_width"}
      class EmoteSet
        NAMES = %w[label ask items code picture overlay].freeze
        MOST = 3000
        CODE = /\A[^\s\u0000-\u001f]{1,100}\z/
        Emote = Struct.new(:code, :picture, :overlay)

        # @return [String]
        attr_reader :name, :label
        # @return [Question]
        attr_reader :ask

        # @param given [Hash]
        # @yieldparam at [String]
        # @yieldparam words [String]
        def initialize(name, given, &problem)
          @name = name
          (given.keys - NAMES).each { |key| yield("/#{key}", "a set has no “#{key}”") }
          @label = given["label"].to_s[0, 60].then { |label| label.empty? ? name : label }
          @ask = read("ask", given, problem) { |value| Question.new(Place.new(value), nil) }
          @items = given["items"] && read("items", given, problem) { |value| Path.read(value) }
          @code = read("code", given, problem) { |value| Path.read(value) }
          @picture = read("picture", given, problem) { |value| Values::Address.new(value) }
          @overlay = given["overlay"] && read("overlay", given, problem) { |value| Values::Flag.new(value) }
        end

        # @param body [Object] as it was answered
        # @return [Array(Array<Emote>, Integer)] those that can be taken, each code once, and how many others there are
        def of(body)
          all = @items ? @items.of(body) : body
          all = all.is_a?(Hash) ? all.values : Given.list(all)
          found = all.filter_map { |one| emote(one) }.uniq(&:code).first(MOST)
          [found, all.size - found.size]
        end

        private

        def read(name, given, problem)
          raise ArgumentError, "this is missing" unless given[name]

          yield given[name]
        rescue ArgumentError => error
          problem.call("/#{name}", error.message)
          nil
        end

        def emote(item)
          code = @code.of(item)
          picture = @picture.of(item)
          Emote.new(code, picture, @overlay ? @overlay.of(item) == true : false) if code.is_a?(String) && code.match?(CODE) && picture
        end
      end
    end
  end
end
