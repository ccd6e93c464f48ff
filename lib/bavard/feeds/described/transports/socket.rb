# frozen_string_literal: true

require "json"
require_relative "transport"

module Bavard
  module Feeds
    module Described
      # JSON over a WebSocket.
      class Socket < Transport
        NAMES = %w[find at protocol prefix opens answers beat text items keep writes asks_about ends].freeze
        ENDS = {"1008" => "permission", "1013" => "later"}.freeze
        BEAT_MS = 1000..600_000
        USUALLY_MS = 30_000
        # What is answered to what: say:: a Letter, or nil; means:: one of MEANS, or nil; resuming:: true: only where there is something
        # to resume, false: only where there is not, nil: always; words:: Path to why it was refused, or nil
        Answer = Struct.new(:condition, :say, :means, :resuming, :words)
        MEANS = %w[joined resumed forgotten beat took refused].freeze
        # every:: Duration, or nil; say:: a Letter, or nil; silent_ms:: after which the line is dead, or nil
        Beat = Struct.new(:every, :say, :silent_ms)
        LONGEST_PREFIX = 20
        PROTOCOL = /\A[\w.!#$%&'*+^`|~-]{1,60}\z/

        attr_reader :at, :protocol, :opens, :answers, :beat, :writes, :asks_about

        # @param meaning [String] of MEANS
        # @return [Boolean] whether anything that comes means that
        def means?(meaning) = (@meant ||= answers.map(&:means)).include?(meaning)

        # @param text [String] valid UTF-8, as it came
        # @return [Object] in which things are looked for
        def read(text) = frame(message(text))

        # @return [Object] what stands there as JSON, else {"plain": the text}
        def message(text)
          json = @prefix ? text.delete_prefix(@prefix) : text
          return {"plain" => text} if @prefix && json.length == text.length

          Given.json(json)
        rescue JSON::ParserError, EncodingError
          {"plain" => text}
        end

        # @param message [Object] as JSON has it
        # @return [String] as it goes out; text that stands by itself goes as it is
        def written(message) = message.is_a?(String) ? message : "#{@prefix}#{JSON.generate(message)}"

        # @return [Object] the same, and where what it carries is JSON written as text, that read
        def frame(message)
          inner = @text&.of(message)
          return message unless inner.is_a?(String)

          parsed = Given.json(inner)
          message.is_a?(Hash) ? message.merge("inner" => parsed) : {"inner" => parsed}
        rescue JSON::ParserError, EncodingError
          message
        end

        private

        def prepare(given)
          given.key?("at") ? @at = place(given["at"], "/at") : @problem.call("/at", "say where it is")
          @protocol = given["protocol"]
          @problem.call("/protocol", "the name of a subprotocol") unless @protocol.nil? || @protocol.to_s.match?(PROTOCOL)
          @prefix = given["prefix"]
          @problem.call("/prefix", "a short text") unless @prefix.nil? || (@prefix.is_a?(String) && @prefix.length.between?(1, LONGEST_PREFIX))
          @text = path(given, "text")
          read_letters(given)
          read_beat(given["beat"]) if given["beat"]
        end

        def read_letters(given)
          @opens = list(given, "opens").each_with_index.filter_map { |one, index| letter(one, "/opens/#{index}") }
          @answers = list(given, "answers").each_with_index.filter_map { |one, index| answer(one, "/answers/#{index}") }
          @writes, @asks_about = %w[writes asks_about].map { |name| given[name] && letter(given[name], "/#{name}") }
        end

        def list(given, name)
          value = given.fetch(name, [])
          return value if value.is_a?(Array)

          @problem.call("/#{name}", "this is a list")
          []
        end

        def answer(given, at)
          unless given.is_a?(Hash) && given.key?("when")
            @problem.call(at, "it says “when”, and what to “say” or what it “means”")
            return
          end
          (given.keys - %w[when say means resuming words]).each { |name| @problem.call("#{at}/#{name}", "there is no “#{name}” here") }
          @problem.call("#{at}/means", "one of #{MEANS.join(", ")}") unless given["means"].nil? || MEANS.include?(given["means"])
          condition = try("#{at}/when") { Condition.new(given["when"]) } or return
          words = try("#{at}/words") { Path.read(given["words"]) } if given.key?("words")
          Answer.new(condition, given["say"] && letter(given["say"], "#{at}/say"), given["means"], given["resuming"], words)
        end

        def read_beat(given)
          return @problem.call("/beat", "how often (“every_ms”), what to “say”, and after how long it is dead (“silent_ms”)") unless given.is_a?(Hash)

          (given.keys - %w[every_ms say silent_ms]).each { |name| @problem.call("/beat/#{name}", "there is no “#{name}” here") }
          every = given.key?("every_ms") ? duration(given["every_ms"], "/beat/every_ms", BEAT_MS, nil) : nil
          @beat = Beat.new(every, given["say"] && letter(given["say"], "/beat/say"), given["silent_ms"]&.to_i&.clamp(BEAT_MS))
        end
      end
    end
  end
end
