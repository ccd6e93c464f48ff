# frozen_string_literal: true

require_relative "../../core/intake"

module Bavard
  module Feeds
    module Irc
      # The host's own lines on their way to a channel: sent, and told apart into those that went and those that did not.
      # A server with IRCv3 echo-message gives back what it took; of another it is known only if it refuses.
      class Answers
        ECHO_WITHIN_MS = 8000
        REFUSED_WITHIN_MS = 1500
        # What surely goes on to others, with our own prefix in front (RFC 2812 §2.3).
        LONGEST_BYTES = 400
        Waiting = Struct.new(:letter, :until_ms, :echo)

        # @param send [Proc] takes a line to send
        # @param tell [Proc] takes a Core::Answered
        def initialize(address, send:, tell:)
          @address = address
          @send = send
          @tell = tell
          @waiting = []
        end

        # @param letter [Outbox::Letter]
        def say(letter, joined, granted, now_ms)
          return tell(letter, false, "This feed is not connected just now.") unless joined
          return tell(letter, false, "Guests only read; give this feed a nick to answer with.") unless @address.nick

          return tell(letter, false, too_long(letter.text)) if letter.text.bytesize > LONGEST_BYTES

          echo = granted.include?("echo-message")
          @send.call("PRIVMSG #{@address.channel} :#{letter.text}")
          @waiting << Waiting.new(letter, now_ms + (echo ? ECHO_WITHIN_MS : REFUSED_WITHIN_MS), echo)
        end

        # @param message [Message] a line of ours that came back
        def echoed(message, _now_ms)
          index = @waiting.index { |waiting| waiting.letter.text == message.params[1] } or return
          tell(@waiting.delete_at(index).letter, true)
        end

        # @param said [String] why the server did not take it
        def refused(said)
          waiting = @waiting.shift or return
          tell(waiting.letter, false, "The server did not take it: #{said}")
        end

        def tick(now_ms)
          over, @waiting = @waiting.partition { |waiting| waiting.until_ms <= now_ms }
          over.each do |waiting|
            waiting.echo ? tell(waiting.letter, false, "The server did not say that it took the line.") : tell(waiting.letter, true)
          end
        end

        private

        def too_long(text) = "A line here has room for #{LONGEST_BYTES} bytes; this one has #{text.bytesize}."

        def tell(letter, went, reason = nil)
          @tell.call(Core::Answered.new(letter.answer_id, went, reason))
        end
      end
    end
  end
end
