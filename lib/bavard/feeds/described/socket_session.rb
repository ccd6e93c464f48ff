# frozen_string_literal: true

require_relative "../held_permission"
require_relative "../resume"
require_relative "description"

module Bavard
  module Feeds
    module Described
      # One connection over a WebSocket to a described platform, as a state machine: messages in, messages and intakes out. No socket, no
      # clock.
      class SocketSession
        JOIN_WITHIN_MS = 15_000
        SAY_WITHIN_MS = 8000
        # Beats that may be missing before the connection counts as dead.
        MISSING_BEATS = 2.5
        LATER_MS = 5000
        # For so long after a resume what its platform's clock puts before it counts as told again.
        TELLS_AGAIN_MS = 10_000
        AS = "_as"
        # Of why a line was not taken.
        LONGEST_WORDS = 200

        attr_reader :ended, :heard_at_ms

        # @param description [Description]
        # @param values [Hash{String => String}] what was asked of the host, and secrets
        # @param resume [Resume] cursor: what was kept
        # @param permission [HeldPermission, nil]
        # @param reject [#call]
        # @param watch [#call, nil] told of each message as it comes
        def initialize(feed_id, description, values, resume, permission:, reject:, watch: nil)
          @watch = watch
          @feed_id = feed_id
          @description = description
          @transport = description.transport
          @values = values
          @permission = permission
          @reject = reject
          cursor = resume.cursor.is_a?(Hash) ? resume.cursor : {}
          @kept = cursor.slice(*@transport.kept)
          # Somebody else, or somebody who may do other things, cannot go on where the one before was; what was said since may be asked for.
          @resuming = @kept.any? && cursor[AS] == permission&.standing
          @heard_before_ms = resume.heard_at_ms
          @outgoing = []
          @intakes = []
          @waiting = []
        end

        def cursor = @kept.empty? ? nil : {**@kept, AS => @permission&.standing}.compact

        def joined? = @joined ? true : false

        def begin(now_ms)
          @now_ms = @began_at_ms = @heard_at_ms = @said_at_ms = now_ms
          state(:connecting, "Waiting for #{name}.")
        end

        # The line is open.
        def opened
          @transport.opens.each { |letter| say_letter(letter) }
          joined if @transport.opens.empty? && !@transport.means?("joined")
        end

        # @param text [String] as it came
        def hear(text, now_ms)
          message = @transport.message(text)
          @watch&.call(message)
          receive(@transport.frame(message), now_ms)
        end

        # @param frame [Object] in which things are looked for
        def receive(frame, now_ms)
          @now_ms = @heard_at_ms = now_ms
          @kept = @kept.merge(@transport.keep(frame))
          hear_beat(frame)
          answered = answer(frame)
          joined unless @joined || @transport.means?("joined")
          @transport.items(frame).each { |item| take_in(item, frame, answered:) }
        end

        # To be called at least once a second.
        def tick(now_ms)
          @now_ms = now_ms
          if !@joined && now_ms - @began_at_ms > JOIN_WITHIN_MS
            return over(:waiting, "#{name} answered, but did not let us in within #{JOIN_WITHIN_MS / 1000} s.")
          end

          beat(now_ms)
          late = @waiting.take_while { |_, until_ms| until_ms < now_ms }
          @waiting.shift(late.size)
          late.each { |id, _| tell(id, "#{name} did not say whether it took the line.") }
        end

        # The platform closed the line.
        def closed(code, reason, now_ms)
          @now_ms = now_ms
          case @transport.meaning(code)
          when "permission" then denied
          when "address" then over(:needs_you, @description.unknown(@values), want: :address)
          when "later" then over(:waiting, "#{name} wants us to come less often.", after_ms: LATER_MS)
          when "nobody" then over(:waiting, "Nobody is broadcasting there.", after_ms: LATER_MS)
          when "gap" then forget && over(:waiting, "#{name} cannot tell what was said meanwhile.")
          else over(:waiting, "The other side closed the line (#{[code, reason.to_s[0, 80]].join(", ").delete_suffix(", ")}).#{promise}")
          end
        end

        # @param letter [Outbox::Letter]
        def say(letter, now_ms)
          @now_ms = now_ms
          return tell(letter.answer_id, "This feed is not connected just now.") unless @joined
          return tell(letter.answer_id, "Nobody described how to write there.") unless @transport.writes
          return tell(letter.answer_id, "This feed reads as a guest; it has no permission to write.") unless @permission&.may?("write")

          say_letter(@transport.writes, "text" => letter.text, "nonce" => letter.answer_id.to_s)
          told_of_writing? ? @waiting << [letter.answer_id, now_ms + SAY_WITHIN_MS] : tell(letter.answer_id, nil)
        end

        # @param login [String] about whom
        def ask(login)
          say_letter(@transport.asks_about, "login" => login) if @joined && @transport.asks_about
        end

        # @return [Array<String>] as they go out
        def take_outgoing = @outgoing.map { |message| @transport.written(message) }.tap { @outgoing = [] }

        # @return [Array<Core::Intake>]
        def take_intakes = @intakes.tap { @intakes = [] }

        # Whatever is not said yet when the line broke.
        def promise = @kept.any? ? " It goes on where it stopped." : ""

        private

        def name = @description.name
        def told_of_writing? = @transport.means?("took") || @transport.means?("refused")
        def all_values = {**@values, **@kept, "token" => @permission&.token}
        def say_letter(letter, more = {}) = @outgoing << letter.fill({**all_values, **more}).tap { @said_at_ms = @now_ms }

        # @return [Boolean] whether something was said of this frame
        def answer(frame)
          found = @transport.answers.select { |one| (one.resuming.nil? || one.resuming == @resuming) && one.condition.holds?(frame) }
          found.each do |one|
            say_letter(one.say) if one.say
            means(one.means, one.words && Given.text(one.words.of(frame), LONGEST_WORDS))
          end
          found.any?
        end

        def means(meaning, words)
          case meaning
          when "joined" then joined
          when "resumed" then joined(again: true)
          when "forgotten" then forget
          when "took" then answered(nil)
          when "refused" then answered(words || "#{name} did not take it.")
          end
        end

        # @param again [Boolean] whether we are told what was said since we were there last
        def joined(again: @resuming && !says_resumed?)
          return if @joined

          @joined = true
          missed unless again
          @told_again_until_ms = again ? @now_ms : nil
          state(:live, "Reading #{name}.")
        end

        def says_resumed? = @transport.means?("resumed")

        # It cannot be told again.
        def forget
          @kept = {}
          @resuming = false
          missed
          @heard_before_ms = nil
          true
        end

        def missed
          intake(:gap, Core::Gap.new(@heard_before_ms, @now_ms)) if @heard_before_ms && @now_ms > @heard_before_ms
        end

        # It says itself how often it wants to hear of us.
        def hear_beat(frame)
          told = @transport.beat&.every&.of(frame)
          @beat_ms = told if told
        end

        def beat(now_ms)
          beat = @transport.beat or return
          every_ms = @beat_ms || beat.every&.of(nil) || (beat.say ? Socket::USUALLY_MS : nil)
          say_letter(beat.say) if beat.say && now_ms - @said_at_ms >= every_ms
          # Whether what we say is answered nobody knows; of beats that the platform says itself it is known when they are due.
          dead_ms = beat.silent_ms || (beat.say || every_ms.nil? ? nil : every_ms * MISSING_BEATS)
          silent_ms = now_ms - @heard_at_ms
          over(:waiting, "#{name} has been silent for #{(silent_ms / 1000.0).round} s.") if dead_ms && silent_ms > dead_ms
        end

        def take_in(item, frame, answered:)
          read = @description.reading.read(@description.reading.joined(item, frame), @feed_id, @now_ms)
          told_again(read.intake)
          return unread(item, answered) unless read.rule
          return on_air(read.state) if read.state
          return @reject.call("a #{read.rule.is} that cannot be read: #{item.inspect[0, 80]}") if read.intake.nil? && read.rule.is != "nothing"

          hand_over(read.intake) if read.intake
        end

        # Which room it is says who comes into it.
        def hand_over(intake)
          @intakes << intake
          return unless intake.kind == :voice && intake.body.what == :room

          people = intake.body.people.size
          state(:live, "In #{intake.body.room.name}, with #{people == 1 ? "one person" : "#{people} people"}.")
        end

        # After a resume: what was said before we were back. Not for ever: by a clock that is behind ours, what is said now was said before.
        def told_again(intake)
          at_ms = intake&.platform_time_ms
          return unless @told_again_until_ms && at_ms && at_ms < @told_again_until_ms
          return if (@now_ms - @told_again_until_ms).abs > TELLS_AGAIN_MS

          said = intake.kind == :event ? intake.body.said : intake.body
          return unless said.is_a?(Core::Said)

          said.history = true
          intake.since_ms = @heard_before_ms
        end

        def unread(item, answered)
          @reject.call("nothing reads this: #{item.inspect[0, 80]}") unless answered
        end

        def on_air(state)
          state == :begun ? state(:live, "Reading #{name}.") : state(:nobody_broadcasting, "Connected, but nobody is broadcasting there.")
        end

        # The permission may only have run out; it is renewed once.
        def denied
          @permission&.renew
          @permission ? over(:waiting, "#{name} wanted a newer permission.") : over(:needs_you, "#{name} lets no guests in.", want: :permission)
        rescue HeldPermission::Gone => error
          over(:needs_you, error.message, want: :permission)
        end

        # What is written is answered in its order.
        def answered(reason)
          id, = @waiting.shift
          tell(id, reason) if id
        end

        def tell(answer_id, reason) = intake(:answered, Core::Answered.new(answer_id, reason.nil?, reason))

        def state(name, reason)
          return if @told == [name, reason]

          @told = [name, reason]
          intake(:feed_state, Core::FeedState.new(name, reason, @now_ms, nil))
        end

        def intake(kind, body) = @intakes << Core::Intake.new(kind, @feed_id, nil, nil, @now_ms, body)

        def over(state, reason, want: nil, after_ms: nil)
          @ended = Ended.new(state, reason, want, after_ms) if @ended.nil?
        end
      end
    end
  end
end
