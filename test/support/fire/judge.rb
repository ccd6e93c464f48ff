# frozen_string_literal: true

module Fire
  # Compares what was said and taken away with what the log holds and with what every screen painted, frame by frame. Knows nothing
  # of how any of it came about.
  class Judge
    # So long after a fault screens may not know yet what happened, on a machine that others use too. What is not listed is in nobody's
    # way: neither a database nor another feed is needed to take a line away.
    RECOVERS_MS = {killed: 6000, killed_without_database: 6000, line_stalls: 3000, line_is_cut: 3000, platform_cuts: 4000, platform_misbehaves: 4000,
                   flood: 3000}.freeze
    # From a delete at its platform, or a pull that was answered, to the frame without it; mostly it is a tenth of a second, but the machine
    # may be anybody's.
    WITHIN_MS = 5000
    # kind:: of fault; times:: how often; longest_ms:: that a screen painted nothing new while it lasted or after it
    Silence = Struct.new(:kind, :times, :longest_ms)

    # @param record [Record]
    # @param logged [Hash{String => Integer}] how often each line is in the log, by its text
    # @param screens [Hash{Symbol => Hash}] of each, what its recorder has: "stood" and "twice"
    def initialize(record, logged, screens)
      @record = record
      @logged = logged
      @screens = screens
    end

    def lost = @record.said.keys.reject { |text| @logged.key?(text) }
    def doubled = @logged.select { |_, count| count > 1 }.keys + @screens.each_value.flat_map { |screen| screen["twice"] }.uniq

    # @return [Array<String>] painted anew although a screen must have known better
    def painted_after = of_taken { |known_ms, from_ms, _| from_ms > known_ms }

    # @return [Array<String>] that stood on although a screen must have known better
    def stale = of_taken { |known_ms, _, to_ms| to_ms > known_ms }

    # @return [Array<Silence>]
    def silences
      @record.faults.group_by(&:kind).map { |kind, faults| Silence.new(kind, faults.size, faults.map { |fault| silence(fault) }.max.round) }
    end

    private

    def of_taken
      @record.taken.flat_map do |text, at_ms|
        @screens.filter_map do |name, screen|
          known_ms = known(name, at_ms)
          late = Array(screen["stood"][text]).find { |from_ms, to_ms| yield(known_ms, from_ms, to_ms) }
          "#{text} on #{name}: taken away at #{at_ms.round}, known at #{known_ms.round}, stood #{late.map(&:round).join(" to ")}" if late
        end
      end
    end

    # @return [Float] when a screen must have known what happened at that time: no fault was in the way long enough
    def known(screen, at_ms)
      touching(screen).sort_by(&:from_ms).reduce(at_ms) do |known_ms, fault|
        over_ms = fault.to_ms + RECOVERS_MS.fetch(fault.kind)
        known_ms.between?(fault.from_ms - WITHIN_MS, over_ms) ? over_ms : known_ms
      end + WITHIN_MS
    end

    def touching(screen) = @record.faults.select { |fault| [:all, screen].include?(fault.whom) && RECOVERS_MS.key?(fault.kind) }

    def silence(fault)
      @screens.filter_map { |name, screen| longest_gap(screen, fault) if [:all, name].include?(fault.whom) }.max || 0
    end

    def longest_gap(screen, fault)
      news = screen["stood"].each_value.map { |times| times.first.first }.sort
      news.each_cons(2).select { |before_ms, next_ms| next_ms > fault.from_ms && before_ms < fault.to_ms }.map { |before_ms, next_ms| next_ms - before_ms }.max || 0
    end
  end
end
