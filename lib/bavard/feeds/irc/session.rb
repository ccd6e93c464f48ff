# frozen_string_literal: true

require_relative "../../core/intake"
require_relative "../resume"
require_relative "answers"
require_relative "history"
require_relative "members"
require_relative "message"
require_relative "registration"
require_relative "translation"

module Bavard
  module Feeds
    module Irc
      # One connection to a server, as a state machine: lines in, lines and intakes out. No socket, no clock.
      #
      #   session = Session.new(feed_id: 3, address:, mapping:, resume:)
      #   session.begin(now_ms)
      #   session.receive(":irc.example 001 guest42 :Welcome", now_ms)
      #   session.take_outgoing   # => ["JOIN #reedmere"]
      #   session.take_intakes    # => []
      class Session
        # Silence after which we ask, and after which we give up.
        ASK_AFTER_MS = 30_000
        GIVE_UP_AFTER_MS = 45_000
        REGISTER_WITHIN_MS = 20_000
        CANNOT_JOIN = %w[403 405 407 437 471 473 474 475 476 477 489].freeze
        FULL = "471"
        REFUSED_LINE = %w[404 415 437 531].freeze

        # @return [Symbol, nil] once set, the connection is over: :waiting (try again) or :needs_you
        attr_reader :ended

        def initialize(feed_id:, address:, mapping:, resume: NOTHING_TO_RESUME, digits: -> { rand(10_000..99_999) },
                       reject: ->(_what) {})
          @feed_id = feed_id
          @address = address
          @mapping = mapping
          @reject = reject
          @outgoing = []
          @intakes = []
          @topic = ""
          @registration = Registration.new(address, digits:, send: method(:send_line), fail: method(:over))
          @history = History.new(address.channel, resume, send: method(:send_line))
          @members = Members.new
          @translation = Translation.new(mapping, @members)
          @answers = Answers.new(address, send: method(:send_line), tell: ->(answered) { intake(:answered, body: answered) })
        end

        def begin(now_ms)
          @began_at_ms = @heard_at_ms = now_ms
          state(:connecting, "Saying who we are.", now_ms)
          @registration.begin(now_ms)
        end

        # @param line [String] valid UTF-8, without its line end
        def receive(line, now_ms)
          @heard_at_ms = now_ms
          @asked = false
          message = Message.parse(line) or return @reject.call("a line that is no message: #{line[0, 80].inspect}")
          @now_ms = now_ms
          @registration.receive(message) || react(message)
        end

        # To be called at least once a second.
        def tick(now_ms)
          @now_ms = now_ms
          @registration.tick(now_ms) unless @welcome
          @answers.tick(now_ms)
          if !@joined && now_ms - @began_at_ms > REGISTER_WITHIN_MS
            over(:waiting, "The server answered, but did not let us in within #{REGISTER_WITHIN_MS / 1000} s.")
          elsif now_ms - @heard_at_ms > GIVE_UP_AFTER_MS
            over(:waiting, "The server has been silent for #{GIVE_UP_AFTER_MS / 1000} s.")
          elsif now_ms - @heard_at_ms > ASK_AFTER_MS && !@asked
            @asked = true
            send_line("PING :still-there")
          end
        end

        # Sends a line of the host's.
        def say(letter, now_ms)
          @now_ms = now_ms
          @answers.say(letter, joined?, @registration.granted, now_ms)
        end

        # @return [String] why it ended
        attr_reader :reason
        # @return [Integer, nil] Unix milliseconds of the last thing the server said
        attr_reader :heard_at_ms

        # @return [Boolean] whether we are in the channel
        def joined?
          @joined ? true : false
        end

        # @return [Array<String>] lines to send, without line ends
        def take_outgoing
          taken = @outgoing
          @outgoing = []
          taken
        end

        # @return [Array<Core::Intake>]
        def take_intakes
          taken = @intakes
          @intakes = []
          taken
        end

        private

        # What answers to which command.
        REACTIONS = {
          "PRIVMSG" => :said, "TAGMSG" => :happened, "REDACT" => :redacted, "KICK" => :kicked, "MODE" => :mode, "PING" => :pinged,
          "353" => :names, "PART" => :parted, "QUIT" => :parted, "ACCOUNT" => :accounted,
          "BATCH" => :batched, "FAIL" => :failed, "001" => :welcome, "005" => :supported, "JOIN" => :joined, "332" => :topic, "TOPIC" => :topic,
          "NICK" => :renamed, "ERROR" => :closed
        }.merge(CANNOT_JOIN.to_h { |code| [code, :refused] }, REFUSED_LINE.to_h { |code| [code, :not_taken] }) { |_, refused, _| refused }.freeze
        private_constant :REACTIONS

        def react(message)
          reaction = REACTIONS[message.command]
          __send__(reaction, message) if reaction
        end

        def pinged(message) = send_line("PONG :#{message.params.last}")
        def batched(message) = @history.batch(message, @now_ms) { |gap| intake(:gap, body: gap) }
        def failed(message) = @history.failed(message.params, @now_ms) { |gap| intake(:gap, body: gap) }
        def accounted(message) = message.nick && @members.account_of(message.nick, message.params.first)
        def names(message) = here?(message.params[-2]) && @members.names(message.params.last)
        def parted(message) = (message.command == "QUIT" || here?(message.params.first)) && message.nick && @members.left(message.nick)
        def closed(message) = over(:waiting, "The server closed the line: #{quoted(message)}")
        def not_taken(message) = @answers.refused(quoted(message))

        def supported(message)
          @history.supported(message.params)
          @members.supported(message.params)
        end

        def renamed(message)
          nick = message.params.first or return
          @members.renamed(message.nick, nick) if message.nick
          @nick = nick if ours?(message.nick)
        end

        def mode(message)
          channel, modes, *words = message.params
          silenced(message)
          @members.changed(modes, words) if modes && here?(channel)
        end

        def welcome(message)
          @welcome = true
          @nick = message.params.first || @registration.nick
          send_line("JOIN #{@address.channel}")
        end

        def joined(message)
          return unless here?(message.params.first)
          return @members.account_of(message.nick, message.params[1]) unless ours?(message.nick) || message.nick.nil?

          @joined = true
          @members.clear
          @members.told = @registration.granted.include?("account-tag")
          tell_live
          gap = @history.begin(@registration.granted, @now_ms)
          intake(:gap, body: gap) if gap
        end

        def topic(message)
          @topic = message.params.last.to_s
          tell_live if @joined
        end

        def tell_live
          return state(:live, "Reading #{@address.channel}.", @now_ms) unless @mapping.off?(@topic)

          state(:nobody_broadcasting, "Connected, but nobody is broadcasting: “#{@topic[0, 120]}”", @now_ms)
        end

        def kicked(message)
          return unless here?(message.params.first)
          return put_out(message) unless ours?(message.params[1])

          over(:waiting, "We were put out of #{@address.channel}: #{quoted(message)}")
        end

        def put_out(message)
          silenced(message)
          @members.left(message.params[1]) if message.params[1]
        end

        def silenced(message)
          all = @translation.silenced(message)
          @history.collect(message.tags["batch"], @mapping.id(message.tags), @mapping.time_ms(message.tags))
          all.each { |who| intake(:clear_person, body: who) } if here?(message.params.first)
        end

        def refused(message)
          code = message.command
          return @registration.receive(Message.new(Tags::NONE, nil, "433", [])) if code == "437" && !@welcome

          over(code == FULL ? :waiting : :needs_you, "The server did not let us into #{@address.channel}: #{quoted(message)}")
        end

        def said(message)
          return unless message.params[1] && message.nick && here?(message.params.first)

          @members.spoke(message.nick)
          @answers.echoed(message, @now_ms) if ours?(message.nick)
          take_in(:line, message) { |history| @translation.said(message, history) }
        end

        def happened(message)
          take_in(:event, message) { |history| @translation.happened(message, history) } if message.nick && here?(message.params.first)
        end

        def take_in(kind, message)
          id = @mapping.id(message.tags)
          time_ms = @mapping.time_ms(message.tags)
          history = @history.collect(message.tags["batch"], id, time_ms)
          body = yield(history) or return
          intake(kind, platform_id: id, platform_time_ms: time_ms, body:)
        end

        def redacted(message)
          target, id = message.params
          @history.collect(message.tags["batch"], @mapping.id(message.tags), @mapping.time_ms(message.tags))
          intake(:delete_line, platform_id: id) if id && here?(target)
        end

        def here?(target)
          target&.casecmp?(@address.channel)
        end

        def ours?(nick)
          nick&.casecmp?(@nick.to_s)
        end

        def quoted(message)
          "“#{message.params.last.to_s[0, 160]}”"
        end

        def state(name, reason, now_ms)
          @now_ms = now_ms
          intake(:feed_state, body: Core::FeedState.new(name, reason, now_ms, nil))
        end

        def intake(kind, platform_id: nil, platform_time_ms: nil, body: nil)
          @intakes << Core::Intake.new(kind, @feed_id, platform_id, platform_time_ms, @now_ms, body)
        end

        def over(state, reason)
          return if @ended

          @ended = state
          @reason = reason
        end

        def send_line(line)
          @outgoing << line
        end
      end
    end
  end
end
