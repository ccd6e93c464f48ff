# frozen_string_literal: true

require "json"
require "sequel"
require_relative "../../lasting"
require_relative "../../store/lines"
require_relative "../../store/log_writing"
require_relative "../../store/refusal"
require_relative "deed_file"
require_relative "journal_deeds"
require_relative "spill"

module Bavard
  module Live
    # Writes what happens to the log, from threads of its own, so that the database never holds up the screen. What people do
    # has a way of its own ({JournalDeeds}); what feeds bring has one for each show, written in batches, each show in turn. What
    # the database cannot take in time waits in files ({Spill}), and goes from there into the database. Only where there is no room
    # for that either something is let go: of what feeds bring, of those shows that bring the most, and it is counted.
    class Journal
      BATCH_EVERY_S = 0.02
      BATCH = 500
      # Waiting in memory, of all shows: beyond it something is let go. A show's go to its file long before.
      MOST_WAITING = 50_000
      SPILL_FROM = 5000
      SPILL_AFTER_S = 1.5
      # A show may have that many more than its share where they take lines away: those are let go last.
      DELETES_SHARE = 2
      RETRY_AFTER_S = 0.5
      # That long after the last entry was let go, it counts as over.
      SHEDDING_S = 60
      # The file for what people do, beside the shows' folders.
      DEEDS = "deeds.jsonl"
      # kind, body:: as Store::LogWriting takes them
      Waiting = Struct.new(:kind, :body)
      # What waits for one show's log: in memory, behind what lies in its files.
      Lane = Struct.new(:show_id, :waiting, :spill, :spilled) do
        def idle? = waiting.empty? && !spilled
      end

      # @return [String, nil] why nothing can be written just now
      attr_reader :trouble

      # @param writing [Store::LogWriting]
      # @param deeds [Store::DeedWriting, nil] nil: nothing comes by {#deed}
      # @param meters [Meters, nil] told of what is let go
      # @param room [Integer] entries that can wait in memory
      # @param folder [String, nil] where files of what waits lie; nil: there are none
      # @param patience_s [Numeric] so long the database may be away before what waits goes to files
      def initialize(writing, log:, deeds: nil, meters: nil, room: MOST_WAITING, folder: nil, patience_s: SPILL_AFTER_S)
        @room = room
        @patience_s = patience_s
        @folder = folder
        @writing = writing
        @log = log
        @meters = meters
        @lock = Mutex.new
        @filled = ConditionVariable.new
        @lanes = {}
        @waiting = 0
        @shed_at_s = {}
        @lost = 0
        @deeds = JournalDeeds.new(writing: deeds, file: folder && DeedFile.new(File.join(folder, DEEDS)), log:)
      end

      def start
        leftover
        @deeds.start
        @thread = Lasting.new("journal", told: ->(error) { @log.error("journal: beginning anew", error) }) { run }.start
        self
      end

      # @param entry [Store::Lines::Entry]
      def line(show_id, entry) = put_of(show_id, :add, entry, 1)

      # What became of a line that was held.
      #
      # @param outcome [Store::Lines::Outcome]
      def settle(show_id, outcome) = put_of(show_id, :settle, outcome, 1)

      # What comes behind the lines that came before it.
      #
      # @param kind [Symbol] of Store::LogWriting
      def behind(show_id, kind, *body) = put_of(show_id, kind, body, DELETES_SHARE)

      # @param steps [Hash{Integer => Array}] what came to traces, by line
      def steps(show_id, steps) = put_of(show_id, :steps, steps, 1)

      # What people do, and what a show sets: never let go. Where the database is away it waits in a file as well.
      #
      # @param store [Symbol] of Store::DeedWriting, as is the way
      # @return [Integer] its number
      def deed(store, way, *given, **named) = @deeds.put(Store::DeedWriting::Deed.new(store, way, given, named))

      # The same for what cannot lie in a file: secrets, and what only a running process can do.
      #
      # @return [Integer] its number
      def later(&block) = @deeds.put(&block)

      # @return [Integer] number of the last that {#deed} or {#later} took
      def last_deed = @deeds.last

      # @param number [Integer] of {#deed} or {#later}
      # @return [Boolean] whether it is kept, within so many seconds
      def kept?(number, within_s) = @deeds.await(number, within_s)

      # @param within_s [Numeric]
      # @return [Boolean] whether all of a show is written, within so long
      def all_of?(show_id, within_s)
        until_s = now_s + within_s
        deed = last_deed
        sleep BATCH_EVERY_S until (written = idle?(show_id) && kept?(deed, BATCH_EVERY_S)) || now_s > until_s
        written
      end

      # Writes what is waiting, or puts it into files where the database is away, and ends.
      def stop
        @deeds.stop
        @lock.synchronize do
          @stopping = true
          @filled.signal
        end
        @thread.join
      end

      # @return [Integer] what waits in memory
      def waiting = @lock.synchronize { @waiting } + @deeds.waiting

      # @param within_s [Numeric] seconds to wait at most
      # @return [Boolean] whether all that lay in files is written
      def caught_up?(within_s)
        deadline_s = now_s + within_s
        sleep BATCH_EVERY_S while left? && now_s < deadline_s
        !left?
      end

      # @return [Array<Integer>] shows of which something waits in files
      def spilling = @lock.synchronize { @lanes.each_value.select(&:spilled).map(&:show_id) }

      # @return [Integer] entries that were given up for want of room, or that the database refused
      def lost = @lost + @deeds.refused

      # @return [Array<Integer>] shows of which something was let go in the last minute
      def shedding
        since = now_s - SHEDDING_S
        @lock.synchronize { @shed_at_s.select { |_, at_s| at_s > since }.keys }
      end

      private

      def left? = spilling.any? || @deeds.behind?
      def idle?(show_id) = @lock.synchronize { @lanes[show_id].nil? || @lanes[show_id].idle? }

      # What an earlier process could not write any more.
      def leftover
        Dir.children(@folder).grep(/\A\d+\z/).each { |name| lane(name.to_i).spilled = true } if @folder && File.directory?(@folder)
      end

      def lane(show_id) = @lanes[show_id] ||= Lane.new(show_id, [], @folder && Spill.new(File.join(@folder, show_id.to_s)), false)

      # Once there is no room, each show has an equal share of it: whoever brings the most loses first.
      def put_of(show_id, kind, body, times)
        kept = @lock.synchronize do
          lane = lane(show_id)
          next shed(show_id) unless @waiting < @room || lane.waiting.size < share(times)

          lane.waiting << Waiting.new(kind, body)
          @waiting += 1
          @filled.signal
        end
        @meters&.shed unless kept
      end

      def share(times) = times * @room / [@lanes.each_value.count { |lane| lane.waiting.any? }, 1].max

      # @return [false]
      def shed(show_id)
        @lost += 1
        warn_of(show_id)
        @shed_at_s[show_id] = now_s
        false
      end

      def warn_of(show_id)
        return if @shed_at_s.fetch(show_id, -SHEDDING_S) > now_s - SHEDDING_S

        @log.warn("journal: more comes in for show #{show_id} than is written; part of its log is lost")
      end

      def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)

      def run
        loop do
          busy = busy_lanes
          busy.each { |lane| write_from(lane) }
          busy.each { |lane| spill(lane) if much?(lane) } if @folder
          break if @stopping && (@trouble || busy_lanes.empty?)

          sleep(@trouble ? RETRY_AFTER_S : BATCH_EVERY_S) unless @stopping
        end
        busy_lanes.each { |lane| spill(lane) } if @folder
      end

      def busy_lanes
        @lock.synchronize do
          @filled.wait(@lock) if @lanes.each_value.all?(&:idle?) && !@stopping
          @lanes.delete_if { |_, lane| lane.idle? && !@stopping && @lanes.size > 100 }
          @lanes.values.reject(&:idle?)
        end
      end

      # What was written is taken off only then: a batch that failed is tried again.
      def write_from(lane)
        batch = first(lane)
        in_their_order(batch).each { |run| write_run(lane, run) } unless written_as_a_whole?(lane, batch)
        @trouble = @trouble_since_s = nil
      rescue Sequel::DatabaseError, Sequel::PoolTimeout => error
        @log.warn("journal: the database does not take the log", error) unless @trouble
        @trouble_since_s ||= now_s
        @trouble = error.message.lines.first.to_s.strip
      end

      # @return [Boolean] false where something of it was refused, and all of it is to be tried one by one
      def written_as_a_whole?(lane, batch)
        @writing.as_a_whole { together(batch).each { |run| @writing.write(lane.show_id, run.first.kind, run.map(&:body)) } }
        taken_off(lane, batch.size)
        true
      rescue StandardError => error
        raise unless Store::Refusal.of?(error)

        false
      end

      # @return [Array<Array<Waiting>>] runs of the same kind: a held line and what became of it come by turns, and would each be one
      def together(batch)
        by_kind = batch.group_by { |one| Store::LogWriting::TOGETHER.include?(one.kind) ? one.kind : nil }
        [*by_kind.values_at(*Store::LogWriting::TOGETHER).compact, *by_kind.fetch(nil, []).zip]
      end

      def in_their_order(batch)
        batch.chunk_while { |before, after| before.kind == after.kind && Store::LogWriting::TOGETHER.include?(before.kind) }
      end

      # @return [Array<Waiting>] the oldest: what lies in files is older than what does not
      def first(lane)
        if lane.spilled
          from_files = lane.spill.first(BATCH).map { |thing| Waiting.new(*thing) }
          return from_files if from_files.any?

          lane.spilled = false
        end
        @lock.synchronize { lane.waiting.first(BATCH) }
      end

      def write_run(lane, run)
        @writing.write(lane.show_id, run.first.kind, run.map(&:body))
        taken_off(lane, run.size)
      rescue StandardError => error
        raise unless Store::Refusal.of?(error)
        return run.each { |entry| write_run(lane, [entry]) } if run.size > 1

        refuse(lane, error)
      end

      # An entry the database refuses for what it says would stand in the way for ever.
      def refuse(lane, error)
        @lost += 1
        @log.error("journal: an entry was refused and left out", error)
        taken_off(lane, 1)
      end

      def taken_off(lane, count)
        return lane.spill.shift(count) if lane.spilled

        @lock.synchronize do
          lane.waiting.shift(count)
          @waiting -= count
        end
      end

      def much?(lane) = lane.waiting.size > SPILL_FROM || (@trouble_since_s && now_s - @trouble_since_s > @patience_s)

      # What waits in memory goes behind what lies in the files.
      def spill(lane)
        count = lane.waiting.size
        return if count.zero?

        @log.warn("journal: what comes in for show #{lane.show_id} waits in files") unless lane.spilled
        lane.spill.append(lane.waiting.first(count).filter_map { |one| written(lane, one) })
        lane.spilled = true
        @lock.synchronize do
          lane.waiting.shift(count)
          @waiting -= count
        end
      rescue SystemCallError, IOError => error
        @log.error("journal: there is no room for what waits", error)
      end

      # @return [String, nil] as its file has it
      def written(lane, one)
        JSON.generate([one.kind, @writing.plain(lane.show_id, one.kind, one.body)])
      rescue JSON::GeneratorError => error
        @lost += 1
        @log.error("journal: an entry cannot be written and is left out", error)
        nil
      end
    end
  end
end
