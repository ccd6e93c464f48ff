# frozen_string_literal: true

require_relative "../../error"
require_relative "../../now_and_then"
require_relative "cut_off"
require_relative "elsewhere"
require_relative "show"
require_relative "waking"

module Bavard
  module Live
    # The shows of this installation: those that run in this process, and those that sleep until somebody needs them (a page, a screen, a feed
    # that is wanted, whoever sends something to an address of theirs).
    class Shows
      RENEW_EVERY_S = 5
      # The locks of a process that was killed are let go within a moment.
      TRIES = 20
      TRY_EVERY_S = 0.1
      SHARE_EVERY_S = 1
      # So long a show that goes on, here or elsewhere, waits for its log.
      WRITTEN_WITHIN_S = 5
      # One that nobody needs goes to sleep after so long, and not before.
      REST_AFTER_MS = 600_000
      REST_EVERY_S = 15
      # Of a link, or of an address that takes what is sent.
      TOKEN = /\A[\w-]{1,64}\z/
      ENDING = "Bavard is stopping. Try again in a moment."
      CLOSED = "This show is closed, or is no more. Whoever runs this Bavard can say why."

      # @param means [Means]
      # @param lease [#take, #renew, #release, #taken] that keeps a show from running twice
      # @param places [Places, nil] where several processes share shows
      # @param away [#call] whether the database is out of reach
      def initialize(means, lease:, places: nil, away: -> { false })
        @places = places
        @means = means
        @store = means.stores.shows
        @log = means.log
        @clock = means.clock
        @lease = lease
        @lock = Mutex.new
        @running = {}
        @needed = {}
        @waking = Waking.new
        @cut_off = CutOff.new(away:, others: places.method(:reached_by)) { let_go_of_all } if places
      end

      # Those that go on by themselves are woken one after another, those that are on air first; whoever is needed meanwhile does not wait
      # for that.
      def start
        @beginning = Thread.new { @places ? share_out : begin_all }.tap { |thread| thread.name = "waking" }
        @sharing = NowAndThen.new("sharing", SHARE_EVERY_S) { share_out }.start if @places
        @cut_off&.start
        @renewing = NowAndThen.new("leases", RENEW_EVERY_S) { renew }.start
        @resting = NowAndThen.new("rest", REST_EVERY_S) { let_rest }.start
        self
      end

      # @return [Boolean] whether all that go on by themselves run again after a start
      def begun? = !@beginning&.alive?

      # Until they do.
      def await = @beginning.join && self

      # @return [Show] running from now on
      # @raise [Bavard::Error] where it is no more
      # @raise [Elsewhere] where it runs in another process
      def run(id)
        @lock.synchronize do
          @needed[id] = @clock.call
          @running[id]
        end || come(id)
      rescue Sequel::DatabaseError
        @places&.last_known(id)
        raise
      end

      # @return [String, nil] where to ask instead, while others reach the database and we do not: none of our shows is ours any more
      def instead = @cut_off&.instead

      # Before something is changed for a show: where several share them, whoever asked goes to where it runs.
      #
      # @raise [Elsewhere]
      def here(id) = @places && run(id)

      # @return [Show, nil] where it runs now
      def [](id)
        @lock.synchronize { @running[id] }
      end

      # @return [String, nil] where it runs, where that is in another process
      def elsewhere(id) = @places && self[id].nil? && @lease.taken.to_a.include?(id) ? @places.place_of(id) : nil

      # @return [Hash{String => Integer}, nil] how many shows each of the processes that share them runs; nil where one runs all
      def spread = @places&.spread(@lease.taken.to_a)

      # @return [String, nil] which of them we are
      def here_at = @places&.here

      # @return [Array<Show>] all that run
      def running = @lock.synchronize { @running.values }

      # @return [Array(Show, StageDesk), nil] what a token's link shows
      def by_token(token)
        return unless token?(token)

        of_those { |show| show.desks.each_value.find { |desk| desk.stage.token == token } } ||
          of_one(@means.stores.stages.show_of(token)) { |show| show.desks.each_value.find { |desk| desk.stage.token == token } }
      end

      # @return [Array(Show, StageDesk), nil] whose stage that is
      def by_stage(id)
        of_those { |show| show.desks[id] } || of_one(@means.stores.stages.find(id)&.show_id) { |show| show.desks[id] }
      end

      # @return [Array(Show, FeedLane), nil] whose address of their own this is
      def by_inbox(token)
        return unless token?(token)

        lane = ->(show) { show.lanes.each_value.find { |one| one.feed.kind == "inbox" && one.feed.address["token"] == token } }
        of_those(&lane) || of_one(@means.stores.feeds.show_of_inbox(token), &lane)
      end

      # Ends a show, as when its account was closed or removed: whatever shows something of it is cut off.
      def finish(id)
        show = @lock.synchronize { @running.delete(id) }
        show&.topics&.each { |topic| @means.hub.close(topic) }
        @means.hub.let_go_where { |env| env["bavard.show"] == id } if show
        show&.stop
        @lease.release(id)
      end

      # Puts those to sleep that nobody has needed for a while, and that nothing is going on in.
      def let_rest
        idle_since = @clock.call - REST_AFTER_MS
        running.each { |show| put_to_sleep(show) if last_needed(show.id) < idle_since && show.at_rest? }
      end

      def stop
        [@cut_off, @renewing, @resting, @sharing].each { |one| one&.stop }
        @places&.leave
        @stopping = true
        @beginning&.join
        # Where many are flooded, the last of them take in nothing more: whoever stops us does not wait for good.
        until_s = Process.clock_gettime(Process::CLOCK_MONOTONIC) + Show::ALL_REST_WITHIN_S
        running.each { |show| show.stop(until_s:) }
      end

      private

      # Whatever somebody writes in the place of one, the database is not asked for what cannot be any.
      def token?(given) = given.valid_encoding? && given.match?(TOKEN)

      def begin_all
        @store.ids_by_need.each do |id|
          @waking.give_way
          break if @stopping

          wake(id, patient: true)
        rescue StandardError => error
          @log.error("show #{id} does not begin", error)
        end
      rescue StandardError => error
        @log.error("shows begin only as they are needed", error)
      end

      def share_out
        @places.look_at_line
        take_again
        taken = @lease.taken or return
        wake_these, let_go = @places.share_out(@store.ids_by_need, taken, running.map(&:id), running.reject { |show| show.cues.ended? }.map(&:id))
        let_go.each { |id| move(id) }
        wake_these.each { |id| begin_patiently(id) unless @stopping }
      rescue Sequel::DatabaseError, Sequel::PoolTimeout
        nil # while the database is away, all go on where they are
      end

      def begin_patiently(id)
        wake(id, patient: true)
      rescue Elsewhere
        nil # another was quicker
      rescue StandardError => error
        @log.error("show #{id} does not begin", error)
      end

      # Whoever takes it reads all of it, here as elsewhere.
      def written(id) = @means.journal.all_of?(id, WRITTEN_WITHIN_S) || @log.warn("show #{id} goes on without the end of its log")

      # It goes on in another process: pages come back, and are sent there.
      def move(id)
        @waking.one_by_one(id, patient: true) do
          show = @lock.synchronize { @running.delete(id) } or next
          show.stop
          written(id)
          @lease.release(id)
          let_go_of(show)
          @log.info("show #{id} goes on elsewhere")
        end
      end

      def come(id)
        @places&.lately(id)
        wake(id)
      end

      # @param instead_of [Show, nil] one that has gone to sleep
      # @param patient [Boolean] whether nobody waits for it
      def wake(id, instead_of: nil, patient: false)
        raise Busy, ENDING if @stopping

        @waking.one_by_one(id, patient:) do
          self[id].then { |running| running unless running.equal?(instead_of) } || begin_one(id)
        end
      end

      def begin_one(id)
        raise Gone.new(CLOSED, field: "show", value: id) unless @store.open?(id)

        lease(id)
        written(id)
        before = @places&.took(id)
        record = @store.find(id) or raise Gone.new(CLOSED, field: "show", value: id)
        show = Show.new(record, @means, again: -> { wake(id, instead_of: show) }).start
        @lock.synchronize do
          @needed[id] = @clock.call
          @running[id] = show
        end
        @places&.came(show, before)
        show
      rescue StandardError
        @lease.release(id)
        raise
      end

      def put_to_sleep(show)
        @waking.one_by_one(show.id, patient: true) do
          next if last_needed(show.id) > @clock.call - REST_AFTER_MS || !show.go_to_sleep

          @lock.synchronize { [@running, @needed].each { |known| known.delete(show.id) } }
          # Who came in that moment comes again, and so does whoever sends to an address of its: to the next one's.
          let_go_of(show, all: !@places.nil?)
          written(show.id) if @places
          @lease.release(show.id)
          @log.debug("show #{show.id} sleeps")
        end
      end

      def last_needed(id) = @lock.synchronize { @needed.fetch(id, 0) }

      # @yieldreturn [Object, nil] what is looked for in it
      # @return [Array(Show, Object), nil]
      def of_those
        running.each { |show| yield(show)&.then { |found| return [needed(show), found] } }
        nil
      end

      def of_one(id)
        show = id && run(id) or return
        yield(show)&.then { |found| [show, found] }
      rescue Gone
        nil
      end

      def needed(show) = @lock.synchronize { @needed[show.id] = @clock.call } && show

      def lease(id)
        @places&.leaving(id)
        TRIES.times do
          return true if @lease.take(id)

          @places&.look(id)
          sleep(TRY_EVERY_S)
        end
        raise Busy, "Show #{id} is running in another process of Bavard."
      end

      def renew
        take_again
        end_deleted
      end

      # Locks that went with a line to the database.
      def take_again
        @lease.renew.each { |id| @log.error("show #{id} was taken over by another process") }.then { |ids| leave_to_others(ids) }
      end

      # Others are about to take them; what is still to be written is, once the database is there again.
      def let_go_of_all
        ids = @lock.synchronize { @running.keys }
        return if ids.empty?

        @log.error("others reach the database, and we do not: #{ids.size} shows go on elsewhere")
        @lease.forget(ids)
        leave_to_others(ids)
      end

      # Whoever follows them comes back, and is sent to where they run, before anything takes time.
      def leave_to_others(ids)
        shows = @lock.synchronize { ids.filter_map { |id| @running.delete(id) } }
        shows.each { |show| let_go_of(show) }.each { |show| end_one(show) }
      end

      # Whoever follows it comes again, and so does whoever sends to it.
      #
      # @param all [Boolean] whether those do too who speak in it
      def let_go_of(show, all: true)
        show.topics.each { |topic| @means.hub.let_go(topic) }
        @means.hub.let_go_where { |env| env["bavard.show"] == show.id && (all || env["bavard.inbox"]) }
      end

      # One that cannot be ended does not keep others. What its feeds have brought and nobody has read is told where it goes on.
      def end_one(show)
        show.stop(until_s: 0)
      rescue StandardError => error
        @log.error("show #{show.id} does not end", error)
      end

      # A show goes with the account that it belonged to, and ends when that is closed.
      def end_deleted
        known = running.map(&:id)
        (known - @store.open_ids).each do |id|
          @log.info("show #{id} was deleted or closed, and ends")
          finish(id)
        end
      rescue Sequel::DatabaseError, Sequel::PoolTimeout
        nil # while the database is away nobody deletes anything either
      end
    end
  end
end
