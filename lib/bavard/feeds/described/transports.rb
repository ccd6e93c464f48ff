# frozen_string_literal: true

require_relative "path"
require_relative "template"
require_relative "values"

module Bavard
  module Feeds
    module Described
      # Where a line of the host's is sent to over HTTP, and what is said there.
      Writes = Struct.new(:to, :say)

      # What all ways of reaching a platform have in common.
      class Transport
        # What an end means: the platform wants a permission, does not know the address, has nobody broadcasting, is asked too often, has
        # forgotten what was said, or only has trouble.
        MEANINGS = %w[permission address nobody later gap trouble].freeze

        # @param given [Object]
        # @yieldparam at [String] the place below this
        # @yieldparam words [String]
        def initialize(given, &problem)
          @problem = problem
          @places = {}
          @letters = {}
          given.is_a?(Hash) ? read(given) : yield("", "this is an object")
        end

        # @return [Hash{String => Place}] by where it stands
        attr_reader :places
        # @return [Hash{String => Letter}]
        attr_reader :letters

        # @return [Array<String>] names of what it remembers from one answer to the next
        def kept = (@keep || {}).keys

        # @return [Hash{String => String, Integer}] what is to be remembered of something that came
        def keep(data) = @keep.to_h { |name, path| [name, simple(path.of(data))] }.compact

        # @return [String, nil] of MEANINGS
        def meaning(code) = @ends[code.to_s]

        private

        def read(given)
          (given.keys - self.class::NAMES).each do |name|
            @problem.call("/#{name}", "there is no “#{name}” here; there are #{self.class::NAMES.join(", ")}")
          end
          prepare(given)
        end

        def try(at)
          yield
        rescue ArgumentError => error
          @problem.call(at, error.message)
          nil
        end

        def path(given, name, at = "/#{name}") = given.key?(name) ? try(at) { Path.read(given[name]) } : nil
        def place(given, at) = try(at) { Place.new(given).tap { |one| @places[at] = one } }
        def letter(given, at) = try(at) { Letter.new(given).tap { |one| @letters[at] = one } }

        def read_keep(given, at = "/keep")
          @keep ||= {}
          return if given.nil?
          return @problem.call(at, "paths, by plain names") unless given.is_a?(Hash) && given.keys.all? { |name| name.match?(/\A[a-z]\w{0,39}\z/) }

          given.each { |name, one| try("#{at}/#{name}") { @keep[name] = Path.read(one) } }
        end

        def read_ends(given, usual)
          @ends = usual.dup
          return if given.nil?
          return @problem.call("/ends", "a meaning (#{MEANINGS.join(", ")}) for each code") unless given.is_a?(Hash)

          given.each do |code, meaning|
            next @problem.call("/ends/#{code}", "one of #{MEANINGS.join(", ")}") unless MEANINGS.include?(meaning)

            @ends[code] = meaning
          end
        end

        # Milliseconds, fixed or told each time.
        def duration(given, name, range, default)
          value = given.fetch(name, default)
          return value.clamp(range) if value.is_a?(Integer)

          try("/#{name}") { Values::Whole.new(value) }
        end

        # By which a line of the host's is sent where there is no line to say it on: {"to": "/…", "say": {…}}
        def read_writes(given)
          return if given.nil?

          @problem.call("/writes", "where “to”, and what to “say”") unless given.is_a?(Hash) && given.keys.sort == %w[say to]
          @writes = Writes.new(place(given["to"], "/writes/to"), letter(given["say"], "/writes/say")) if given.is_a?(Hash)
        end

        def simple(value) = value.is_a?(Integer) || (value.is_a?(String) && value.length <= 2000) ? value : nil
      end

      # Asked over HTTP again and again: page by page, or from a mark on.
      class Poll < Transport
        NAMES = %w[find ask items keep wait_ms over newest_first first_is_history writes ends].freeze
        WAIT_MS = 200..60_000
        USUAL_WAIT_MS = 2000
        ENDS = {"401" => "permission", "403" => "permission", "404" => "address", "410" => "gap", "429" => "later"}.freeze
        # Before it can be asked: which broadcast there is.
        Find = Struct.new(:ask, :keep, :every_ms, keyword_init: true)

        attr_reader :ask, :find, :writes

        # @return [Array<Object>] oldest first
        def items(body)
          found = @items ? @items.of(body) : body
          list = found.is_a?(Array) ? found : [found].compact
          @newest_first ? list.reverse : list
        end

        def wait_ms(body)
          @wait.is_a?(Integer) ? @wait : (@wait&.of(body) || USUAL_WAIT_MS).clamp(WAIT_MS)
        end

        # @return [Hash{String => String, Integer}] what was found
        def found(body) = @find.keep.to_h { |name, one| [name, simple(one.of(body))] }.compact

        def kept = super + (@find ? @find.keep.keys : [])

        # @return [Boolean] whether this broadcast is over
        def over?(body) = @over ? @over.holds?(body) : false

        # @return [Boolean] whether what comes first was said before
        def first_is_history? = @first_is_history

        private

        def prepare(given)
          given.key?("ask") ? @ask = place(given["ask"], "/ask") : @problem.call("/ask", "say what is asked for")
          @items = path(given, "items")
          read_keep(given["keep"])
          read_find(given["find"]) if given["find"]
          @wait = duration(given, "wait_ms", WAIT_MS, USUAL_WAIT_MS)
          @over = try("/over") { Condition.new(given["over"]) } if given["over"]
          @newest_first = given["newest_first"] == true
          read_writes(given["writes"])
          @first_is_history = given.fetch("first_is_history", true) == true
          read_ends(given["ends"], ENDS)
        end

        def read_find(given)
          unless given.is_a?(Hash) && given["keep"].is_a?(Hash) && given.key?("ask")
            return @problem.call("/find",
              "an “ask” and what to “keep” of its answer")
          end

          own = given["keep"].filter_map { |name, one| try("/find/keep/#{name}") { [name, Path.read(one)] } }.to_h
          @find = Find.new(ask: place(given["ask"], "/find/ask"), keep: own, every_ms: given.fetch("every_ms", 10_000).to_i.clamp(1000, 600_000))
        end
      end

      # Server-sent events (WHATWG HTML §9.2): {"event": …, "id": …, "data": …}, whose data is read as JSON where it is.
      class Stream < Transport
        NAMES = %w[at items silent_ms writes ends].freeze
        SILENT_MS = 5000..600_000
        ENDS = Poll::ENDS

        attr_reader :at, :silent_ms, :writes

        def items(event)
          found = @items ? @items.of(event) : event
          found.is_a?(Array) ? found : [found].compact
        end

        private

        def prepare(given)
          given.key?("at") ? @at = place(given["at"], "/at") : @problem.call("/at", "say where it is")
          @items = path(given, "items")
          @silent_ms = duration(given, "silent_ms", SILENT_MS, 60_000)
          read_writes(given["writes"])
          read_ends(given["ends"], ENDS)
        end
      end

      # JSON over a WebSocket.
      class Socket < Transport
        NAMES = %w[at opens answers beat text items keep writes asks_about ends].freeze
        ENDS = {"1008" => "permission", "1013" => "later"}.freeze
        BEAT_MS = 1000..600_000
        # What is answered to what: say:: a Letter, or nil; means:: one of MEANS, or nil; resuming:: true: only where there is something
        # to resume, false: only where there is not, nil: always
        Answer = Struct.new(:condition, :say, :means, :resuming)
        MEANS = %w[joined forgotten beat took refused].freeze
        Beat = Struct.new(:every, :say, :silent_ms)

        attr_reader :at, :opens, :answers, :beat, :writes, :asks_about

        # @return [Object, nil] the frame, where what it carries is JSON written as text
        def frame(message)
          inner = @text&.of(message)
          return message unless inner.is_a?(String)

          parsed = Given.json(inner)
          message.is_a?(Hash) ? message.merge("inner" => parsed) : parsed
        rescue JSON::ParserError, EncodingError
          message
        end

        def items(frame)
          found = @items ? @items.of(frame) : frame
          found.is_a?(Array) ? found : [found].compact
        end

        private

        def prepare(given)
          given.key?("at") ? @at = place(given["at"], "/at") : @problem.call("/at", "say where it is")
          @text = path(given, "text")
          @items = path(given, "items")
          read_keep(given["keep"])
          @opens = list(given, "opens").each_with_index.filter_map { |one, index| letter(one, "/opens/#{index}") }
          @answers = list(given, "answers").each_with_index.filter_map { |one, index| answer(one, "/answers/#{index}") }
          @writes, @asks_about = %w[writes asks_about].map { |name| given[name] && letter(given[name], "/#{name}") }
          read_beat(given["beat"]) if given["beat"]
          read_ends(given["ends"], ENDS)
        end

        def list(given, name)
          value = given.fetch(name, [])
          value.is_a?(Array) ? value : (@problem.call("/#{name}", "this is a list") && []) || []
        end

        def answer(given, at)
          return @problem.call(at, "it says “when”, and what to “say” or what it “means”") && nil unless given.is_a?(Hash) && given.key?("when")

          (given.keys - %w[when say means resuming]).each { |name| @problem.call("#{at}/#{name}", "there is no “#{name}” here") }
          @problem.call("#{at}/means", "one of #{MEANS.join(", ")}") unless given["means"].nil? || MEANS.include?(given["means"])
          condition = try("#{at}/when") { Condition.new(given["when"]) } or return
          Answer.new(condition, given["say"] && letter(given["say"], "#{at}/say"), given["means"], given["resuming"])
        end

        def read_beat(given)
          return @problem.call("/beat", "how often (“every_ms”), what to “say”, and after how long it is dead (“silent_ms”)") unless given.is_a?(Hash)

          every = given["every_ms"]
          every = every.is_a?(Integer) ? every.clamp(BEAT_MS) : (every && try("/beat/every_ms") { Values::Whole.new(every) })
          @beat = Beat.new(every, given["say"] && letter(given["say"], "/beat/say"), given["silent_ms"]&.to_i&.clamp(BEAT_MS))
        end
      end
    end
  end
end
