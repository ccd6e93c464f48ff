# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # The time between a line's arrival and its going on the picture, in which somebody may pull it.
      #
      #   hold = Hold.new(Hold::Settings.new(4000, {"moderator" => 0}, nil))
      #   hold.add(line, roles: ["viewer"], now_ms:)
      #   hold.pull(line.id)
      #   hold.advance(now_ms)   # => Change: what goes on the picture now, in order, and what left by itself
      #
      # It counts the time that passes between calls rather than looking at the clock's hands: a clock that is set back, or
      # jumps ahead while the machine sleeps, neither keeps lines for ever nor lets them all go at once.
      class Hold
        # ms:: for everybody; by_role:: ms by role, of which the shortest counts; leaves_after_ms:: when a line that waits for a
        # person leaves by itself, or nil; per_minute:: at most so many go, or nil
        Settings = Struct.new(:ms, :by_role, :leaves_after_ms, :per_minute) do
          # @return [Integer] how long lines of such a person are held
          def for(roles) = roles.filter_map { |role| by_role[role] }.min || ms

          # @return [Boolean] whether nobody is held by them
          def none? = ms.zero? && per_minute.nil? && by_role.each_value.all?(&:zero?)
        end
        # See above.
        class Settings
          LONGEST_MS = 60_000
          NONE = new(0, {}.freeze, nil, nil).freeze
        end
        # due:: on the hold's own clock, when its time is over; nil: never by itself; not_before:: as long as it stays all the same
        Entry = Struct.new(:line, :waits, :due, :added_at, :not_before) do
          # @return [Integer, nil] when it goes (or, of one that waits for a person, leaves)
          def goes = due && [due, not_before].max
        end
        Change = Struct.new(:released, :left)
        # Let go by a person: before everything else.
        AT_ONCE = -1
        NOTHING = Change.new([].freeze, [].freeze).freeze
        # Longer than that nothing is heard only when the clock was moved or the machine slept.
        LONGEST_STEP_MS = 5000
        MINUTE_MS = 60_000
        # Where few may go a minute, those that would go too late leave.
        LATE_MS = 60_000
        MOST = 5000

        attr_reader :settings

        def initialize(settings = Settings::NONE)
          @settings = settings
          @entries = {}
          @gone = {}
          @clock_ms = 0
          @last_ms = nil
          @free_at = 0
        end

        # Other settings count for what is held already too: it goes as if they had been there when it came.
        def settings=(settings)
          before = @settings
          @settings = settings
          @entries.each_value do |entry|
            if entry.waits
              entry.due = settings.leaves_after_ms && (entry.added_at + settings.leaves_after_ms)
            elsif entry.due && before.ms != settings.ms
              entry.due = [entry.due - before.ms + settings.ms, @clock_ms].max
            end
          end
        end

        # @param line [#id]
        # @param roles [Array<String>] of its person
        # @param waits [Boolean] whether it goes only when a person lets it go
        # @param held_for_ms [Integer] how long it was held already, before a restart; below 0 where it is to
        #   have longer
        # @param at_least_ms [Integer] how long it stays held however long it was
        def add(line, now_ms:, roles: [], waits: false, held_for_ms: 0, at_least_ms: 0)
          pass(now_ms)
          length = waits ? settings.leaves_after_ms : settings.for(roles)
          added_at = @clock_ms - held_for_ms
          @entries[line.id] = Entry.new(line, waits, length && (added_at + length), added_at, @clock_ms + at_least_ms)
        end

        # @return [Object, nil] the line that will not go now; it can be put back until another {MOST} lines were pulled
        def pull(id)
          entry = @entries.delete(id) or return
          @gone[id] = entry
          @gone.shift if @gone.size > MOST
          entry.line
        end

        # @return [Array] the lines for which the block is true
        def pull_where
          @entries.values.filter_map { |entry| pull(entry.line.id) if yield entry.line }
        end

        # Takes a pull back: the line is held as before, with the time it had left.
        #
        # @return [Object, nil] the line
        def put_back(id)
          entry = @gone.delete(id) or return
          @entries[id] = entry
          entry.line
        end

        # Sends a line on with the next {#advance}, whatever it waits for.
        #
        # @return [Object, nil] the line
        def let_go(id)
          entry = @entries[id] or return
          entry.waits = false
          entry.due = entry.not_before = AT_ONCE
          entry.line
        end

        # Everything that is not let go waits for a person from now on.
        #
        # @return [Array<Object>] those lines
        def stop_all
          stopped = @entries.each_value.reject { |entry| entry.due == AT_ONCE }
          stopped.each do |entry|
            entry.waits = true
            entry.due = settings.leaves_after_ms && (entry.added_at + settings.leaves_after_ms)
          end
          stopped.map(&:line)
        end

        # @return [Change]
        def advance(now_ms)
          pass(now_ms)
          due = @entries.each_value.select { |entry| entry.goes&.<=(@clock_ms) }
          return NOTHING if due.empty?

          left, ready = due.partition(&:waits)
          ready = ready.sort_by { |entry| [entry.goes, entry.line.id] }
          released, late = paced(ready)
          (released + left + late).each { |entry| @entries.delete(entry.line.id) }
          Change.new(released.map(&:line), (left + late).map(&:line))
        end

        # @return [Integer, nil] when {#advance} has something to do, on the caller's clock
        def next_due_ms
          soonest = @entries.each_value.filter_map(&:goes).min or return
          soonest = [soonest, @free_at].max if settings.per_minute && soonest != AT_ONCE
          @last_ms + [soonest - @clock_ms, 0].max
        end

        # @return [Array<Array(Object, Boolean, Integer, Integer)>] line, whether it waits for a person, ms left (or nil), ms in all
        def report
          @entries.each_value.map do |entry|
            whole = entry.goes && [entry.goes - entry.added_at, 0].max
            [entry.line, entry.waits, whole && (entry.goes - @clock_ms).clamp(0, whole), whole]
          end
        end

        def size = @entries.size
        def held?(id) = @entries.key?(id)
        def each_line(&block) = @entries.each_value.map(&:line).each(&block)

        private

        def pass(now_ms)
          @clock_ms += (now_ms - @last_ms).clamp(0, LONGEST_STEP_MS) if @last_ms
          @last_ms = now_ms
        end

        # @return [Array(Array<Entry>, Array<Entry>)] what goes, and what would go too late
        def paced(ready)
          return [ready, []] unless settings.per_minute

          at_once, ready = ready.partition { |entry| entry.due == AT_ONCE }
          late, ready = ready.partition { |entry| @clock_ms - entry.goes > LATE_MS }
          return [at_once, late] if @free_at > @clock_ms || ready.empty?

          @free_at = @clock_ms + (MINUTE_MS / settings.per_minute)
          [at_once + ready.first(1), late]
        end
      end
    end
  end
end
