# frozen_string_literal: true

require_relative "../chat/cleaning"

module Bavard
  module Core
    module Cues
      # The words of a cue with what happened put into them.
      #
      #   Words.of("{name} renewed[, {months} months]", event)
      #   # => [["name", "kestrel_ann"], ["text", " renewed, "], ["months", "12"], ["text", " months"]]
      #
      # What stands in square brackets is left out where something in it is not known; elsewhere it is replaced by a word that
      # fits. Whatever viewers wrote stays text: pages put it in as such.
      module Words
        PLACES = %w[name amount months number message feed].freeze
        SOMEBODY = "somebody"
        OTHERWISE = {"name" => SOMEBODY, "amount" => "something", "months" => "some", "number" => "some", "message" => "", "feed" => ""}.freeze
        PLACE = /\{([a-z]+)\}/
        OPTIONAL = /\[([^\[\]]*)\]/
        PARTS = /#{OPTIONAL}|#{PLACE}/
        LONGEST_MESSAGE = 500

        module_function

        # @param words [String] as the host wrote them
        # @param event [Event]
        # @param feed [String, nil] its name
        # @return [Array<Array(String, String)>] what each part is, and its text
        def of(words, event, feed: nil)
          known = known(event, feed)
          joined(words.split(/(\[[^\[\]]*\])/).flat_map { |part| part.start_with?("[") ? optional(part[1..-2], known) : placed(part, known) })
        end

        # @return [Array<String>] placeholders that there are not
        def unknown(words) = words.scan(PLACE).flatten.uniq - PLACES

        def known(event, feed)
          {"name" => clean(event.name), "amount" => event.amount&.words, "months" => event.months&.to_s, "number" => event.number&.to_s,
           "message" => clean(event.message)&.slice(0, LONGEST_MESSAGE), "feed" => feed}.compact
        end

        def clean(text)
          text = Chat::Cleaning.text(text.to_s)
          text unless text.empty?
        end

        def optional(part, known)
          wanted = part.scan(PLACE).flatten & PLACES
          wanted.all? { |name| known[name] } ? placed(part, known) : []
        end

        # What is no placeholder of ours stands as it was written.
        def placed(part, known)
          part.split(/(\{[a-z]+\})/).map do |piece|
            name = piece[/\A\{([a-z]+)\}\z/, 1]
            PLACES.include?(name) ? [name, known[name] || OTHERWISE[name]] : ["text", piece]
          end
        end

        def joined(parts)
          parts.reject { |_, text| text.empty? }.slice_when { |one, other| one[0] != "text" || other[0] != "text" }
            .map { |run| [run[0][0], run.map(&:last).join] }
        end

        private_class_method :known, :clean, :optional, :placed, :joined
      end
    end
  end
end
