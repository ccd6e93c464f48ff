# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Feeds
    module Described
      # What is asked of a host who connects a platform, or kept secret.
      Ask = Struct.new(:name, :label, :example, :kind, :optional) do
        # @param given [String, nil] what was typed
        # @param field [String] of the form
        # @return [String, nil]
        # @raise [Bavard::Error]
        def read(given, field = name)
          value = given.to_s.strip
          return if value.empty? && optional
          return value if value.match?(self.class::KINDS.fetch(kind))

          raise Error.new("#{label}: #{value.empty? ? "this is needed" : "“#{value[0, 60]}” cannot be it"}#{", such as #{example}" if example}.",
            field:, value:)
        end
      end

      # See above.
      class Ask
        MOST = 6
        NAME = /\A[a-z]\w{0,39}\z/
        KINDS = {"word" => /\A[\w.#-]{1,80}\z/, "number" => /\A\d{1,19}\z/, "text" => /\A[^\x00-\x1f]{1,200}\z/}.freeze
        USUAL = "word"

        # @param given [Object] by their names: a label, or an object
        # @return [Array<Ask>]
        # @yieldparam at [String] the place of what is wrong
        # @yieldparam words [String]
        def self.all(given, &problem)
          return given.filter_map { |name, one| of(name, one, &problem) } if given.is_a?(Hash) && given.size <= MOST

          yield "", "at most #{MOST}, by their names"
          []
        end

        def self.of(name, given)
          given = {"label" => given} if given.is_a?(String)
          return yield("/#{name}", "a plain name, with a “label” and perhaps an “example”") && nil unless name.match?(NAME) && given.is_a?(Hash)

          kind = given.fetch("kind", USUAL)
          yield "/#{name}/kind", "one of #{KINDS.keys.join(", ")}" unless KINDS.key?(kind)
          label = given["label"].to_s[0, 60]
          new(name, label.empty? ? name : label, given["example"]&.to_s&.slice(0, 80), KINDS.key?(kind) ? kind : USUAL, given["optional"] == true)
        end
        private_class_method :of
      end
    end
  end
end
