# frozen_string_literal: true

require_relative "../now_and_then"
require_relative "hub"
require_relative "nchan_page"
require_relative "publisher"

module Bavard
  module Relay
    # Pages that follow over nginx with Nchan in front (ops/nginx/relay.conf), beside those whose WebSocket comes here. A page asks nginx,
    # nginx asks us who that is, and is told by X-Accel-Redirect which channels the page follows: that of its topic, and one of its own, in
    # which it is told what is there. From then on nginx holds its line, and a frame is sent there once, however many follow.
    # What pages say, and that they are gone, nginx tells as a request of its own ({Web::RelayCalls}).
    class Nchan
      # Where nginx goes on inside, with the channel of a topic and a page's own.
      FOLLOW = "/relay/follow"
      REPLACED = %({"replaced":true})
      BEAT_EVERY_S = 1
      # So often, and so long after it came, a page is looked for: nginx may have been killed before it could tell.
      LOOK_EVERY_MS = 15_000
      # A page's channel that was ended is ended once more so many beats later: nginx may only just have been told that it may follow.
      ENDED_BEATS = 2

      # @param inside [Hub] for all others
      # @param at [URI::HTTP] where nginx takes frames
      # @param here [String] host and port at which nginx tells what pages say; its channels are told by it from those of others
      # @param clock [#call] Unix milliseconds
      def initialize(inside, at, here:, clock:, log:)
        @inside = inside
        @clock = clock
        @log = log
        @lock = Mutex.new
        @pages = {}
        @following = {}
        @ended = Array.new(ENDED_BEATS) { [] }
        @delivered = 0
        @looked_at_ms = clock.call
        @here = here
        @publisher = Publisher.new(at, group: here, lost: method(:lost), log:)
      end

      def start
        @inside.start
        @publisher.start
        @beats = NowAndThen.new("relay beats", BEAT_EVERY_S) { beat }.start
        self
      end

      def join(...) = @inside.join(...)

      # @return [Boolean] whether pages may follow over nginx just now
      def there? = @publisher.there?

      # @param env [Hash] of the request with which nginx asks
      # @param last [String, nil] "life:seq" of the last frame that page has
      # @param cuts [Integer, nil] as of {#join}
      # @return [String, nil] where nginx is to go on; nil where they have to come again
      def follow(env, topic, follower:, last: nil, cuts: nil)
        page = take_in(NchanPage.new(env, topic, follower, @clock.call))
        # Whoever is cut off from here on is one of them.
        return take_out([page]) && nil if @inside.stale?(topic, cuts)

        # From here on what is sent is sent there as well: nothing lies between the two.
        @publisher.post(page.key, topic.catch_up(last))
        follower.opened(page)
        "#{FOLLOW}/#{@here}/#{channel(topic)}/#{page.key}"
      end

      # What a page says, told by nginx.
      #
      # @param key [String]
      def heard(key, text)
        page = @lock.synchronize { @pages[key] } or return @publisher.delete(key)
        number = text[Connection::HERE, 1] or return page.follower.heard(page, text)
        @publisher.post(key, page.topic.answer(number))
      end

      # A page is gone, says nginx.
      def gone(key) = forget([@lock.synchronize { @pages[key] }].compact)

      def cuts = @inside.cuts
      def size(topic) = @inside.size(topic) + @lock.synchronize { @following[topic]&.size.to_i }
      def pages = @inside.pages + relayed
      def relayed = @lock.synchronize { @pages.size }
      # What nginx has waiting for a page it keeps to itself.
      def behind = @inside.behind
      def delivered = @inside.delivered + @delivered

      def deliver(topic, frame)
        @inside.deliver(topic, frame)
        many = @lock.synchronize { @following[topic]&.size } or return
        @publisher.post(channel(topic), frame)
        @delivered += many
      end

      def whisper(topic, id, text)
        @inside.whisper(topic, id, text)
        page = @lock.synchronize { @following[topic]&.each_value&.find { |one| one.id == id } } or return
        @publisher.post(page.key, text)
      end

      def close(topic)
        @inside.close(topic)
        cut(@lock.synchronize { @following[topic]&.values || [] })
      end

      # Of a topic whose pages are to come back.
      def let_go(topic)
        @inside.let_go(topic)
        pages = @lock.synchronize { @following[topic]&.values || [] }
        pages.each { |page| end_channel(page) }
        forget(pages)
      end

      # Of those whose lines nginx holds every one follows a topic of a show.
      def let_go_where(&block) = @inside.let_go_where(&block)

      # Whoever follows it still where it was before, comes here.
      #
      # @param place [String] of another, as it is called there
      def came_from(place, topic) = @publisher.delete(channel(topic), group: place)

      def cut_where(again: false, &block)
        @inside.cut_where(again:, &block)
        cut(@lock.synchronize { @pages.values }.select { |page| yield(page.env) })
      end

      def stop
        @beats.stop
        @publisher.stop
        lost
        @inside.stop
      end

      private

      # Nobody outside can follow by it: only what we name inside is followed.
      def channel(topic) = topic.name.tr(":", "-")

      def cut(pages)
        pages.each do |page|
          @publisher.post(page.key, REPLACED)
          end_channel(page)
        end
        forget(pages)
      end

      def end_channel(page)
        @lock.synchronize { @ended.last << page.key }
        @publisher.delete(page.key)
      end

      def end_once_more
        keys = @lock.synchronize { @ended.shift.tap { @ended << [] } }
        keys.each { |key| @publisher.delete(key) }
      end

      def take_in(page)
        @lock.synchronize do
          @pages[page.key] = page
          (@following[page.topic] ||= {})[page.key] = page
        end
      end

      def forget(pages) = take_out(pages).each { |page| page.follower.closed(page) }

      # @return [Array<NchanPage>] those that were there
      def take_out(pages) = @lock.synchronize { pages.select { |page| @pages.delete(page.key) && leave(page) } }

      def leave(page)
        following = @following[page.topic]
        following.delete(page.key)
        @following.delete(page.topic) if following.empty?
        true
      end

      # Nobody knows what has arrived: all come back.
      def lost = forget(@lock.synchronize { @pages.values })

      # Once for all that follow a topic.
      def beat
        end_once_more
        @lock.synchronize { @following.keys }.each { |topic| @publisher.post(channel(topic), topic.beat) }
        now_ms = @clock.call
        return if now_ms - @looked_at_ms < LOOK_EVERY_MS

        @looked_at_ms = now_ms
        @lock.synchronize { @pages.values }.each { |page| look_for(page) if now_ms - page.since_ms > LOOK_EVERY_MS }
      end

      def look_for(page) = @publisher.count(page.key) { |followers| forget([page]) if followers.zero? }
    end
  end
end
