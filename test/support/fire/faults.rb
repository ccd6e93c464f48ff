# frozen_string_literal: true

module Fire
  # What can go wrong, each for a while; which, and for how long, the seed says.
  class Faults
    # Of a screen's own line; everything else touches all.
    OF_SCREEN = %i[line_stalls line_is_cut].freeze
    MISCHIEF = %w[garbage repeat slow limit].freeze
    FLOOD = 300

    # @param scene [FireTest] with app, line, database_line, standins, and database_away
    # @param record [Record]
    # @param random [Random]
    def initialize(scene, record, random)
      @scene = scene
      @record = record
      @random = random
      @left = []
    end

    KINDS = %i[killed killed_without_database line_stalls line_is_cut database_away database_hangs platform_cuts platform_misbehaves flood].freeze

    # One of them; each kind comes before any comes again.
    def one
      @left = KINDS.shuffle(random: @random) if @left.empty?
      kind = @left.pop
      @record.fault(kind, OF_SCREEN.include?(kind) ? :behind : :all) { send(kind) }
    end

    private

    def lasts(range) = sleep(@random.rand(range))

    def killed
      @scene.app.kill
      @scene.app.start
    end

    # What was not written by then comes from its files, or from the platforms.
    def killed_without_database
      @scene.database_away do
        lasts(0.2..3.0)
        @scene.app.kill
      end
      @scene.app.start
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

    def database_away = @scene.database_away { lasts(0.2..4.0) }

    def database_hangs
      @scene.database_line.stall
      lasts(0.5..4.0)
      @scene.database_line.go_on
    end

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
  end
end
