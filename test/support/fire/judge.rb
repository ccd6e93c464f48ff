# frozen_string_literal: true

module Fire
  # Compares what was said and taken away with what the log holds and with what every screen painted, frame by frame. Knows nothing
  # of how any of it came about.
  class Judge
    # So long after a fault screens may not know yet what happened, on a machine that others use too. What is not listed is in nobody's
    # way: neither a database, nor a disk, nor a clock is needed to take a line away.
    RECOVERS_MS = {killed: 6000, killed_without_database: 6000, line_stalls: 3000, line_is_cut: 3000, platform_cuts: 4000, platform_misbehaves: 4000,
                   flood: 3000}.freeze
    # From a delete at its platform, or a pull that was answered, to the frame without it; mostly it is a tenth of a second, but the machine
    # may be anybody's.
    WITHIN_MS = 5000
    # Longer than that a silence is worth a word.
    LONG_MS = 4000
    # A browser and whoever writes have one clock, read at different times.
    CLOCKS_MS = 1000
    # So long a line may be on its way when a fault begins.
    ON_ITS_WAY_MS = 500
    # kind:: of fault; times:: how often; longest_ms:: that a screen painted nothing new while it lasted or after it
    Silence = Struct.new(:kind, :times, :longest_ms)

    # Of a line that was taken away. screen:: where it stood; known_ms:: when that must have known; stood:: from when to when
    Late = Struct.new(:text, :screen, :known_ms, :stood)

    # lines:: how many; half_ms, most_of_them_ms, longest_ms:: from being said to the first frame with them, most: 99 in 100
    Lateness = Struct.new(:lines, :half_ms, :most_of_them_ms, :longest_ms)

    # @param record [Record]
    # @param logged [Hash{String => Integer}] how often each line is in the log, by its text
    # @param screens [Hash{Symbol => Hash}] of each, what its recorder has: "stood" and "twice", and "aside" where it is not the picture
    # @param hold_ms [Integer] of the hold that is kept
    def initialize(record, logged, screens, hold_ms: nil)
      @record = record
      @logged = logged
      @screens = screens
      @hold_ms = hold_ms
    end

    def lost = @record.said.keys.reject { |text| @logged.key?(text) }

    def doubled
      @logged.select { |_, count| count > 1 }.map { |text, _| "#{text} in the log" } +
        @screens.flat_map { |name, screen| screen["twice"].uniq(&:first).map { |text, at_ms, ids| "#{text} on #{name} at #{at_ms.round}, as #{ids.join(" and ")}" } }
    end

    # @return [Array<String>] that stood before they were said: a screen's clock is another one, and nothing that is said here of time is true
    def early
      @screens.flat_map do |name, screen|
        screen["stood"].select { |text, times| times.first.first < @record.said.fetch(text, 0) - CLOCKS_MS }.map { |text, _| "#{text} on #{name}" }
      end
    end

    # @return [Array<String>] painted anew although a screen must have known better
    def painted_after = painted_late.map { |late| told(late) }

    # @return [Array<String>] that stood on although a screen must have known better
    def stale = stood_late.map { |late| told(late) }

    # @return [Hash{String => Array<String>}] of lines that were seen when they ought not to be: when they were said and taken away, and
    #   when they stood where
    def whereabouts
      (painted_late + stood_late).map(&:text).uniq.to_h do |text|
        stood = @screens.map { |name, screen| "on #{name}: #{Array(screen["stood"][text]).map { |times| times.map(&:round).join(" to ") }.join(", ")}" }
        [text, ["said #{@record.said[text].round}, taken away #{@record.taken[text].round}", *stood]]
      end
    end

    # @return [Array<String>] that stood on a picture which chat was taken off
    def braked
      pictures.flat_map do |name, screen|
        @record.brakes.flat_map do |brake|
          known_ms = known(name, brake.from_ms)
          screen["stood"].filter_map do |text, times|
            late = times.find { |from_ms, to_ms| [from_ms, known_ms].max < [to_ms, brake.to_ms].min } or next
            "#{text} on #{name}, #{late.map(&:round).join(" to ")}: chat was off from #{brake.from_ms.round}, known at #{known_ms.round}, to #{brake.to_ms.round}"
          end
        end
      end
    end

    # @return [Array<Integer>] holds that somebody was told were kept, and that are not
    def undone
      newest_first = @record.edits.reject { |edit| edit.outcome == :refused }.reverse
      could_be = newest_first.take_while { |edit| edit.outcome == :unknown }
      last = newest_first[could_be.size] or return []
      [last, *could_be].map(&:ms).include?(@hold_ms) ? [] : [last.ms]
    end

    # @return [Lateness] of lines that nothing was in the way of
    def lateness
      late = @record.said.filter_map do |text, at_ms|
        @screens.values.first["stood"][text]&.then { |times| times.first.first - at_ms } if calm?(at_ms)
      end.sort
      Lateness.new(late.size, *[0.5, 0.99, 1].map { |share| late[((late.size - 1) * share).round]&.round })
    end

    # @return [Array<Silence>]
    def silences
      @record.faults.reject { |fault| braked?(fault) }.group_by(&:kind).map { |kind, faults| Silence.new(kind, faults.size, faults.map { |fault| silence(fault) }.max.round) }
    end

    # What happened, in its order, and where no picture painted anything new for long: for whoever wants to know why.
    #
    # @return [Array<String>]
    def story
      gaps = pictures.flat_map { |name, screen| gaps(screen).map { |from_ms, to_ms| [from_ms, to_ms, "nothing new on #{name}"] } }
      told = @record.faults.map { |fault| [fault.from_ms, fault.to_ms, fault.kind.to_s.tr("_", " ")] } +
        @record.brakes.map { |brake| [brake.from_ms, brake.to_ms, "chat off"] } + gaps.select { |from_ms, to_ms, _| to_ms - from_ms > LONG_MS }
      told.sort_by(&:first).map { |from_ms, to_ms, what| format("%.1f to %.1f %s", from_ms / 1000, to_ms / 1000, what) }
    end

    private

    def gaps(screen) = screen["stood"].each_value.map { |times| times.first.first }.sort.each_cons(2)

    def pictures = @screens.reject { |_, screen| screen["aside"] }

    # A picture without chat is silent, whatever goes wrong.
    def braked?(fault) = @record.brakes.any? { |brake| fault.to_ms > brake.from_ms - WITHIN_MS && fault.from_ms < brake.to_ms + WITHIN_MS }

    def calm?(at_ms)
      [*@record.faults.map { |fault| [fault.from_ms, fault.to_ms + RECOVERS_MS.fetch(fault.kind, 0)] }, *@record.brakes.map(&:to_a)]
        .none? { |from_ms, to_ms| at_ms.between?(from_ms - ON_ITS_WAY_MS, to_ms) }
    end

    def painted_late = of_taken { |known_ms, from_ms, _| from_ms > known_ms }
    def stood_late = of_taken { |known_ms, _, to_ms| to_ms > known_ms }

    def told(late)
      "#{late.text} on #{late.screen}: taken away at #{@record.taken[late.text].round}, known at #{late.known_ms.round}, stood #{late.stood.map(&:round).join(" to ")}"
    end

    def of_taken
      @record.taken.flat_map do |text, at_ms|
        @screens.filter_map do |name, screen|
          known_ms = known(name, at_ms)
          late = Array(screen["stood"][text]).find { |from_ms, to_ms| yield(known_ms, from_ms, to_ms) }
          Late.new(text, name, known_ms, late) if late
        end
      end
    end

    # @return [Float] when a screen must have known what happened at that time: no fault was in the way long enough
    def known(screen, at_ms)
      touching(screen).reduce(at_ms) do |known_ms, fault|
        over_ms = fault.to_ms + RECOVERS_MS.fetch(fault.kind)
        known_ms.between?(fault.from_ms - WITHIN_MS, over_ms) ? over_ms : known_ms
      end + WITHIN_MS
    end

    # In their order.
    def touching(screen)
      (@touching ||= {})[screen] ||= @record.faults.select { |fault| touches?(fault, screen) && RECOVERS_MS.key?(fault.kind) }.sort_by(&:from_ms)
    end

    def touches?(fault, screen) = fault.whom == :all || fault.whom.include?(screen)

    def silence(fault)
      pictures.filter_map { |name, screen| longest_gap(screen, fault) if touches?(fault, name) }.max || 0
    end

    def longest_gap(screen, fault)
      gaps(screen).select { |before_ms, next_ms| next_ms > fault.from_ms && before_ms < fault.to_ms }.map { |before_ms, next_ms| next_ms - before_ms }.max || 0
    end
  end
end
