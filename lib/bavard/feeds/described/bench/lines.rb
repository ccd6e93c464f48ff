# frozen_string_literal: true

require "json"
require "strscan"

module Bavard
  module Feeds
    module Described
      module Bench
        # On which line of a JSON text everything stands, so that what is wrong can be shown beside it.
        #
        #   lines = Lines.of(%({\n "reads": [\n  {"is": "lin"}]}))
        #   lines.at("/reads/0/is")   # => 3
        class Lines
          # Where it is no JSON: the line, and what is wrong there.
          Broken = Struct.new(:line, :words)
          SPACE = /[ \t\r\n]+/
          STRING = %r{"(?:[^"\\\x00-\x1f]|\\(?:["\\/bfnrt]|u\h{4}))*"}
          PLAIN = /-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?|true|false|null/
          ESCAPES = {"~" => "~0", "/" => "~1"}.freeze

          # @return [Broken, nil]
          attr_reader :broken

          # @param text [String] valid UTF-8
          # @return [Lines]
          def self.of(text) = new(text)

          def initialize(text)
            @scanner = StringScanner.new(text)
            @ends = text.enum_for(:scan, /\n/).map { Regexp.last_match.begin(0) }
            @lines = {}
            catch(:broken) do
              value("", 0)
              skip
              wrong("there is something behind its end") unless @scanner.eos?
            end
          end

          # @param pointer [String] RFC 6901; of what is not there, where it would stand in
          # @return [Integer] from 1 on
          def at(pointer)
            until (line = @lines[pointer])
              return 1 if pointer.empty?

              pointer = pointer[0...(pointer.rindex("/") || 0)]
            end
            line
          end

          private

          def here = @ends.bsearch_index { |finish| finish >= @scanner.charpos }.then { |index| (index || @ends.size) + 1 }
          def skip = @scanner.skip(SPACE)

          def wrong(words)
            @broken = Broken.new(here, words)
            throw :broken
          end

          def value(pointer, depth)
            skip
            wrong("it goes deeper than #{Given::DEEPEST}") if depth > Given::DEEPEST
            @lines[pointer] ||= here
            if @scanner.skip(/\{/) then members(pointer, depth)
            elsif @scanner.skip(/\[/) then elements(pointer, depth)
            else
              @scanner.skip(STRING) || @scanner.skip(PLAIN) || wrong(@scanner.eos? ? "it ends in the midst" : "#{peek} is no value")
            end
          end

          def peek = "“#{@scanner.rest[/\A\S{1,20}|\A./m]}”"

          def members(pointer, depth)
            list("}") do
              skip
              line = here
              name = @scanner.scan(STRING) || wrong("#{peek} stands where a name is to be, in double quotes")
              inside = "#{pointer}/#{unquoted(name).gsub(%r{[~/]}, ESCAPES)}"
              @lines[inside] = line
              skip
              @scanner.skip(/:/) || wrong("a colon is missing behind #{name[0, 40]}")
              value(inside, depth + 1)
            end
          end

          def elements(pointer, depth)
            index = -1
            list("]") { value("#{pointer}/#{index += 1}", depth + 1) }
          end

          # One after another, until it closes.
          def list(closes)
            close = Regexp.new(Regexp.escape(closes))
            skip
            return if @scanner.skip(close)

            loop do
              yield
              skip
              return if @scanner.skip(close)

              @scanner.skip(/,/) || wrong(@scanner.eos? ? "a “#{closes}” is missing at the end" : "a comma or “#{closes}” is missing before #{peek}")
            end
          end

          def unquoted(name)
            JSON.parse(name).to_s
          rescue JSON::ParserError
            name
          end
        end
      end
    end
  end
end
