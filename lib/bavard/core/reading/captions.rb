# frozen_string_literal: true

require_relative "../chat/cleaning"

module Bavard
  module Core
    module Reading
      # Captions: read from a WebVTT file, or cut from what somebody posts, so that each stands as long as it takes to read.
      module Captions
        # from_ms and to_ms:: from the beginning of the file
        Caption = Struct.new(:from_ms, :to_ms, :text)
        LONGEST_FILE = 200 * 1024
        MOST = 5000
        # A caption longer than this becomes several.
        LONGEST = 84
        TIME = /(?:(\d{1,3}):)?([0-5]\d):([0-5]\d)[.,](\d{3})/
        TIMING = /\A\s*#{TIME}\s+-->\s+#{TIME}/
        TAG = %r{</?[^<>]*>}
        ESCAPES = {"&amp;" => "&", "&lt;" => "<", "&gt;" => ">", "&nbsp;" => " ", "&lrm;" => "", "&rlm;" => ""}.freeze

        module_function

        # @param file [String] W3C WebVTT, or SubRip, which differs little
        # @return [Array<Caption>] in the order of their beginnings; what cannot be read is passed over
        def parse(file)
          text = file.to_s.dup.force_encoding(Encoding::UTF_8).scrub("").delete("\0").delete_prefix("\uFEFF").gsub(/\r\n?/, "\n")
          found = text[0, LONGEST_FILE].split(/\n{2,}/).filter_map { |block| caption(block) }
          found.sort_by.with_index { |one, index| [one.from_ms, index] }.first(MOST)
        end

        # @param text [String] as it was posted
        # @return [Array<String>] each short enough to be read in one go
        def cut(text)
          Chat::Cleaning.text(text.to_s).split(/(?<=[.!?…。！？])\s+/).flat_map { |sentence| pieces(sentence) }.reject(&:empty?)
        end

        # @param piece [Hash] a captions piece
        # @return [Integer] how long somebody takes to read it, within the piece's bounds
        def stays_ms(piece, text)
          least_s, longest_s = piece.values_at("least_s", "longest_s")
          (text.length * 1000.0 / piece["reading_speed"]).round.clamp((least_s * 1000).round, ([longest_s, least_s].max * 1000).round)
        end

        def caption(block)
          lines = block.lines.map(&:chomp)
          at = lines.index { |line| line.match?(TIMING) } or return
          found = TIMING.match(lines[at])
          words = Chat::Cleaning.text(lines.drop(at + 1).join(" ").gsub(TAG, "").gsub(/&\w+;/) { |escaped| ESCAPES.fetch(escaped, escaped) })
          from_ms, to_ms = found.captures.each_slice(4).map { |parts| ms(parts) }
          Caption.new(from_ms, to_ms, words) if to_ms > from_ms && !words.empty?
        end

        def ms((hours, minutes, seconds, thousandths))
          (((((hours.to_i * 60) + minutes.to_i) * 60) + seconds.to_i) * 1000) + thousandths.to_i
        end

        # At blanks, each about as long as the others: none is one word that is left over.
        def pieces(sentence)
          return [sentence] if sentence.length <= LONGEST

          fewest = (sentence.length / LONGEST.to_f).ceil
          parts = (fewest..).lazy.map { |count| even_parts(sentence, count) }
            .find { |all| all.all? { |part| part.length <= LONGEST || !part.include?(" ") } }
          parts.flat_map { |part| part.scan(/.{1,#{LONGEST}}/o) }
        end

        # A word belongs to the part that its middle is in.
        def even_parts(sentence, count)
          even = sentence.length.fdiv(count)
          said = 0
          parts = sentence.split.group_by do |word|
            middle = said + (word.length / 2.0)
            said += word.length + 1
            (middle / even).floor
          end
          parts.values.map { |words| words.join(" ") }
        end
        private_class_method :caption, :ms, :pieces, :even_parts
      end
    end
  end
end
