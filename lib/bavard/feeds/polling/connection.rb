# frozen_string_literal: true

require "io/wait"
require_relative "../held_permission"
require_relative "../resume"
require_relative "broadcast"
require_relative "client"
require_relative "items"
require_relative "writer"

module Bavard
  module Feeds
    module Polling
      # Reads one broadcast after another: asks for a page, waits as long as the platform wants, asks for the next.
      class Connection
        SOONEST_MS = 200
        LATEST_MS = 60_000
        # How often it is asked whether a broadcast has begun.
        LOOK_EVERY_MS = 10_000
        WITHOUT_NUMBER = "Every broadcast here has a number of its own. Enter today’s, or have it found."
        LIMITED_MS = 30_000
        # So often a page is asked for that cannot be read.
        TRIES = 4

        attr_reader :heard_at_ms, :cursor

        # @param client [Client]
        # @param broadcast [Broadcast]
        # @param resume [Resume] cursor: {"number" => …, "page" => …}
        # @param permission [HeldPermission, nil]
        # @param found [#call] takes the number of a broadcast that was found
        def initialize(feed_id, client, broadcast, resume, name:, clock:, take:, reject:, outbox:, permission:, found:)
          @feed_id = feed_id
          @client = client
          @number = broadcast.number
          @channel = broadcast.channel
          @name = name
          @clock = clock
          @take = take
          @reject = reject
          @outbox = outbox
          @permission = permission
          @found = found
          @nonsense = 0
          @writer = Writer.new(client, name, permission, ->(answered) { tell(:answered, answered) })
          @heard_at_ms = resume.heard_at_ms
          @cursor = resume.cursor if resume.cursor.is_a?(Hash) && resume.cursor["number"] == @number
        end

        # @return [Boolean] whether it got as far as reading messages
        def joined? = @joined ? true : false

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          until @ended
            pause_ms = @number ? ask : look
            return if @ended.nil? && wait(stop, pause_ms) == :stopped
          end
          @ended
        rescue Client::Unreachable, Client::Nonsense => error
          @reject.call(error.message) if error.is_a?(Client::Nonsense)
          Ended.new(:waiting, error.message)
        rescue HeldPermission::Gone => error
          Ended.new(:needs_you, error.message, :permission)
        ensure
          @client.close
        end

        private

        # @return [Integer] milliseconds to wait
        def ask
          asked.tap { @nonsense = 0 }
        rescue Client::Nonsense => error
          beyond_reading(error)
        end

        # A page that cannot be read however often it is asked for is left out: what was on it is shown as a gap.
        def beyond_reading(error)
          @reject.call(error.message)
          @nonsense += 1
          return forget_page if (@nonsense % TRIES).zero? && @cursor

          pause_ms = [SOONEST_MS * (2**[@nonsense, 10].min), LATEST_MS].min
          state(:waiting, error.message, retry_at_ms: @clock.call + pause_ms)
          pause_ms
        end

        def asked
          page = @cursor && @cursor["page"]
          answer = @client.get("/v1/broadcasts/#{@number}/messages", query: page ? {"page" => page} : {}, token: @permission&.token)
          case answer.status
          when 200 then took(answer.body, first: page.nil?)
          when 410 then forget_page
          else refused(answer)
          end
        end

        def took(body, first:)
          now_ms = @heard_at_ms = @clock.call
          items = Given.list(body["items"])
          items.each { |item| take_in(item, now_ms, history: first || !@joined) }
          totals(Given.totals(body["totals"]))
          @joined = true
          @cursor = {"number" => @number, "page" => Given.text(body["next_page"], 2000) || @cursor&.fetch("page", nil)}
          return over(Given.object(body["broadcast"])) if Given.object(body["broadcast"])["state"] == "ended"

          @pace_ms = (Given.whole(body["poll_after_ms"]) || 1000).clamp(SOONEST_MS, LATEST_MS)
          state(:live, "Reading broadcast #{@number}, asked every #{format("%g", (@pace_ms / 1000.0).round(1))} s.")
          @pace_ms
        end

        def take_in(item, now_ms, history:)
          intake = read(item, now_ms, history)
          intake ? @take.call(intake) : @reject.call("an item that cannot be read: #{item.inspect[0, 80]}")
        end

        # Whatever is in it, the next one is read.
        def read(item, now_ms, history)
          Items.intake(item, @feed_id, now_ms, history:)
        rescue StandardError
          nil
        end

        # Only where they are others than were told last.
        def totals(told)
          return if told.empty? || told == @totals

          @totals = told
          tell(:totals, told)
        end

        # That page is gone: what lies between it and now cannot be told again.
        def forget_page
          tell(:gap, Core::Gap.new(@heard_at_ms || @clock.call, @clock.call))
          @cursor = nil
          SOONEST_MS
        end

        def refused(answer)
          case answer.status
          when 429 then limited(answer.retry_after_ms || LIMITED_MS)
          when 401, 403 then denied(answer.status)
          when 404 then unknown
          else
            @ended = Ended.new(:waiting, "#{@name} answered #{answer.status}; it has trouble of its own.", nil, answer.retry_after_ms)
            0
          end
        end

        # It wants to be asked less often: nothing is lost, only later.
        def limited(wait_ms)
          state(:waiting, "#{@name} wants to be asked less often. Nothing is lost: it goes on where it stopped.", retry_at_ms: @clock.call + wait_ms)
          wait_ms
        end

        def denied(status)
          return retry_with_new_permission if status == 401 && @permission && !@renewed

          reason = status == 401 ? "does not accept our permission any more. Give it again, or read as a guest." : "does not let us read this."
          @ended = Ended.new(:needs_you, "#{@name} #{reason}", @permission ? :permission : :broadcast)
          0
        end

        def retry_with_new_permission
          @renewed = true
          @permission.renew
          SOONEST_MS
        end

        def unknown
          return lost_number unless @channel.nil?

          @ended = Ended.new(:needs_you, "There is no broadcast #{@number}. #{WITHOUT_NUMBER}", :broadcast)
          0
        end

        def over(broadcast)
          at = Given.time_ms(broadcast["ended_at"])
          @ended_words = "Broadcast #{@number} ended#{" at #{Time.at(at / 1000).strftime("%H:%M")}" if at}."
          return lost_number if @channel

          @ended = Ended.new(:needs_you, "#{@ended_words} Every broadcast has a number of its own: enter the next one.", :broadcast)
          0
        end

        # The next broadcast of this channel is found by itself.
        def lost_number
          @number = nil
          @cursor = nil
          state(:nobody_broadcasting, "#{@ended_words || "Nobody is broadcasting on #{@channel}."} The next one on #{@channel} is found by itself.")
          LOOK_EVERY_MS / 10
        end

        def look
          return no_number unless @channel

          answer = @client.get("/v1/channels/#{@channel}/broadcast", token: @permission&.token)
          @heard_at_ms = @clock.call
          return limited(answer.retry_after_ms || LIMITED_MS) if answer.status == 429

          number = answer.status == 200 ? Broadcast.number(answer.body["number"].to_s) : nil
          return nobody if number.nil?

          @number = number
          @found.call(number)
          0
        end

        def no_number
          @ended = Ended.new(:needs_you, WITHOUT_NUMBER, :broadcast)
          0
        end

        def nobody
          @joined = true
          so_far = @ended_words || "Nobody is broadcasting on #{@channel} yet."
          state(:nobody_broadcasting, "#{so_far} The next one on #{@channel} is found by itself.")
          LOOK_EVERY_MS
        end

        def wait(stop, pause_ms)
          deadline_ms = @clock.call + pause_ms
          loop do
            left_s = [(deadline_ms - @clock.call) / 1000.0, 0].max
            ready, = IO.select([stop, @outbox.io], nil, nil, left_s)
            return :stopped if ready&.include?(stop)
            return if ready.nil?

            @outbox.take.each { |letter| @writer.write(letter, @number) }
          end
        end

        # Told only when something about it is new.
        def state(name, reason, retry_at_ms: nil)
          return if [name, reason, retry_at_ms] == @told

          @told = [name, reason, retry_at_ms]
          tell(:feed_state, Core::FeedState.new(name, reason, @clock.call, retry_at_ms))
        end

        def tell(kind, body)
          @take.call(Core::Intake.new(kind, @feed_id, nil, nil, @clock.call, body))
        end
      end
    end
  end
end
