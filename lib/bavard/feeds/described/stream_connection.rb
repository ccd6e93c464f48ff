# frozen_string_literal: true

require "json"
require "net/http"
require_relative "../../outward/door"
require_relative "../held_permission"
require_relative "../resume"
require_relative "../trouble"
require_relative "description"
require_relative "events"
require_relative "writer"

module Bavard
  module Feeds
    module Described
      # Reads the server-sent events of a described platform for as long as its stream goes on.
      class StreamConnection
        OPEN_WITHIN_S = 8
        LATER_MS = 30_000
        LAST = "last_event_id"
        KEPT_TEXT = 400
        # What ends a stream that is read, also from the outside.
        BROKEN = [IOError, EOFError, Net::ReadTimeout, SystemCallError, OpenSSL::SSL::SSLError, Net::ProtocolError, Zlib::Error].freeze

        attr_reader :heard_at_ms

        # @param description [Description]
        # @param values [Hash{String => String}] what was asked of the host, and secrets
        # @param resume [Resume]
        # @param door [Outward::Door, nil] by which it goes out, where it is not the operator’s own choice
        # @param watch [#call, nil] told of each frame as it comes
        def initialize(feed_id, description, values, resume, clock:, take:, reject:, outbox:, permission:, door: nil, watch: nil)
          @feed_id = feed_id
          @description = description
          @stream = description.transport
          @values = values
          @clock = clock
          @take = take
          @reject = reject
          @outbox = outbox
          @permission = permission
          @watch = watch
          @clients = Clients.new(description, values, permission, door)
          @finding = Finding.new(@stream, @clients)
          @writer = Writer.new(description, permission, @clients, ->(answered) { tell(:answered, answered) })
          @heard_at_ms = @heard_before_ms = resume.heard_at_ms
          @kept = resume.cursor.is_a?(Hash) ? resume.cursor.slice(*@stream.kept, LAST) : {}
          @resumed = @kept.any?
          @found = {}
          @events = @stream.lines? ? JsonLines.new : Events.new(@kept[LAST])
        end

        # As far as what it covers was handed over.
        def cursor = @kept.empty? ? nil : @kept
        def joined? = @joined ? true : false

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          missing = lacks || find and return missing
          uri = @clients.uri(@stream.at.to, known)
          http = begun(uri)
          watch(stop, http)
          http.request(question(uri)) { |answer| read(answer) }
          @stopped ? nil : @ended || Ended.new(:waiting, "#{name} ended the stream.", nil, @events.retry_ms)
        rescue *BROKEN => error
          @stopped ? nil : @ended || Ended.new(:waiting, words(error, uri), nil, @events.retry_ms)
        rescue *Trouble::NETWORK => error
          @stopped ? nil : Ended.new(:waiting, words(error, uri))
        rescue HttpClient::Unreachable, HttpClient::Nonsense => error
          Ended.new(:waiting, error.message)
        rescue HeldPermission::Gone => error
          Ended.new(:needs_you, error.message, :permission)
        ensure
          @watcher&.kill
          http&.finish if http&.started?
          @clients.close
        end

        private

        def name = @description.name
        def known = {**@kept, **@found}

        def lacks = @description.lack({**@values, **known})

        # @return [Ended, nil] where what has to be found is not there
        def find
          return unless @finding.needed?({**@values, **known})

          answer, @found = @finding.look(known)
          return if @found

          @found = {}
          answer.status == 200 ? nobody : refused(answer.status)
        end

        def nobody = Ended.new(:waiting, "Nobody is broadcasting there yet.", nil, @finding.every_ms)

        def begun(uri)
          @clients.way_to(uri).http(uri, open_within_s: OPEN_WITHIN_S, read_within_s: @stream.silent_ms / 1000.0).tap(&:start)
        end

        # A stream can be silent for long: whoever stops it closes the line.
        def watch(stop, http)
          @watcher = Thread.new do
            loop do
              ready, = IO.select([stop, @outbox.io])
              break if ready.include?(stop)

              @outbox.take.each { |letter| @writer.write(letter, known) }
            end
            @stopped = true
            http.finish
          rescue IOError
            nil # it has ended by itself
          end
        end

        def question(uri)
          begun_with(uri).tap do |request|
            request["accept"] = @stream.lines? ? "application/x-ndjson, application/json" : "text/event-stream"
            request["accept-encoding"] = "identity"
            request["last-event-id"] = @kept[LAST] if @kept[LAST]
            request["authorization"] = "Bearer #{@permission.token}" if @permission
          end
        end

        def begun_with(uri)
          headers = @clients.headers(known)
          return Net::HTTP::Get.new(uri.request_uri, headers) unless @stream.at.say

          Net::HTTP::Post.new(uri.request_uri, {**headers, "content-type" => "application/json"}).tap do |request|
            request.body = JSON.generate(@stream.at.say.fill(@clients.known(known)))
          end
        end

        def read(answer)
          return @ended = refused(answer.code) unless answer.code == "200"
          return no_stream(answer) unless @stream.lines? || answer["content-type"].to_s.start_with?("text/event-stream")

          joined
          answer.read_body do |bytes|
            @heard_at_ms = @clock.call
            @events.feed(bytes) { |event, data| hear(event, data) }
          end
        end

        def joined
          @joined = true
          @heard_at_ms = @clock.call
          tell(:gap, Core::Gap.new(@heard_before_ms, @heard_at_ms)) if @heard_before_ms && !@resumed && @heard_at_ms > @heard_before_ms
          tell(:feed_state, Core::FeedState.new(:live, "Reading #{name}.", @heard_at_ms, nil))
        end

        def hear(event, data)
          frame = @stream.lines? ? parsed(data) : {"event" => event, "id" => @events.last_id, "data" => parsed(data)}
          @watch&.call(frame)
          @stream.items(frame).each { |item| take_in(item, frame) }
          @kept = {**@kept, **@stream.keep(frame), LAST => @events.last_id&.slice(0, KEPT_TEXT)}.compact
        end

        def parsed(data)
          Given.json(data)
        rescue JSON::ParserError, EncodingError
          data
        end

        def take_in(item, frame)
          read = @description.reading.read(@description.reading.joined(item, frame), @feed_id, @clock.call)
          return @reject.call("nothing reads this: #{item.inspect[0, 80]}") unless read.rule
          return on_air(read.state) if read.state
          return @take.call(read.intake) if read.intake

          @reject.call("a #{read.rule.is} that cannot be read: #{item.inspect[0, 80]}") unless read.rule.is == "nothing"
        end

        def on_air(state)
          live = state == :begun
          tell(:feed_state, Core::FeedState.new(live ? :live : :nobody_broadcasting,
            live ? "Reading #{name}." : "Connected, but nobody is broadcasting there.", @clock.call, nil))
        end

        def no_stream(answer)
          @ended = Ended.new(:needs_you, "#{name} answered with #{answer["content-type"].to_s[0, 60].inspect}, which is no stream of events.",
            :address)
        end

        # @param status [String, Integer]
        # @return [Ended]
        def refused(status)
          case @stream.meaning(status)
          when "permission" then denied
          when "address" then Ended.new(:needs_you, @description.unknown(@values), :address)
          when "later" then Ended.new(:waiting, "#{name} wants us to come less often.", nil, LATER_MS)
          when "nobody" then Ended.new(:waiting, "Nobody is broadcasting there.", nil, LATER_MS)
          else Ended.new(:waiting, "#{name} answered #{status}; it has trouble of its own.")
          end
        end

        def denied
          @permission&.renew
          return Ended.new(:waiting, "#{name} wanted a newer permission.") if @permission

          Ended.new(:needs_you, "#{name} does not let us read this.", :permission)
        end

        def words(error, uri)
          if error.is_a?(EOFError) || error.is_a?(IOError)
            "The line broke."
          else
            Trouble.words(error, uri.host, uri.port,
              within_s: @stream.silent_ms / 1000)
          end
        end

        def tell(kind, body) = @take.call(Core::Intake.new(kind, @feed_id, nil, nil, @clock.call, body))
      end
    end
  end
end
