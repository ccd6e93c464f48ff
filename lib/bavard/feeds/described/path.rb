# frozen_string_literal: true

require "jmespath"

module Bavard
  module Feeds
    module Described
      # A place in what a platform sends, as JMESPath writes it; read once, followed for each frame. Whatever comes, following it never
      # fails: what is not there is nil.
      #
      #   Path.read("user.names[0]").of({"user" => {"names" => ["Ann"]}})   # => "Ann"
      class Path
        # Those are followed by themselves.
        PLAIN = /\A(?:[A-Za-z_]\w*|\[\d{1,4}\])(?:\.[A-Za-z_]\w*|\[\d{1,4}\])*\z/
        STEP = /[A-Za-z_]\w*|\d+/
        LONGEST = 500
        # It asks for a host's patience, and for none of a viewer's: no function goes through all pairs of what it is given.
        NOT_TAKEN = %w[sort_by max_by min_by map].freeze
        # What JMESPath takes for no.
        NOTHING = [nil, false, "", [], {}].freeze

        attr_reader :text

        # @param text [Object] as a description has it
        # @return [Path]
        # @raise [ArgumentError] that says what is wrong with it
        def self.read(text)
          raise ArgumentError, "a path is words such as user.name" unless text.is_a?(String) && !text.strip.empty?
          raise ArgumentError, "a path has at most #{LONGEST} characters" if text.length > LONGEST

          new(text.strip)
        end

        # @raise [ArgumentError]
        def initialize(text)
          @text = text
          @steps = text.scan(STEP).map { |step| step.match?(/\A\d/) ? step.to_i : step }.freeze if text.match?(PLAIN)
          @first, @second = @steps if @steps && @steps.size <= 2 && @steps.all?(String)
          @node = JMESPath::Parser.new.parse(text).optimize unless @steps
          unwanted = NOT_TAKEN.find { |name| text.match?(/\b#{name}\s*\(/) }
          raise ArgumentError, "#{unwanted} is not taken here" if unwanted
        rescue JMESPath::Errors::Error => error
          raise ArgumentError, "“#{text}” is no path: #{error.message.lines.first.strip}"
        end

        # @param data [Object] as JSON has it
        # @return [Object, nil]
        def of(data)
          return named(data) if @first
          return dig(data) if @steps

          begin
            @node.visit(data)
          rescue StandardError
            nil # a function that was given what it cannot take
          end
        end

        # @return [Boolean] as JMESPath has it: neither nil, false, nor empty
        def true_of?(data) = !NOTHING.include?(of(data))

        # @return [Boolean] whether what one of them reads is in what the other does
        def meets?(other)
          ours, theirs = [self, other].map { |path| path.text[/\A@?[\w.]*/] }
          ours == theirs || "#{ours}.".start_with?("#{theirs}.") || "#{theirs}.".start_with?("#{ours}.")
        end

        private

        # One name or two, as nearly all are.
        def named(data)
          return unless data.is_a?(Hash)

          value = data[@first]
          return value unless @second

          value.is_a?(Hash) ? value[@second] : nil
        end

        def dig(data)
          @steps.each do |step|
            data = case step
                   when String then data.is_a?(Hash) ? data[step] : nil
                   else data.is_a?(Array) ? data[step] : nil
            end
            return nil if data.nil?
          end
          data
        end
      end

      # When a rule holds. That something equals a word is what nearly all of them ask, so rules are found by it.
      class Condition
        EQUALS = /\A\s*([A-Za-z_][\w.]*)\s*==\s*'([^'\\]*)'\s*\z/

        # path:: and the word that it has to be, where that is all of it
        attr_reader :path, :word

        # @param text [String]
        # @raise [ArgumentError]
        def initialize(text)
          match = EQUALS.match(text.to_s)
          @path = Path.read(match ? match[1] : text)
          @word = match && match[2]
        end

        def holds?(data) = word ? path.of(data) == word : path.true_of?(data)
      end
    end
  end
end
