# frozen_string_literal: true

require_relative "../path"
require_relative "../template"
require_relative "../values"

module Bavard
  module Feeds
    module Described
      # Something that is asked over HTTP: an address, and with something to say (a POST) also that.
      Question = Struct.new(:to, :say)
      # What has to be known before anything else is asked, such as which broadcast there is, or where a stream is today.
      #
      # ask:: Question; keep:: Keep; every_ms:: how often it is asked while there is nothing
      Find = Struct.new(:ask, :keep, :every_ms)

      # What is remembered of what comes, by names of its own: {"since": "data.mark", "etag": {"header": "etag"}}.
      class Keep
        LONGEST = 2000
        NAME = /\A[a-z]\w{0,39}\z/
        HEADER = /\A[A-Za-z0-9-]{1,60}\z/

        # @yieldparam at [String]
        # @yieldparam words [String]
        def initialize(given, &problem)
          @paths = {}
          @headers = {}
          fine = given.nil? || (given.is_a?(Hash) && given.keys.all? { |name| name.match?(NAME) })
          fine ? given&.each { |name, one| read(name, one, &problem) } : yield("", "paths, by plain names")
        end

        def names = @paths.keys + @headers.keys

        # @param headers [Hash{String => String}] of the answer, by names in small letters
        # @return [Hash{String => String, Numeric}]
        def of(data, headers = {})
          found = @paths.transform_values { |path| path.of(data) }
          found.merge!(@headers.transform_values { |name| headers[name] }) unless @headers.empty?
          found.select do |_, value|
            value.is_a?(Integer) || (value.is_a?(Float) && value.finite?) || (value.is_a?(String) && value.length <= LONGEST)
          end
        end

        private

        def read(name, one)
          return @paths[name] = Path.read(one) unless one.is_a?(Hash)

          header = one["header"]
          raise ArgumentError, "a path, or {\"header\": …}" unless one.keys == %w[header] && header.is_a?(String) && header.match?(HEADER)

          @headers[name] = header.downcase
        rescue ArgumentError => error
          yield "/#{name}", error.message
        end
      end

      # How long: milliseconds, or where that stands, {"at": "wait", "in": "s"}, or in which header, {"header": "x-poll", "in": "s"}.
      class Duration
        UNITS = {"ms" => 1, "s" => 1000}.freeze

        # @param given [Object]
        # @param range [Range]
        # @param usual [Integer, nil]
        # @raise [ArgumentError]
        def initialize(given, range, usual)
          @range = range
          @usual = usual
          if given.is_a?(Integer)
            @fixed = given.clamp(range)
          else
            read(given.is_a?(Hash) ? given : {"at" => given})
          end
        end

        # @return [Integer, nil] milliseconds
        def of(data, headers = {})
          return @fixed if @fixed

          told = @header ? headers[@header] : @path.of(data)
          told = told.to_f if told.is_a?(String) && told.match?(/\A\d{1,9}(?:\.\d{1,6})?\z/)
          told.is_a?(Numeric) && told.finite? ? (told * @unit).to_i.clamp(@range) : @usual
        end

        private

        def read(given)
          @unit = UNITS.fetch(given.fetch("in", "ms")) { raise ArgumentError, "“in” is one of #{UNITS.keys.join(", ")}" }
          raise ArgumentError, "milliseconds, a place, or {\"header\": …}" unless [%w[at], %w[header]].include?(given.keys - %w[in])

          @header = given["header"]&.to_s&.downcase
          @path = Path.read(given["at"]) unless @header
        end
      end

      # What all ways of reaching a platform have in common.
      class Transport
        # What an end means: the platform wants a permission, does not know the address, has nobody broadcasting, is asked too often, has
        # forgotten what was said, or only has trouble.
        MEANINGS = %w[permission address nobody later gap trouble].freeze
        HTTP_ENDS = {"401" => "permission", "403" => "permission", "404" => "address", "410" => "gap", "429" => "later"}.freeze
        LOOK_EVERY_MS = 1000..600_000
        USUALLY_MS = 10_000

        # @return [Hash{String => Place}] by where it stands
        attr_reader :places
        # @return [Hash{String => Letter}]
        attr_reader :letters
        # @return [Find, nil]
        attr_reader :find

        # @param given [Object]
        # @yieldparam at [String] the place below this
        # @yieldparam words [String]
        def initialize(given, &problem)
          @problem = problem
          @places = {}
          @letters = {}
          given.is_a?(Hash) ? read_all(given) : yield("", "this is an object")
        end

        # @return [Array<String>] names of what it remembers from one answer to the next
        def kept = [*@keep&.names, *@find&.keep&.names]

        # @param known [Hash{String => Object}]
        # @return [Array<String>] names of which one has to be known before anything can be asked: of itself, or to find it by
        def lacking(known)
          missing = unknown(places.reject { |at, _| at.start_with?("/find", "/writes") }, known) - @keep.names
          return missing if missing.empty? || @find.nil?

          short = unknown(places.select { |at, _| at.start_with?("/find") }, known)
          short.empty? ? missing - @find.keep.names : missing + short
        end

        # @return [Hash{String => String, Integer}] what is to be remembered of something that came
        def keep(data, headers = {}) = @keep.of(data, headers)

        # @return [Array<Object>] what is in a frame
        def items(frame)
          found = @items ? @items.of(frame) : frame
          found.is_a?(Array) ? found : [found].compact
        end

        # @return [String, nil] of MEANINGS
        def meaning(code) = @ends[code.to_s]

        private

        def unknown(places, known) = places.each_value.flat_map(&:needed).uniq.reject { |name| known[name] || name == "token" }

        def read_all(given)
          (given.keys - self.class::NAMES).each do |name|
            @problem.call("/#{name}", "there is no “#{name}” here; there are #{self.class::NAMES.join(", ")}")
          end
          @items = path(given, "items")
          read_keep(given)
          read_find(given["find"]) if given["find"]
          read_ends(given["ends"])
          prepare(given)
        end

        def try(at)
          yield
        rescue ArgumentError => error
          @problem.call(at, error.message)
          nil
        end

        def path(given, name) = given.key?(name) ? try("/#{name}") { Path.read(given[name]) } : nil
        def place(given, at) = try(at) { Place.new(given).tap { |one| @places[at] = one } }
        def letter(given, at) = try(at) { Letter.new(given).tap { |one| @letters[at] = one } }
        def duration(given, at, range, usual) = try(at) { Duration.new(given, range, usual) }

        # @return [Question, nil]
        def question(given, at)
          return Question.new(place(given, at)) unless given.is_a?(Hash)
          return @problem.call(at, "where “to”, and what to “say”") && nil unless given.keys.sort == %w[say to]

          Question.new(place(given["to"], "#{at}/to"), letter(given["say"], "#{at}/say"))
        end

        def read_keep(given) = @keep = Keep.new(given["keep"]) { |at, words| @problem.call("/keep#{at}", words) }

        def read_find(given)
          unless given.is_a?(Hash) && given["keep"].is_a?(Hash) && given.key?("ask")
            return @problem.call("/find",
              "an “ask” and what to “keep” of its answer")
          end

          @find = Find.new(question(given["ask"], "/find/ask"), Keep.new(given["keep"]) { |at, words| @problem.call("/find/keep#{at}", words) },
            given.fetch("every_ms", USUALLY_MS).to_i.clamp(LOOK_EVERY_MS))
        end

        def read_ends(given)
          @ends = self.class::ENDS.dup
          return if given.nil?
          return @problem.call("/ends", "a meaning (#{MEANINGS.join(", ")}) for each code") unless given.is_a?(Hash)

          given.each do |code, meaning|
            next @problem.call("/ends/#{code}", "one of #{MEANINGS.join(", ")}") unless MEANINGS.include?(meaning)

            @ends[code] = meaning
          end
        end
      end
    end
  end
end
