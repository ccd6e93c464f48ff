# frozen_string_literal: true

require "strscan"
require_relative "values"

module Bavard
  module Feeds
    module Described
      # Where a platform's emotes are in a text, in each of the ways in which platforms say so.
      #
      #   {"ranges": "emotes", "from": "start", "to": "end", "picture": "url", "count": "utf16"}
      #   {"marks": ["[:", ":]"], "picture": {"at": "@", "put_into": "https://…/{id}.png"}}
      #   {"codes": "emojis", "code": "name", "around": [":", ":"], "picture": "url"}
      #   {"parts": "content", "text": "words", "picture": "emote.url"}
      module Emotes
        MOST = Core::Chat::Placed::MOST

        # @param given [Hash]
        # @return [Ranges, Marks, Codes, Parts]
        # @raise [ArgumentError]
        def self.read(given)
          kind = {"ranges" => Ranges, "marks" => Marks, "codes" => Codes, "parts" => Parts}.find { |name, _| given.is_a?(Hash) && given.key?(name) }
          raise ArgumentError, "emotes are told by “ranges”, “marks”, “codes” or “parts”" unless kind

          kind.last.new(given)
        end

        # By where they begin and how long they are, or where they end, in a unit of the platform's own.
        class Ranges
          UNITS = {"code points" => :code_points, "utf16" => :utf16, "bytes" => :bytes}.freeze
          NAMES = %w[ranges from length to last picture count].freeze

          def initialize(given)
            unknown = given.keys - NAMES
            raise ArgumentError, "there is no “#{unknown.first}” here" if unknown.any?

            @list = Path.read(given["ranges"])
            @from = Values::Whole.new(given["from"])
            @end, how = %w[length to last].filter_map { |name| [given[name], name] if given[name] }.first
            raise ArgumentError, "say their “length”, or the place they go “to”, or their “last” character" unless how

            @end = Values::Whole.new(@end)
            @how = how
            @picture = Values::Address.new(given["picture"])
            @unit = UNITS.fetch(given.fetch("count", "code points")) { raise ArgumentError, "“count” is one of #{UNITS.keys.join(", ")}" }
          end

          # @return [Array(String, Core::Chat::Placed)] the text, and where emotes are in it
          def of(data, text)
            ranges = Given.list(@list.of(data)).first(MOST).filter_map { |one| range(one) }
            [text, ranges.empty? ? nil : Core::Chat::Placed.new(@unit, ranges)]
          end

          private

          def range(one)
            from = @from.of(one)
            finish = @end.of(one)
            picture = @picture.of(one)
            return unless from && finish && picture

            [from, {"length" => finish, "to" => finish - from, "last" => finish - from + 1}.fetch(@how), picture]
          end
        end

        # By marks inside the text around a code, which stays what is read where there is no picture.
        class Marks
          LONGEST_CODE = 80

          def initialize(given)
            unknown = given.keys - %w[marks picture]
            raise ArgumentError, "there is no “#{unknown.first}” here" if unknown.any?

            before, behind = given["marks"]
            raise ArgumentError, "“marks” are what stands before a code and behind it" unless [before, behind].all? do |mark|
              mark.is_a?(String) && !mark.empty?
            end

            @picture = Values::Address.new(given["picture"])
            @pattern = /#{Regexp.escape(before)}(.{1,#{LONGEST_CODE}}?)#{Regexp.escape(behind)}/m
          end

          # By bytes, for characters would be counted from the beginning each time.
          #
          # @return [Array(String, Core::Chat::Placed)]
          def of(_data, text)
            scanner = StringScanner.new(text)
            ranges = []
            at = read_to = 0
            while ranges.size < MOST && scanner.skip_until(@pattern)
              from = scanner.pos - scanner.matched_size
              at += text.byteslice(read_to, from - read_to).length
              picture = @picture.of(scanner[1])
              ranges << [at, scanner.matched.length, picture] if picture
              at += scanner.matched.length
              read_to = scanner.pos
            end
            [text, ranges.empty? ? nil : Core::Chat::Placed.new(:code_points, ranges)]
          end
        end

        # A list of those that are in the text, each with its code, or a table of pictures by code; wherever a code stands there is its picture.
        class Codes
          AROUND = ["", ""].freeze
          MOST_CODES = 100
          LONGEST_CODE = 100

          def initialize(given)
            unknown = given.keys - %w[codes code around picture]
            raise ArgumentError, "there is no “#{unknown.first}” here" if unknown.any?

            @list = Path.read(given["codes"])
            @code = Values::Name.new(given["code"]) if given["code"]
            @picture = Values::Address.new(given.fetch("picture", "@"))
            @around = given.fetch("around", AROUND)
            return if @around.is_a?(Array) && @around.size == 2 && @around.all?(String)

            raise ArgumentError,
              "“around” is what stands before a code and behind it"
          end

          # @return [Array(String, Core::Chat::Placed)]
          def of(data, text)
            pictures = pictures(@list.of(data))
            return [text, nil] if pictures.empty?

            ranges = places(text, Regexp.union(pictures.keys.sort_by { |code| -code.length })).map { |at, code| [at, code.length, pictures[code]] }
            [text, ranges.empty? ? nil : Core::Chat::Placed.new(:code_points, ranges)]
          end

          private

          # @return [Hash{String => String}] by code as it stands in the text
          def pictures(listed)
            pairs = case listed
                    when Hash then listed.first(MOST_CODES).map { |code, one| [code, @picture.of(one)] }
                    when Array then listed.first(MOST_CODES).map { |one| [@code&.of(one), @picture.of(one)] }
                    else []
            end
            pairs.select { |code, picture| code.is_a?(String) && code.length.between?(1, LONGEST_CODE) && picture }
              .to_h { |code, picture| [@around.join(code), picture] }
          end

          # By bytes, for characters would be counted from the beginning each time.
          def places(text, pattern)
            scanner = StringScanner.new(text)
            found = []
            at = read_to = 0
            while found.size < MOST && scanner.skip_until(pattern)
              from = scanner.pos - scanner.matched_size
              at += text.byteslice(read_to, from - read_to).length
              found << [at, scanner.matched]
              at += scanner.matched.length
              read_to = scanner.pos
            end
            found
          end
        end

        # The text comes in parts, some of which are emotes.
        class Parts
          MOST_PARTS = 400

          def initialize(given)
            unknown = given.keys - %w[parts text picture]
            raise ArgumentError, "there is no “#{unknown.first}” here" if unknown.any?

            @list = Path.read(given["parts"])
            @text = Values::Text.new(given["text"])
            @picture = Values::Address.new(given["picture"])
          end

          # @return [Array(String, Core::Chat::Placed)]
          def of(data, _text)
            text = +""
            ranges = []
            Given.list(@list.of(data)).first(MOST_PARTS).each do |part|
              words = part.is_a?(String) ? part : @text.of(part)
              next unless words && text.length + words.length <= Given::LONGEST_TEXT

              picture = @picture.of(part)
              ranges << [text.length, words.length, picture] if picture && ranges.size < MOST
              text << words
            end
            [text, ranges.empty? ? nil : Core::Chat::Placed.new(:code_points, ranges)]
          end
        end
      end
    end
  end
end
