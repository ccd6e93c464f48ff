# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Core
    module Moderation
      # What has become of a line: the one place that says so. Whoever shows a line, or keeps it, asks here; all copies of a line (as it
      # came, as it is shown) share it.
      #
      #   state = LineState.new        # arrived
      #   state.move(:hold)            # held
      #   state.move(:pull, by: "Teo") # pulled, and was held
      #   state.move(:put_back)        # held
      #
      # arrived:: it is being looked at; held:: it goes when its time is over; waits:: it goes when somebody lets it go; queued:: it goes
      # on when there is room; aired, draft, nowhere:: on the picture, on drafts alone, or let through where no piece takes it in; off:: a rule
      # keeps it off; left:: nobody let it go in time; washed:: there never was room for it; pulled:: somebody took it away; deleted:: its
      # platform did
      class LineState
        # How a line gets on the picture, by where it stands then.
        SHOW = {aired: :air, draft: :draft, nowhere: :pass_by}.freeze
        TO_PICTURE = {air: :aired, draft: :draft, pass_by: :nowhere}.freeze
        TO_HOLD = {hold: :held, stop: :waits, leave: :left}.freeze
        AWAY = {pull: :pulled, delete: :deleted}.freeze
        # From where, by which event, to where. What is not here cannot happen. BACK: to where it was.
        BACK = :back
        TABLE = {
          arrived: {queue: :queued, keep_off: :off, **TO_HOLD, **TO_PICTURE, delete: :deleted},
          held: {stop: :waits, let_go: :held, keep_off: :off, leave: :left, **TO_PICTURE, **AWAY},
          waits: {let_go: :held, leave: :left, **AWAY},
          queued: {wash: :washed, **TO_HOLD, **TO_PICTURE, **AWAY},
          aired: {keep_off: :off, **AWAY},
          draft: {keep_off: :off, **AWAY},
          nowhere: {keep_off: :off, **AWAY},
          off: {**TO_PICTURE, **AWAY},
          left: {**TO_PICTURE, **AWAY},
          washed: {**TO_PICTURE, **AWAY},
          pulled: {put_back: BACK, keep_off: :off, delete: :deleted, **TO_PICTURE},
          deleted: {put_back: BACK, **TO_PICTURE}
        }.freeze
        NAMES = TABLE.keys.freeze
        EVENTS = TABLE.each_value.flat_map(&:keys).uniq.freeze
        # It can be seen, or could where a piece took it in.
        SEEN = %i[aired draft nowhere].freeze
        # It has not been anywhere yet, and will go by itself or when somebody lets it.
        COMING = %i[held waits queued].freeze
        HELD = %i[held waits].freeze
        TAKEN = AWAY.values.freeze
        # What the log calls them.
        WAITED = %w[held stopped].freeze
        WENT = {"draft" => :draft, "thinned" => :washed}.freeze
        # What people with a role may do about a line, by where it is.
        OFFERS = NAMES.to_h { |name| [name, [].freeze] }.merge(
          (SEEN + [:queued]).to_h { |name| [name, %w[pull].freeze] }, {held: %w[pull let_go].freeze, waits: %w[pull let_go].freeze},
          (%i[off left washed] + TAKEN).to_h { |name| [name, %w[let_go].freeze] }
        ).freeze

        # name:: one of NAMES; was:: of one that was taken away, where it was before; by:: who moved it last, or nil: itself, a rule or a platform
        attr_reader :name, :was, :by

        # @param was [Symbol, nil] of one that is taken away
        def initialize(name = :arrived, was: nil)
          @name = name
          @was = was
        end

        # As the log has it.
        #
        # @param verdict [Gate::Verdict]
        # @param last [Array(String, Object), nil] the step of its trace that says where it went, and what that says
        # @return [LineState]
        def self.kept(verdict, held:, aired:, pulled:, deleted:, last: nil)
          stood = stood(verdict, held, aired, last)
          taken = (:deleted if deleted) || (:pulled if pulled)
          return new(taken, was: stood) if taken

          new(HELD.include?(stood) && !held ? :left : stood)
        end

        def self.stood(verdict, held, aired, last)
          return :aired if aired
          return verdict.hold? || last&.first == "stopped" ? :waits : :held if held || WAITED.include?(last&.first)

          went = WENT[last&.last.to_s] if last&.first == "shown"
          went || (verdict.drop? && :off) || (verdict.hold? || last&.first == "left" ? :left : :nowhere)
        end
        private_class_method :stood

        # @param event [Symbol] one of EVENTS
        def can?(event) = TABLE.fetch(name).key?(event)

        # @return [Symbol] where it was until now
        # @raise [Bavard::Error] where the table has no such way
        def move(event, by: nil)
          to = TABLE.fetch(name)[event] or raise Error, "A line that is #{name} cannot #{event.to_s.tr("_", " ")}."
          before = @name
          @was = before if TAKEN.include?(to) && !TAKEN.include?(before)
          @name = to == BACK ? @was : to
          @was = nil unless TAKEN.include?(@name)
          @by = by
          before
        end

        def seen? = SEEN.include?(name)
        def coming? = COMING.include?(name)
        def held? = HELD.include?(name)
        def taken? = TAKEN.include?(name)
        # @return [Boolean] whether it stands for its rule or its hold alone: nobody took it away
        def standing? = seen? || coming?

        # @param deed [String] pull or let_go
        def offers?(deed) = OFFERS.fetch(name).include?(deed)
      end
    end
  end
end
