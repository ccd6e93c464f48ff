# frozen_string_literal: true

require "uri"
require_relative "../../error"

module Bavard
  module Feeds
    module Described
      # What is asked of a host who connects a platform, or kept secret.
      #
      # each_time:: whether every broadcast has another one; part:: of a pasted address: what follows this in its path or query
      Ask = Struct.new(:name, :label, :example, :kind, :optional, :each_time, :part, keyword_init: true) do
        # @param given [String, nil] what was typed, or pasted: an address that holds it
        # @param field [String] of the form
        # @return [String, nil]
        # @raise [Bavard::Error]
        def read(given, field = name)
          value = plain(given.to_s.strip)
          return if value.empty? && optional
          return value if value.match?(self.class::KINDS.fetch(kind))

          raise Error.new("#{label}: #{value.empty? ? "this is needed" : "“#{value[0, 60]}” cannot be it"}#{", such as #{example}" if example}.",
            field:, value:)
        end

        # @param pasted [String] what was typed for another
        # @return [Boolean] whether that is an address in which this stands, by what it follows
        def stands_in?(pasted) = !part.nil? && pasted.include?("/") && !within(pasted).nil?

        private

        # A name is the same with or without the @ that is written before it.
        def plain(typed)
          typed = within(typed) || typed if kind != "text" && typed.include?("/")
          kind == "name" ? typed.delete_prefix("@").downcase : typed
        end

        # @return [String, nil] its place in an address
        def within(address)
          uri = URI(address.match?(%r{\Ahttps?://}i) ? address : "https://#{address}")
          steps = uri.path.split("/").reject(&:empty?)
          return steps.last unless part

          told = URI.decode_www_form(uri.query.to_s).assoc(part)&.last
          told || steps.index(part)&.then { |at| steps[at + 1] }
        rescue URI::Error, ArgumentError
          nil
        end
      end

      # See above.
      class Ask
        MOST = 6
        NAME = /\A[a-z]\w{0,39}\z/
        PART = /\A[\w-]{1,40}\z/
        KINDS = {"word" => /\A[\w.#-]{1,80}\z/, "name" => /\A[a-z0-9][\w-]{0,59}\z/,
                 "number" => /\A\d{1,19}\z/, "text" => /\A[^\x00-\x1f]{1,200}\z/}.freeze
        USUAL = "word"
        # What else is filled in: a permission's token, of whom is asked, and of a line of the host's its words and a mark of ours.
        FILLED = %w[token login text nonce].freeze

        # @param given [Object] by their names: a label, or an object
        # @return [Array<Ask>]
        # @yieldparam at [String] the place of what is wrong
        # @yieldparam words [String]
        def self.all(given, &problem)
          unless given.is_a?(Hash) && given.size <= MOST
            yield "", "at most #{MOST}, by their names"
            return []
          end

          (given.keys & FILLED).each { |name| yield "/#{name}", "“#{name}” is filled in by Bavard itself" }
          given.filter_map { |name, one| of(name, one, &problem) }
        end

        # @param asks [Array<Ask>] of which one is needed
        # @return [String]
        def self.wanted(asks)
          again = asks.find(&:each_time)
          needed = "Enter #{asks.map { |ask| "“#{ask.label}”" }.join(" or ")}."
          again ? "#{needed} “#{again.label}” is another one each time." : needed
        end

        def self.of(name, given)
          given = {"label" => given} if given.is_a?(String)
          return yield("/#{name}", "a plain name, with a “label” and perhaps an “example”") && nil unless name.match?(NAME) && given.is_a?(Hash)

          kind = given.fetch("kind", USUAL)
          yield "/#{name}/kind", "one of #{KINDS.keys.join(", ")}" unless KINDS.key?(kind)
          part = given["part"]
          yield "/#{name}/part", "what it follows in a pasted address, such as “watch”" unless part.nil? || (part.is_a?(String) && part.match?(PART))
          label = given["label"].to_s[0, 60]
          new(name:, label: label.empty? ? name : label, example: given["example"]&.to_s&.slice(0, 80), kind: KINDS.key?(kind) ? kind : USUAL,
            optional: given["optional"] == true, each_time: given["each_time"] == true, part:)
        end
        private_class_method :of
      end
    end
  end
end
