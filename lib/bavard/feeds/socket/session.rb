# frozen_string_literal: true

require_relative "../held_permission"
require_relative "../resume"
require_relative "items"

module Bavard
  module Feeds
    module WebSocketFeed
      # One connection to a platform, as a state machine: messages in, messages and intakes out. No socket, no clock.
      #
      # The platform says hello with its heartbeat; we join the room, or resume where we were; then events come with
      # growing numbers.
      class Session
        # Beats that may be missing before the connection counts as dead.
        MISSING_BEATS = 2.5
        BEAT_MS = 1000..120_000
        JOIN_WITHIN_MS = 15_000
        SAY_WITHIN_MS = 8000
        # The platform's own close codes (RFC 6455 §7.4.2: 4000 to 4999 are private use).
        DENIED = 4401
        NO_ROOM = 4404
        TOO_FAST = 4429
        TOO_FAST_MS = 5000

        attr_reader :ended, :heard_at_ms, :cursor

        # @param permission [HeldPermission, nil]
        def initialize(feed_id, room, resume, name:, permission:, reject:)
          @feed_id = feed_id
          @room = room
          @name = name
          @permission = permission
          @reject = reject
          @cursor = resume.cursor if resume.cursor.is_a?(Hash)
          @heard_before_ms = resume.heard_at_ms
          @outgoing = []
          @intakes = []
          @asked = {}
        end

        def joined? = @joined ? true : false

        def begin(now_ms)
          @now_ms = @began_at_ms = @heard_at_ms = now_ms
          state(:connecting, "Waiting to be greeted.")
        end

        # @param message [Hash]
        def receive(message, now_ms)
          @now_ms = @heard_at_ms = now_ms
          case message["op"]
          when "hello" then greeted(message)
          when "joined" then joined(message)
          when "cannot_resume" then cannot_resume
          when "event" then event(message)
          when "beat" then @outgoing << {op: "beat"}
          when "totals" then totals(message)
          when "profile" then Items.profile(message)&.then { |profile| intake(:profile, body: profile) }
          when "said" then answered(message, nil)
          when "refused" then answered(message, Given.text(message["reason"], 200) || "#{@name} did not take it.")
          else @reject.call("a message that cannot be read: #{message.inspect[0, 80]}")
          end
        end

        # To be called at least once a second.
        def tick(now_ms)
          @now_ms = now_ms
          silent_ms = now_ms - @heard_at_ms
          if !@joined && now_ms - @began_at_ms > JOIN_WITHIN_MS
            over(:waiting, "#{@name} answered, but did not let us in within #{JOIN_WITHIN_MS / 1000} s.")
          elsif @beat_ms && silent_ms > @beat_ms * MISSING_BEATS
            over(:waiting, "#{@name} has missed its heartbeat for #{(silent_ms / 1000.0).round} s.")
          end
          @asked.delete_if { |_, (id, until_ms)| until_ms < now_ms && tell(id, "#{@name} did not say whether it took the line.") }
        end

        # The platform closed the line.
        def closed(code, reason, now_ms)
          @now_ms = now_ms
          case code
          when DENIED then denied
          when NO_ROOM then over(:needs_you, "#{@name} has no room called #{@room}.", want: :address)
          when TOO_FAST then over(:waiting, "#{@name} wants us to come less often.", after_ms: TOO_FAST_MS)
          else over(:waiting, "The other side closed the line (#{[code, reason.to_s[0, 80]].join(", ").delete_suffix(", ")}).#{promise}")
          end
        end

        # @param letter [Outbox::Letter]
        def say(letter, now_ms)
          @now_ms = now_ms
          return tell(letter.answer_id, "This feed is not connected just now.") unless @joined
          return tell(letter.answer_id, "This feed reads as a guest; it has no permission to write.") unless @permission&.may?("write")

          nonce = letter.answer_id.to_s
          @asked[nonce] = [letter.answer_id, now_ms + SAY_WITHIN_MS]
          @outgoing << {op: "say", nonce:, body: letter.text}
        end

        # @param login [String] about whom
        def ask(login)
          @outgoing << {op: "who", login:} if @joined
        end

        # @return [Array<Hash>]
        def take_outgoing = @outgoing.tap { @outgoing = [] }

        # @return [Array<Core::Intake>]
        def take_intakes = @intakes.tap { @intakes = [] }

        # Whatever is not said yet when the line broke.
        def promise
          @cursor ? " Nothing is lost: it will send again from #{@cursor["after"]} on." : ""
        end

        private

        def greeted(message)
          @beat_ms = (Given.whole(message["beat_ms"]) || 30_000).clamp(BEAT_MS)
          return join unless @cursor

          @resuming = @cursor["as"] == standing
          @resuming ? @outgoing << {op: "resume", resume: @cursor["resume"], after: @cursor["after"]} : join
        end

        # Where it was with another permission, or none, it cannot go on as that; what was said since is asked for.
        def join = @outgoing << {op: "join", room: @room, token: @permission&.token, **(@cursor ? {after: @cursor["after"]} : {})}

        # @return [String, nil] as whom it reads, and what that allows
        def standing = @permission&.standing

        # Too much was said meanwhile: it cannot be told again.
        def cannot_resume
          @cursor = nil
          missed
          join
        end

        def missed
          intake(:gap, body: Core::Gap.new(@heard_before_ms, @now_ms)) if @heard_before_ms
        end

        def joined(message)
          before = @cursor
          seq = Given.whole(message["seq"]) || 0
          @joined = true
          @cursor = {"resume" => Given.text(message["resume"], 400), "after" => seq, "as" => standing}
          @told_again_until_ms = before ? @now_ms : nil
          missed if before && !@resuming && seq > before["after"]
          tell_live(message["on_air"] != false)
        end

        def event(message)
          seq = Given.whole(message["seq"]) or return @reject.call("an event without a number")
          @cursor["after"] = seq if @cursor && seq > @cursor["after"]
          return tell_live(message["on"] == true) if message["kind"] == "air"

          intake = Items.intake(message, @feed_id, @now_ms, history: told_again?(message))
          intake ? @intakes << intake : @reject.call("an event that cannot be read: #{message.inspect[0, 80]}")
        end

        def totals(message)
          told = Given.totals(message)
          intake(:totals, body: told) if told.any?
        end

        # After a resume: what was said before we were back.
        def told_again?(message)
          at_ms = Given.ms(message["ts"])
          @told_again_until_ms && at_ms ? at_ms < @told_again_until_ms : false
        end

        def tell_live(on_air)
          on_air ? state(:live, "Reading the room #{@room}.") : state(:nobody_broadcasting, "Connected, but nobody is broadcasting in #{@room}.")
        end

        # The permission may only have run out; it is renewed once.
        def denied
          @permission&.renew
          if @permission
            over(:waiting,
              "#{@name} wanted a newer permission.")
          else
            over(:needs_you, "#{@name} lets no guests into #{@room}.", want: :permission)
          end
        rescue HeldPermission::Gone => error
          @cursor = nil
          over(:needs_you, error.message, want: :permission)
        end

        def answered(message, reason)
          id, = @asked.delete(message["nonce"])
          tell(id, reason) if id
        end

        def tell(answer_id, reason)
          intake(:answered, body: Core::Answered.new(answer_id, reason.nil?, reason))
        end

        def state(name, reason)
          intake(:feed_state, body: Core::FeedState.new(name, reason, @now_ms, nil))
        end

        def intake(kind, body: nil)
          @intakes << Core::Intake.new(kind, @feed_id, nil, nil, @now_ms, body)
        end

        def over(state, reason, want: nil, after_ms: nil)
          @ended = Ended.new(state, reason, want, after_ms) if @ended.nil?
        end
      end
    end
  end
end
