# frozen_string_literal: true

require_relative "font"

module Bavard
  module Core
    module Reading
      # The shipped faces to measure with: each is in a few files, one for each stretch of characters.
      #
      #   type = TypeCase.new({"Bitter" => ["bitter-latin.ttf", "bitter-latin-ext.ttf"]})
      #   type.width("Bitter", 500, "can we see the wing again?")   # => 12.84, in em
      #
      # Characters no file of a face has are estimated; a page draws them in another face.
      class TypeCase
        OWN = /\Aown-[0-9a-f]{32}\z/
        REMEMBERED = 20_000
        # What stands in: emoji and East Asian letters are about square, all others about as wide as an average letter.
        EMOJI_EM = 1.28
        WIDE_EM = 1.0
        OTHER_EM = 0.58
        WIDE = /[\p{Han}\p{Hiragana}\p{Katakana}\p{Hangul}]/
        PLAIN = /[\u0000-\u024F\u2000-\u206F\u20A0-\u20CF\u2122]+/

        # @param files [Hash{String => Array<String>}] paths by family; the first has the common letters
        # @param own [String, nil] folder with the hosts' own faces, each as <family>.ttf
        def initialize(files, own: nil)
          @files = files.dup
          @own = own
          @fonts = {}
          @known = {}
        end

        def families = @files.keys

        # @return [Float] in em; of a face we have no file of, as of the first one we have
        # @param stretch [Integer] the width of letters in percent, for faces that have several
        def width(family, weight, text, stretch = 100)
          key = [family, weight, text, stretch]
          @known.clear if @known.size > REMEMBERED
          @known[key] ||= measure(known?(family) ? family : @files.keys.first, weight, text, stretch)
        end

        # @return [Boolean] whether every character is measured and none estimated
        def certain?(family, weight, text)
          known?(family) && runs(text).all? do |run, plain|
            plain && run.each_grapheme_cluster.all? { |letter| fonts(family, weight).any? { |font| font.covers?(letter) } }
          end
        end

        private

        # A face of a host's own is found when it is first measured with.
        def known?(family)
          return true if @files.key?(family)
          return false unless @own && family.match?(OWN)

          path = File.join(@own, "#{family}.ttf")
          File.exist?(path) && (@files[family] = [path]) && true
        end

        def measure(family, weight, text, stretch)
          runs(text).sum { |run, plain| plain ? plain_width(fonts(family, weight, stretch), run) : other_width(run) }
        end

        # In one piece where one file has it all, else letter by letter.
        def plain_width(fonts, run)
          font = fonts.find { |one| one.covers?(run) }
          return font.width(run) if font

          run.each_grapheme_cluster.sum { |letter| fonts.find { |one| one.covers?(letter) }&.width(letter) || OTHER_EM }
        end

        def other_width(run)
          run.each_grapheme_cluster.sum do |letter|
            next EMOJI_EM if letter.match?(/\p{Emoji_Presentation}|\p{Extended_Pictographic}/)

            letter.match?(WIDE) ? WIDE_EM : OTHER_EM
          end
        end

        # @return [Array<Array(String, Boolean)>] stretches, and whether the shipped files may have them
        def runs(text)
          return [[text, true]] if text.match?(/\A#{PLAIN}\z/o)

          text.split(/(#{PLAIN})/o).reject(&:empty?).map { |run| [run, run.match?(/\A#{PLAIN}\z/o)] }
        end

        def fonts(family, weight, stretch = 100)
          @fonts[[family, weight, stretch]] ||= @files.fetch(family).map { |path| Font.new(path, weight, stretch) }
        end
      end
    end
  end
end
