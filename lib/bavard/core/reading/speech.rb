# frozen_string_literal: true

require_relative "../chat/event_words"
require_relative "../chat/spoken_name"

module Bavard
  module Core
    module Reading
      # What a voice says of a line: the name as somebody would say it, links and emotes in a few words, and nothing drawn out.
      module Speech
        LONGEST = 280
        # The same character or word in a row, beyond which nobody listens.
        STRETCHED = /([^\d\s])\1{3,}/
        REPEATED = /(?<!\S)(\S+)(?:\s+\1(?!\S)){2,}/i
        SIGNS = /[^\p{L}\p{M}\p{N}\s.,;:!?'"’“”()%€$£°&+\-–—]/
        MANY = 3

        module_function

        # @param line [Chat::Line] as it is shown: what the gate covers is not said
        # @param again [Boolean] whether the line before was by the same person
        # @return [String, nil] nil where there is nothing to say
        def of(line, again: false)
          words = said(line)
          name = Chat::SpokenName.of(line.person.display_name)
          return [name, Chat::EventWords.of(line), words].compact.join(" ").then { |text| cut(text) } if line.event?
          return if words.nil?

          cut(again ? words : "#{name} #{verb(line)}: #{words}")
        end

        # @return [String, nil] what the person said, without their name
        def message(line) = said(line)&.then { |words| cut(words) }

        def verb(line)
          return "asks" if line.text.match?(/[?？؟]\s*\z/)

          {action: "does", reply: "answers", paid: "pays and says"}.fetch(line.kind, "says")
        end

        # @return [String, nil]
        def said(line)
          text = runs(line.fragments).map { |run| run_words(run) }.join(" ").delete("●")
          text = text.gsub(STRETCHED, '\1\1').gsub(REPEATED, '\1 \1').gsub(SIGNS, " ").gsub(/\s+/, " ").gsub(/\s+([.,;:!?])/, '\1').strip
          text.match?(/[\p{L}\p{N}]/) ? text : nil
        end

        # Emotes side by side are said in one go.
        def runs(fragments)
          fragments.chunk_while { |before, after| (emote?(before) && emote?(after)) || blank_between?(before, after) }
        end

        def run_words(run)
          run = run.reject { |kind, words| kind == :text && words.strip.empty? }
          return "" if run.empty?
          return emotes(run) if emote?(run.first)

          run.map { |kind, words| word_of(kind, words) }.join(" ")
        end

        def word_of(kind, words)
          case kind
          when :link then "a link to #{words.sub(%r{\A[a-z]+://}i, "").sub(/\Awww\./i, "")[%r{\A[^/:?#]+}]}"
          when :mention then Chat::SpokenName.of(words.delete_prefix("@"))
          else words
          end
        end

        # "wren", "3 wrens", "5 emotes"
        def emotes(run)
          names = run.map { |kind, words| kind == :emote ? Chat::SpokenName.of(words.delete(":")) : "emoji" }
          return names.first if names.size == 1
          return "#{names.size} times #{names.first}" if names.uniq.size == 1

          names.size > MANY ? "#{names.size} emotes" : names.join(", ")
        end

        def emote?(fragment) = %i[emote emoji].include?(fragment[0])

        def blank_between?(before, after)
          (emote?(before) && after[0] == :text && after[1].strip.empty?) || (before[0] == :text && before[1].strip.empty? && emote?(after))
        end

        def cut(text)
          return text if text.length <= LONGEST

          "#{text[0, text.rindex(" ", LONGEST) || LONGEST]}, and more"
        end

        private_class_method :verb, :said, :runs, :run_words, :word_of, :emotes, :emote?, :blank_between?, :cut
      end
    end
  end
end
