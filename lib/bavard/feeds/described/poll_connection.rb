# frozen_string_literal: true

require "io/wait"
require_relative "../held_permission"
require_relative "../http_client"
require_relative "../resume"
require_relative "description"
require_relative "writer"

module Bavard
  module Feeds
    module Described
      # Reads a described platform over HTTP: asks, waits as long as it wants, asks for what came since.
      class PollConnection
        LATER_MS = 30_000
        LOOK_AGAIN_MS = 10_000
        MISSED_MS = 200
        # RFC 9110 §15.4.5: nothing has changed since.
        NOTHING_NEW = 304
        # So often an answer is asked for again that cannot be read.
        TRIES = 4
        FIRST_PAUSE_MS = 400
        LONGEST_PAUSE_MS = 60_000

        attr_reader :heard_at_ms

        # @param description [Description]
        # @param values [Hash{String => String}] what was asked of the host, and secrets
        # @param resume [Resume] cursor: what was kept
        # @param permission [HeldPermission, nil]
        # @param door [Outward::Door, nil] by which it goes out, where it is not the operator’s own choice
        # @param watch [#call, nil] told of each frame as it comes
        def initialize(feed_id, description, values, resume, clock:, take:, reject:, outbox:, permission:, door: nil, watch: nil)
          @feed_id = feed_id
          @description = description
          @poll = description.transport
          @values = values
          @clock = clock
          @take = take
          @reject = reject
          @outbox = outbox
          @permission = permission
          @heard_at_ms = @heard_before_ms = resume.heard_at_ms
          @kept = resume.cursor.is_a?(Hash) ? resume.cursor.slice(*@poll.kept) : {}
          @watch = watch
          @clients = Clients.new(description, values, permission, door)
          @finding = Finding.new(@poll, @clients)
          @writer = Writer.new(description, permission, @clients, ->(answered) { tell(:answered, answered) })
          @nonsense = 0
        end

        def cursor = @kept.empty? ? nil : @kept

        # @return [Boolean] whether it got as far as reading
        def joined? = @joined ? true : false

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          until @ended
            pause_ms = turn
            return if @ended.nil? && wait(stop, pause_ms) == :stopped
          end
          @ended
        rescue HttpClient::Unreachable => error
          Ended.new(:waiting, error.message)
        rescue HeldPermission::Gone => error
          Ended.new(:needs_you, error.message, :permission)
        ensure
          @clients.close
        end

        private

        def name = @description.name
        def known = {**@values, **@kept}

        # @return [Integer] milliseconds to wait
        def turn
          return 0 if (@ended = @description.lack(known))

          (@finding.needed?(known) ? look : ask).tap { @nonsense = 0 }
        rescue HttpClient::Nonsense => error
          beyond_reading(error)
        end

        # What has to be found is found before anything is asked.
        def look
          answer, found = @finding.look(known)
          @heard_at_ms = @clock.call
          return ended(answer, %w[nobody address]) unless answer.status == 200
          return nobody unless found

          @kept = @kept.merge(found)
          0
        end

        def ask
          first = (@kept.keys - @finding.names).empty?
          answer = @clients.ask(@poll.ask, known)
          @heard_at_ms = @clock.call
          case answer.status
          when 200 then took(answer, first:)
          when NOTHING_NEW then live(answer)
          else ended(answer)
          end
        end

        def took(answer, first:)
          frame = @poll.frame(answer.body, @poll.also.transform_values { |question| also(question) })
          @watch&.call(frame)
          now_ms = @clock.call
          history = @poll.first_is_history? && (first || !@joined)
          # From where we were on, what comes was said since then.
          @since_ms = first ? nil : @heard_before_ms
          @poll.items(frame).each { |item| take_in(item, frame, now_ms, history) }
          @kept = @kept.merge(@poll.keep(frame, answer.headers))
          @poll.over?(frame) ? over : live(answer)
        end

        # What is only asked as well may fail: then that is not there.
        def also(question)
          answer = @clients.ask(question, known)
          answer.status == 200 ? answer.body : nil
        rescue HttpClient::Nonsense
          nil
        end

        def live(answer)
          @joined = true
          state(:live, "Reading #{name}.") unless @silent
          @poll.wait_ms(answer.body, answer.headers)
        end

        def take_in(item, body, now_ms, history)
          read = @description.reading.read(@description.reading.joined(item, body), @feed_id, now_ms, history:)
          return @reject.call("nothing reads this: #{item.inspect[0, 80]}") unless read.rule
          return on_air(read.state) if read.state
          return hand_over(read.intake) if read.intake

          @reject.call("a #{read.rule.is} that cannot be read: #{item.inspect[0, 80]}") unless read.rule.is == "nothing"
        end

        # How many there are in all is asked for each time, and told where that is another number than before.
        def hand_over(intake)
          intake.since_ms = @since_ms
          return @take.call(intake) unless intake.kind == :totals
          return if intake.body == @totals

          @totals = intake.body
          @take.call(intake)
        end

        def on_air(state)
          @silent = state == :ended
          state(:nobody_broadcasting, "Connected, but nobody is broadcasting there.") if @silent
        end

        # What the host said counts no more than what was found: the next broadcast has another one.
        def over(words = "This broadcast is over.")
          @values = @values.except(*@finding.names)
          @kept = {}
          return 0 if (@ended = @description.lack(known, words))

          @words = words
          return nobody if @poll.find

          @ended = Ended.new(:needs_you, words, :address)
          0
        end

        def nobody
          @joined = true
          state(:nobody_broadcasting, "#{@words || "Nobody is broadcasting there yet."} The next broadcast is found by itself.")
          @poll.find.every_ms
        end

        # @param as_nobody [Array<String>] meanings that here only say that nobody broadcasts
        def ended(answer, as_nobody = [])
          meaning = @poll.meaning(answer.status)
          return nobody if as_nobody.include?(meaning)

          case meaning
          when "permission" then denied
          when "address" then unknown
          when "nobody" then state(:nobody_broadcasting, "Nobody is broadcasting there.") && LOOK_AGAIN_MS
          when "later" then later(answer.retry_after_ms || LATER_MS)
          when "gap" then forget
          else trouble(answer)
          end
        end

        def denied
          if @permission && !@renewed
            @renewed = true
            @permission.renew
            return MISSED_MS
          end
          @ended = Ended.new(:needs_you, "#{name} does not let us read this#{" any more" if @joined}.", :permission)
          0
        end

        # What was found may be over; then the next is looked for.
        def unknown
          words = @description.unknown(@values)
          return over(words) if @poll.find

          @ended = Ended.new(:needs_you, words, :address)
          0
        end

        def later(wait_ms)
          state(:waiting, "#{name} wants to be asked less often. Nothing is lost: it goes on where it stopped.", retry_at_ms: @clock.call + wait_ms)
          wait_ms
        end

        # What was said meanwhile cannot be told again.
        def forget
          tell(:gap, Core::Gap.new(@heard_at_ms || @clock.call, @clock.call))
          @kept = @kept.slice(*@finding.names)
          MISSED_MS
        end

        def trouble(answer)
          @ended = Ended.new(:waiting, "#{name} answered #{answer.status}; it has trouble of its own.", nil, answer.retry_after_ms)
          0
        end

        # An answer that cannot be read however often it is asked for is left out: what was in it is shown as a gap.
        def beyond_reading(error)
          @reject.call(error.message)
          @nonsense += 1
          return forget if (@nonsense % TRIES).zero?

          pause_ms = [FIRST_PAUSE_MS * (2**[@nonsense, 8].min), LONGEST_PAUSE_MS].min
          state(:waiting, error.message, retry_at_ms: @clock.call + pause_ms)
          pause_ms
        end

        def wait(stop, pause_ms)
          deadline_ms = @clock.call + pause_ms
          loop do
            left_s = [(deadline_ms - @clock.call) / 1000.0, 0].max
            ready, = IO.select([stop, @outbox.io], nil, nil, left_s)
            return :stopped if ready&.include?(stop)
            return if ready.nil?

            @outbox.take.each { |letter| @writer.write(letter, known) }
          end
        end

        # Told only when something about it is new.
        def state(name, reason, retry_at_ms: nil)
          return true if [name, reason, retry_at_ms] == @told

          @told = [name, reason, retry_at_ms]
          tell(:feed_state, Core::FeedState.new(name, reason, @clock.call, retry_at_ms))
          true
        end

        def tell(kind, body)
          @take.call(Core::Intake.new(kind, @feed_id, nil, nil, @clock.call, body))
        end
      end
    end
  end
end
