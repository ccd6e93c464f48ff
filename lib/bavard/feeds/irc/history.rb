# frozen_string_literal: true

require "time"
require_relative "../../core/intake"

module Bavard
  module Feeds
    module Irc
      # Fetches what was said while we were away (IRCv3 draft/chathistory), page by page, or says from when to when
      # nothing is known.
      class History
        CAPABILITIES = %w[draft/chathistory chathistory].freeze
        PAGE = 100
        MOST_PAGES = 50
        # A break as short as this cannot be told from a slow network.
        NO_GAP_MS = 500

        # @param channel [String]
        # @param resume [Session::Resume]
        # @param send [Proc] takes a line to send
        def initialize(channel, resume, send:)
          @channel = channel
          @last_id = resume.last_id
          @heard_at_ms = resume.heard_at_ms
          @heard_there_ms = resume.heard_there_ms
          @send = send
          @page = PAGE
          @pages = 0
          @open = {}
        end

        # ISUPPORT may lower the size of a page: "CHATHISTORY=50".
        def supported(params)
          limit = params.filter_map { |word| word[%r{\A(?:draft/)?CHATHISTORY=(\d+)\z}i, 1] }.first.to_i
          @page = limit.clamp(1, PAGE) if limit.positive?
        end

        # @param granted [Array<String>] capabilities
        # @return [Core::Gap, nil] what cannot be fetched
        def begin(granted, now_ms)
          return unless @heard_at_ms
          return gap(now_ms) unless granted.include?("batch") && granted.intersect?(CAPABILITIES)

          @fetching = true
          ask
          nil
        end

        # @param batch [String, nil] the batch a line belongs to
        # @return [Boolean] whether the line is told again from history
        def collect(batch, id, time_ms)
          page = batch && @open[batch] or return false
          page[:count] += 1
          page[:id] = id || page[:id]
          page[:time_ms] = time_ms || page[:time_ms]
          true
        end

        # @param message [Message] BATCH
        # @yieldparam gap [Core::Gap] where the server gave up half way
        def batch(message, now_ms)
          reference = message.params.first.to_s
          if reference.start_with?("+") && CAPABILITIES.include?(message.params[1])
            @open[reference[1..]] = {count: 0}
          elsif reference.start_with?("-") && (page = @open.delete(reference[1..]))
            turn(page) or return
            @pages < MOST_PAGES ? ask : yield(Core::Gap.new(@heard_at_ms, now_ms))
          end
        end

        # FAIL CHATHISTORY … : the server has none of what was asked for.
        def failed(params, now_ms)
          return unless params.first == "CHATHISTORY" && @fetching

          @fetching = false
          missing = gap(now_ms)
          yield missing if missing
        end

        private

        # @return [Boolean] whether there is another page
        def turn(page)
          @last_id = page[:id] || @last_id
          there(page[:time_ms]) if page[:time_ms]
          @fetching = page[:count] >= @page && (page[:id] || page[:time_ms])
        end

        # @param time_ms [Integer] by the server's clock
        def there(time_ms)
          @heard_at_ms += time_ms - @heard_there_ms
          @heard_there_ms = time_ms
        end

        def ask
          @pages += 1
          from = @last_id ? "msgid=#{@last_id}" : "timestamp=#{Time.at(@heard_there_ms/1000r).utc.iso8601(3)}"
          @send.call("CHATHISTORY AFTER #{@channel} #{from} #{@page}")
        end

        # Of a clock that was set back meanwhile nobody knows how long it was.
        def gap(now_ms)
          Core::Gap.new(*[@heard_at_ms, now_ms].minmax) if (now_ms - @heard_at_ms).abs >= NO_GAP_MS
        end
      end
    end
  end
end
