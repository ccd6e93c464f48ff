# frozen_string_literal: true

require "cld3"

module Bavard
  module Core
    module Reading
      # Which language somebody writes in, line by line, without asking anybody: by CLD3, a small network that ships with its gem.
      #
      #   Language.of("おはようございます")   # => "ja"
      #   Language.of("lol")               # => nil
      module Language
        # Words of fewer letters are written alike in many languages; where each sign is a syllable or a word, fewer say enough.
        FEWEST_LETTERS = 8
        FEWEST_SIGNS = 2
        SYLLABLES = /[\p{Han}\p{Hiragana}\p{Katakana}\p{Hangul}\p{Thai}]/
        KANA = /[\p{Hiragana}\p{Katakana}]/
        LONGEST_BYTES = 700
        SURE = 0.8
        # A few words in Latin letters are taken for languages that hardly anybody writes ("what a bird" for Luxembourgish, "omg no way" for
        # Somali, measured with lines as they are written): below so many letters only for those that many do.
        MANY_LETTERS = 40
        LATIN = /\p{Latin}/
        WRITTEN_BY_MANY = %w[ca cs da de en es fi fr hr hu id it nl no pl pt ro sk sv tr vi].freeze
        # As the network calls them, and as everybody else does.
        CALLED = {"iw" => "he", "jw" => "jv", "fil" => "tl", "bg-latn" => "bg", "el-latn" => "el", "hi-latn" => "hi", "ja-latn" => "ja",
                  "ru-latn" => "ru", "zh-latn" => "zh"}.freeze
        NAMES = {
          "af" => "Afrikaans", "am" => "Amharic", "ar" => "Arabic", "az" => "Azerbaijani", "be" => "Belarusian", "bg" => "Bulgarian",
          "bn" => "Bengali", "bs" => "Bosnian", "ca" => "Catalan", "cs" => "Czech", "cy" => "Welsh", "da" => "Danish", "de" => "German",
          "el" => "Greek", "en" => "English", "eo" => "Esperanto", "es" => "Spanish", "et" => "Estonian", "eu" => "Basque", "fa" => "Persian",
          "fi" => "Finnish", "fr" => "French", "ga" => "Irish", "gd" => "Scottish Gaelic", "gl" => "Galician", "gu" => "Gujarati",
          "he" => "Hebrew", "hi" => "Hindi", "hr" => "Croatian", "ht" => "Haitian Creole", "hu" => "Hungarian", "hy" => "Armenian",
          "id" => "Indonesian", "is" => "Icelandic", "it" => "Italian", "ja" => "Japanese", "ka" => "Georgian", "kk" => "Kazakh",
          "km" => "Khmer", "kn" => "Kannada", "ko" => "Korean", "ku" => "Kurdish", "ky" => "Kyrgyz", "la" => "Latin", "lb" => "Luxembourgish",
          "lo" => "Lao", "lt" => "Lithuanian", "lv" => "Latvian", "mi" => "Maori", "mk" => "Macedonian", "ml" => "Malayalam",
          "mn" => "Mongolian", "mr" => "Marathi", "ms" => "Malay", "mt" => "Maltese", "my" => "Burmese", "ne" => "Nepali", "nl" => "Dutch",
          "no" => "Norwegian", "pa" => "Punjabi", "pl" => "Polish", "ps" => "Pashto", "pt" => "Portuguese", "ro" => "Romanian",
          "ru" => "Russian", "sd" => "Sindhi", "si" => "Sinhala", "sk" => "Slovak", "sl" => "Slovenian", "so" => "Somali", "sq" => "Albanian",
          "sr" => "Serbian", "sv" => "Swedish", "sw" => "Swahili", "ta" => "Tamil", "te" => "Telugu", "th" => "Thai", "tl" => "Filipino",
          "tr" => "Turkish", "uk" => "Ukrainian", "ur" => "Urdu", "uz" => "Uzbek", "vi" => "Vietnamese", "yi" => "Yiddish", "zh" => "Chinese",
          "zu" => "Zulu"
        }.freeze

        module_function

        # @param text [String] as a viewer wrote it
        # @return [String, nil] its code of two or three letters; nil where it is too short to say, or nobody is sure
        def of(text)
          letters = text.scan(/\p{L}/)
          return if letters.size < (text.match?(SYLLABLES) ? FEWEST_SIGNS : FEWEST_LETTERS)

          found = network.find_language(text.byteslice(0, LONGEST_BYTES).scrub("")) or return
          code = found.language.to_s
          # What is written in characters alone, without kana, is Chinese.
          return "ja" if text.match?(KANA)
          return ("zh" if text.match?(/\p{Han}/)) if %w[ja zh].include?(code)

          code = CALLED.fetch(code.downcase, code)
          code if found.reliable? && found.probability >= SURE && likely?(code, letters)
        end

        def likely?(code, letters)
          letters.size >= MANY_LETTERS || WRITTEN_BY_MANY.include?(code) || !letters.first.match?(LATIN)
        end

        # @param code [String]
        # @return [String] in English, or the code of one that few know
        def name(code) = NAMES.fetch(code, code)

        # One for each thread: it keeps notes of its own while it looks.
        def network = Thread.current[:bavard_language] ||= CLD3::NNetLanguageIdentifier.new(0, LONGEST_BYTES)
        private_class_method :likely?, :network
      end
    end
  end
end
