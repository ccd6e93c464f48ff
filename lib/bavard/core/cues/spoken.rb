# frozen_string_literal: true

require_relative "../chat/spoken_name"
require_relative "../reading/language"
require_relative "../reading/speech"

module Bavard
  module Core
    module Cues
      # What is said aloud with a cue: who it was, its sentence, their message, each as the sheet has it. The sentence is in the host's
      # language, the message in its own where there is a voice for it; where there is none, the voice says in which language it is.
      module Spoken
        # language:: nil: the host's
        Part = Struct.new(:text, :language)
        LONGEST = 400

        module_function

        # @param cue [Hash]
        # @return [Boolean] whether anything of it may be said
        def any?(cue) = cue["spoken_name"] || cue["spoken_words"] || cue["aloud"]

        # @return [Hash] how it is said: voice, speed and pitch in hundredths of the usual, seconds at most
        def manner(cue) = %i[voice speed pitch most_s].to_h { |name| [name, cue["spoken_#{name}"]] }

        # @param cue [Hash]
        # @param words [Array<Array(String, String)>] as {Words.of} gives them
        # @param name [String] as it may be seen
        # @param line [Chat::Line, nil] with the message, as it is shown: what the gate covers is not said
        # @param voices [#include?, nil] codes of languages that there are voices for; nil: the page has its own
        # @return [Array<Part>]
        def parts(cue, words:, name:, line: nil, voices: nil)
          sentence = cue["spoken_words"] ? sentence(words) : (cue["spoken_name"] && Chat::SpokenName.of(name))
          message = cue["aloud"] && line && Reading::Speech.message(line)
          [(Part.new(sentence[0, LONGEST], nil) if sentence && !sentence.empty?), (message(message, cue, voices) if message)].compact
        end

        # As one would say it: names without their signs, and nothing that is covered.
        def sentence(words)
          words.map { |kind, text| kind == "name" ? Chat::SpokenName.of(text) : text.delete("●") }.join.gsub(/\s+/, " ").strip
        end

        def message(text, cue, voices)
          language = Reading::Language.of(text)
          language = nil if language == home(cue)
          return Part.new(text, language) if language.nil? || voices.nil? || voices.include?(language)

          Part.new("something in #{Reading::Language.name(language)}", nil)
        end

        # @return [String] the language of the cue's own voice
        def home(cue) = cue["spoken_voice"][/\A[a-z]+/i].to_s.downcase

        private_class_method :sentence, :message
      end
    end
  end
end
