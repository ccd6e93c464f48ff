# frozen_string_literal: true

require_relative "../../../lib/bavard/start/postgres"

module Fire
  # What can go wrong, each for a while; which, and for how long, the seed says.
  class Faults
    # Of the screens that are behind a line of their own; everything else touches all.
    OF_LINE = %i[line_stalls line_is_cut].freeze
    KINDS = %i[killed killed_without_database line_stalls line_is_cut database_stops database_is_killed database_hangs database_is_slow
      disk_is_full clock_is_set platform_cuts platform_misbehaves flood].freeze
    MISCHIEF = %w[garbage repeat slow limit].freeze
    FLOOD = 300
    # Seconds ahead of what it was.
    CLOCKS = [-3600, -30, 0, 3600].freeze
    # A disk that takes its time, as the application sees it: each answer of the database comes late.
    SLOW_S = (0.05..0.3)

    # @param scene [FireTest] with app, line, database_line, postgres, postmaster, database_answers?, disk, clock, standins, behind and relay
    # @param record [Record]
    # @param random [Random]
    def initialize(scene, record, random)
      @scene = scene
      @record = record
      @random = random
      @left = []
      @kinds = scene.disk.own? ? KINDS : KINDS - [:disk_is_full]
      @kinds += [:relay_is_killed] if scene.relay
    end

    # One of them; each kind comes before any comes again.
    def one
      @left = @kinds.shuffle(random: @random) if @left.empty?
      kind = @left.pop
      @record.fault(kind, OF_LINE.include?(kind) ? @scene.behind : :all) { send(kind) }
    end

    private

    def lasts(range) = sleep(@random.rand(range))

    def killed
      @scene.app.kill
      @scene.app.start
    end

    # What was not written by then comes from its files, or from the platforms.
    def killed_without_database
      @scene.postgres.stop
      lasts(0.2..3.0)
      @scene.app.kill
      database_comes_back if @random.rand < 0.5
      @scene.app.begin_to_start
      database_comes_back
      @scene.app.until_it_answers
    end

    def line_stalls
      @scene.line.stall
      lasts(0.5..6.0)
      @scene.line.go_on
    end

    def line_is_cut
      @scene.line.cut
      lasts(0.2..3.0)
      @scene.line.mend
    end

    def database_stops
      @scene.postgres.stop
      lasts(0.2..4.0)
      database_comes_back
    end

    # As by a machine that takes the memory back: it has to find out for itself what it had promised.
    def database_is_killed
      Process.kill("KILL", @scene.postmaster)
      lasts(0.2..2.0)
      database_comes_back
    end

    def database_hangs
      @scene.database_line.stall
      lasts(0.5..4.0)
      @scene.database_line.go_on
    end

    def database_is_slow
      @random.rand(10..25).times do
        @scene.database_line.stall
        lasts(SLOW_S)
        @scene.database_line.go_on
      end
    end

    # Of the database and of the application's own files alike. A database that cannot write may end; it is begun again.
    def disk_is_full
      @scene.disk.fill
      lasts(0.5..4.0)
      @scene.disk.make_room
      database_comes_back
    end

    def relay_is_killed
      @scene.relay.stop("KILL")
      lasts(0.2..2.0)
      @scene.relay.start(@scene.door)
    end

    def clock_is_set = @scene.clock.set(CLOCKS.sample(random: @random))

    def platform_cuts = standin.post("/cut")

    def platform_misbehaves
      one = standin
      what = MISCHIEF.sample(random: @random)
      one.misbehave(what)
      lasts(0.5..2.0)
      one.misbehave(what, on: false)
    end

    def flood
      one = standin
      FLOOD.times { one.say(@record.words(one.name)) }
    end

    def standin = @scene.standins.sample(random: @random)

    # As the start does it, which never gives up either: what was killed may seem to be there for a moment yet.
    def database_comes_back
      until @scene.database_answers?
        begin
          @scene.postgres.revive
        rescue Bavard::Error
          next
        end
      end
    end
  end
end
