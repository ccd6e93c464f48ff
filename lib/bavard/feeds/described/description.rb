# frozen_string_literal: true

require "json"
require "uri"
require_relative "../resume"
require_relative "ask"
require_relative "emote_set"
require_relative "faulty"
require_relative "hosts"
require_relative "irc_reading"
require_relative "reading"
require_relative "room_list"
require_relative "samples"
require_relative "template"
require_relative "transports/irc_server"
require_relative "transports/poll"
require_relative "transports/socket"
require_relative "transports/stream"

module Bavard
  module Feeds
    module Described
      # How a platform is reached and what it sends, as data: what somebody who knows the platform writes down, and nothing that runs.
      #
      #   description = Description.read(JSON.parse(File.read("kettle.json")))
      #   description.reading.read(item, feed_id, now_ms)
      class Description
        FORMAT = "bavard-platform/1"
        KEY = /\A[a-z][a-z0-9-]{0,39}\z/
        LONGEST_NAME = 40
        MOST_RULES = 60
        MOST_SETS = 6
        SET = /\A[a-z]\w{0,39}\z/
        TRANSPORTS = {"poll" => Poll, "stream" => Stream, "socket" => Socket, "irc" => IrcServer}.freeze
        # What rules say of other platforms, tags say of IRC; and its guests and nicks need no more than a channel.
        OF_TAGS = "a server that speaks IRC has none: say in “tags” which of its tags carries what"
        NOT_OF_IRC = %w[reads rooms joins asks secrets headers consent].freeze
        NAMES = %w[format key name about shape colour base hosts asks secrets headers joins reads rooms samples consent sets badges].freeze
        MOST_BADGES = 100
        BADGE = /\A[^\s,\x00-\x1f]{1,60}\z/
        PICTURE = %r{\Ahttps?://[^\s\x00-\x1f]{1,400}\z}
        CONSENT = %w[authorize token whoami client_id scopes].freeze
        PATHS = %w[authorize token revoke whoami].freeze
        SHAPES = %w[circle square diamond triangle hexagon ring].freeze
        LARGEST_BYTES = 100_000
        ORIGIN = %r([a-z]+://[^/{?]+)

        CHANNEL = Ask.new(name: "channel", label: "Channel", example: "#reedmere", kind: "text").freeze

        attr_reader :key, :name, :about, :shape, :colour, :asks, :secrets, :headers, :reading, :transport, :consent

        # @param document [Object] as JSON has it
        # @return [Description]
        # @raise [Faulty] with all that is wrong
        def self.read(document)
          problems = []
          description = new(document.is_a?(Hash) ? document : {}) { |at, words| problems << Problem.new(at, words) }
          if problems.empty? && document.key?("samples")
            Samples.check(description, document["samples"]) do |at, words|
              problems << Problem.new("/samples#{at}", words)
            end
          end
          problems.empty? ? description : raise(Faulty, problems)
        end

        # @param file [String]
        # @return [Description]
        # @raise [Faulty]
        def self.load(file)
          bytes = File.binread(file, LARGEST_BYTES + 1)
          raise Faulty, [Problem.new("", "this is more than #{LARGEST_BYTES / 1000} kB")] if bytes.bytesize > LARGEST_BYTES

          read(JSON.parse(bytes.force_encoding(Encoding::UTF_8), max_nesting: Given::DEEPEST))
        rescue JSON::ParserError, EncodingError => error
          raise Faulty, [Problem.new("", "this is no JSON: #{error.message.lines.first.to_s.scrub.strip[0, 120]}")]
        end

        def initialize(document, &problem)
          @problem = problem
          @document = document
          read_names
          read_hosts
          @asks = questions("asks")
          @secrets = questions("secrets")
          read_headers
          @reading = Reading.new(rules, joins) unless irc?
          @consent = consented(document["consent"]) if document.key?("consent")
          read_transport
          speak_irc if irc?
          @sets = sets_of_emotes
          @rooms = list_of_rooms if document.key?("rooms")
          @badges = kinds_of_badges
        end

        # @return [Hash{String => String, nil}] kinds of badges that the platform has, and where their pictures stand
        attr_reader :badges

        # @return [Array<EmoteSet>]
        attr_reader :sets

        # @return [RoomList, nil]
        attr_reader :rooms

        # @return [Array<Ask>] what most can leave alone: whatever is optional besides the first
        def asks_aside = asks.drop(1).select(&:optional)

        # @return [Boolean] whether it can be asked about a person
        def tells_of_people? = transport.is_a?(Socket) && !transport.asks_about.nil?

        # @return [Boolean] whether it is one of which people are heard
        def voice? = !rooms.nil? || (rules_read || []).any? { |rule| Voices::KINDS.key?(rule.is) }

        # @return [Array<Rule>]
        attr_reader :rules_read

        # @return [Boolean] whether it is a server that speaks IRC
        def irc? = @document.key?("irc")

        # @return [Boolean] whether anything can be read by it
        def reads? = !transport.nil? && (irc? || (rules_read || []).any?)

        # @return [URI::HTTP, nil]
        def base = @hosts.base

        # @return [Array<String>] hosts and ports that it may reach: no others
        def authorities = [*@hosts.authorities, *(transport.address.values_at("host", "port").join(":") if irc? && transport)].uniq

        # @param values [Hash{String => String}] what was asked of the host, and secrets
        # @return [Hash{String => String}] sent with each question; without those for which something was left out
        def headers_with(values)
          headers.select { |_, letter| (letter.names - values.keys).empty? }.transform_values { |letter| letter.fill(values).to_s.delete("\r\n") }
        end

        # @param known [Hash{String => Object}] what was asked of the host, and what was found
        # @return [Array<Ask>] of which one has to be given before anything can be read; none where there is enough
        def lacking(known)
          names = transport.lacking(known)
          asks.select { |ask| names.include?(ask.name) }
        end

        # @param known [Hash{String => Object}] as above
        # @param words [String, nil] of what came before
        # @return [Ended, nil] where something has to be given first: what every broadcast has another of, or a place
        def lack(known, words = nil)
          asks = lacking(known)
          Ended.new(:needs_you, [words, Ask.wanted(asks)].compact.join(" "), asks.any?(&:each_time) ? :broadcast : :address) if asks.any?
        end

        # @param values [Hash{String => String}] what was asked of the host
        # @return [String] that there is nothing by them
        def unknown(values)
          given = asks.filter_map { |ask| values[ask.name] }
          given.empty? ? "#{name} does not know that address." : "#{name} does not know #{given.map { |value| "“#{value[0, 60]}”" }.join(" or ")}."
        end

        # @param uri [URI]
        def reaches?(uri) = authorities.include?("#{uri.host}:#{uri.port}")

        private

        def wrong(at, words) = @problem.call(at, words)

        def read_names
          wrong("/format", "this is to be “#{FORMAT}”") unless @document["format"] == FORMAT
          (@document.keys - NAMES - TRANSPORTS.keys).each { |name| wrong("/#{name}", "a description has no “#{name}”") }
          @key = text("key", KEY)
          @name = text("name", /\A[^\x00-\x1f]{1,#{LONGEST_NAME}}\z/o)
          @about = @document["about"].to_s[0, 400]
          @shape = SHAPES.include?(@document["shape"]) ? @document["shape"] : "hexagon"
          @colour = Given.colour(@document["colour"]) || "#8fb8c9"
        end

        def text(name, pattern)
          value = @document[name]
          return value if value.is_a?(String) && value.match?(pattern)

          wrong("/#{name}", value.nil? ? "this is missing" : "“#{value.to_s[0, 60]}” cannot be it")
          nil
        end

        # It may have no pages of its own where it speaks IRC.
        def read_hosts
          needed = !irc? || @document.key?("base")
          @hosts = Hosts.new(@document["base"], @document.fetch("hosts", []), needed:) { |at, words| wrong(at, words) }
        end

        def questions(name)
          Ask.all(@document.fetch(name, {})) { |at, words| wrong("/#{name}#{at}", words) }
        end

        def read_headers
          given = @document.fetch("headers", {})
          return wrong("/headers", "texts, by the names of headers") && @headers = {} unless given.is_a?(Hash) && given.all? do |name, value|
            name.match?(/\A[A-Za-z0-9-]{1,60}\z/) && value.is_a?(String)
          end

          @headers = given.transform_values { |value| Letter.new(value) }
        end

        def rules
          given = @document["reads"]
          return (wrong("/reads", "a list of what is sent, at most #{MOST_RULES}") || true) && [] unless given.is_a?(Array) && given.size.between?(1,
            MOST_RULES)

          @rules_read = given.each_with_index.flat_map { |one, at| rules_of(one, at) }
        end

        # OAuth 2.0, by paths below its base.
        def consented(given)
          return wrong("/consent", "an object with #{CONSENT.join(", ")}") && nil unless given.is_a?(Hash)

          (CONSENT - given.keys).each { |name| wrong("/consent/#{name}", "this is missing") }
          PATHS.each do |name|
            wrong("/consent/#{name}", "a path such as /oauth/#{name}") unless given[name].to_s.start_with?("/") || !given.key?(name)
          end
          wrong("/consent/scopes", "words by “read” and “write”") unless given["scopes"].is_a?(Hash) && given["scopes"].values.all?(String)
          given
        end

        # @return [Array<Rule>]
        def rules_of(given, at)
          return wrong("/reads/#{at}", "each of them is an object") || [] unless given.is_a?(Hash)

          Rule.each_kind(given).map { |one| Rule.new(one, at) { |field, words| wrong("/reads/#{at}/#{field}", words) } }
        rescue ArgumentError => error
          wrong("/reads/#{at}/is", error.message)
          []
        end

        def joins
          given = @document["joins"] or return
          return wrong("/joins", "lists, by names of their own") && nil unless given.is_a?(Hash) && given.size <= Joins::MOST

          Joins.new(given) { |name, words| wrong("/joins/#{name}", words) }
        end

        def read_transport
          name, *others = TRANSPORTS.keys & @document.keys
          return wrong("", "say how it is reached: by “poll”, “stream”, “socket” or “irc”, one of them") if name.nil? || others.any?

          @transport = TRANSPORTS.fetch(name).new(@document[name]) { |at, words| wrong("/#{name}#{at}", words) }
          @transport.places.each { |at, place| elsewhere(place, "/#{name}#{at}") }
          @transport.letters.each { |at, letter| known(letter.names, "/#{name}#{at}", @transport.kept) }
          @headers.each { |header, letter| known(letter.names, "/headers/#{header}", @transport.kept) }
        end

        # Asked for is its channel.
        def speak_irc
          (NOT_OF_IRC & @document.keys).each { |name| wrong("/#{name}", OF_TAGS) }
          @asks = [CHANNEL]
          @reading = IrcReading.new(@transport) if @transport
        end

        def sets_of_emotes
          given = @document.fetch("sets", {})
          fine = given.is_a?(Hash) && given.size <= MOST_SETS && given.all? { |name, one| name.match?(SET) && one.is_a?(Hash) }
          return wrong("/sets", "at most #{MOST_SETS} sets of emotes, by plain names") || [] unless fine

          sets = given.map { |name, one| EmoteSet.new(name, one) { |at, words| wrong("/sets/#{name}#{at}", words) } }
          sets.each { |set| elsewhere(set.ask.to, "/sets/#{set.name}/ask") if set.ask }
        end

        def list_of_rooms
          list = RoomList.new(@document["rooms"]) { |at, words| return wrong("/rooms#{at}", words) && nil }
          elsewhere(list.ask.to, "/rooms/ask")
          list
        end

        def kinds_of_badges
          given = @document.fetch("badges", {})
          fine = given.is_a?(Hash) && given.size <= MOST_BADGES && given.all? do |kind, picture|
            kind.match?(BADGE) && (picture.nil? || (picture.is_a?(String) && picture.match?(PICTURE)))
          end
          return given if fine

          wrong("/badges", "at most #{MOST_BADGES} kinds, each with the address of its picture or null")
          {}
        end

        # What it asks for is on its own hosts, and filled in with what is known.
        def elsewhere(place, at)
          known(place.names, at, @transport ? @transport.kept : [])
          text = place.to_s
          return wrong(at, "without a “base” this is an address as a whole") if text.start_with?("/") && !@document.key?("base")

          # Where an address is told as a whole, it is looked at when it is.
          return if text.start_with?("/", "{+")

          uri = URI(text[ORIGIN].sub(/\Aws/, "http"))
          wrong(at, "#{uri.host}:#{uri.port} is not among its hosts") unless reaches?(uri)
        rescue URI::InvalidURIError
          wrong(at, "“#{text}” is no address")
        end

        def known(names, at, kept)
          strange = names - [*asks, *secrets].map(&:name) - kept - Ask::FILLED
          wrong(at, "nothing here is called “#{strange.first}”") if strange.any?
        end
      end
    end
  end
end
