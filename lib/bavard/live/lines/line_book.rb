# frozen_string_literal: true

require_relative "../../core/chat/hold"
require_relative "../../core/chat/throng"
require_relative "../../core/gate/sight"
require_relative "../../core/moderation/line_state"
require_relative "../../error"
require_relative "forgotten"

module Bavard
  module Live
    # All lines of a show that something can still be done about, and the only one that changes what has become of them. What shows lines,
    # keeps them or counts them is told, and asks the line's own state. Belongs to its show's thread.
    #
    # Whoever is told has four methods:
    #   came(kept, now_ms)                 a line is here, and its state says where it went at once
    #   moved(kept, event, from, now_ms)   it moved, by which event, from where
    #   edited(kept)                       its writer has changed what it says; where that is not to be seen, it moved before
    #   forgot(kept)                       nothing can be done about it here any more
    class LineBook
      # A line that is kept. verdict:: what the gate said; lane_id:: its feed's; shown:: as it is written on the picture, once it was there
      Kept = Struct.new(:line, :verdict, :lane_id, :shown) do
        def id = line.id
        def state = line.state
        def said_by?(feed_id, login) = lane_id == feed_id && (login.nil? || line.person.login == login)
      end

      # So many of the newest, whatever became of them. Besides them all that are on their way, or may still be seen somewhere.
      KEPT = 2000
      SWEPT_EVERY = 256
      # What is only read; all else has more to it than its words, and is never too much.
      READ = %i[said action reply].freeze
      # Steps of a trace that say where a line went.
      WENT = %w[held stopped shown left].freeze

      # @param picture [#written, #show, #remembers?] how a line is written there; puts it there and says where that was; whether it may still
      #   be seen
      # @param told [Array<#came, #moved, #forgot>]
      def initialize(picture, told: [])
        @picture = picture
        @told = told
        @hold = Core::Chat::Hold.new
        @throng = Core::Chat::Throng.new
        @newest = {}
        @older = {}
        @forgotten = Forgotten.new
        @retired = 0
      end

      # @param settings [Core::Chat::Hold::Settings]
      # @param stop [Boolean] whether everything that is held waits for somebody from now on
      def use(settings, now_ms, stop: false)
        @hold.settings = settings
        @hold.stop_all.each { |line| move(self[line.id], :stop, now_ms) if line.state.name == :held } if stop
      end

      # A line that was judged goes where its verdict sends it.
      #
      # @param past [Boolean] whether it was said so long ago that nobody could hold it
      # @return [Kept]
      def arrive(line, lane_id, verdict, now_ms, past: false)
        kept = keep(Kept.new(line, verdict, lane_id))
        line.state = Core::Moderation::LineState.new
        line.state.move(way_of(kept, now_ms, past))
        came(kept, now_ms)
        @throng.washed.each { |one| move(self[one.id], :wash, now_ms) }
        kept
      end

      # A line whose delete was quicker than it was.
      #
      # @return [Kept]
      def arrive_deleted(line, lane_id, verdict, now_ms)
        line.state = Core::Moderation::LineState.new.tap { |state| state.move(:delete) }
        came(keep(Kept.new(line, verdict, lane_id)), now_ms)
      end

      # A line of the log, as it was left there.
      #
      # @param entry [Store::Lines::Entry]
      # @return [Kept]
      def restore(entry)
        self[entry.line.id] || keep(LineBook.of_log(entry))
      end

      # @return [Kept] a line of the log, which no book keeps
      def self.of_log(entry)
        line = entry.line
        last = entry.trace.to_a.reverse_each.find { |name, *| WENT.include?(name) }&.values_at(0, 2) unless entry.aired
        line.state = Core::Moderation::LineState.kept(entry.verdict, held: entry.held, aired: entry.aired, pulled: entry.pulled,
          deleted: entry.deleted, last:)
        Kept.new(line, entry.verdict, line.feed_id)
      end

      # One that was held when the last was heard of us is held again.
      #
      # @param held_for_ms [Integer] how long it was held by then
      # @param at_least_ms [Integer] how long it stays held all the same
      def hold_again(kept, now_ms, held_for_ms:, at_least_ms:)
        @hold.add(kept.line, now_ms:, roles: kept.line.person.roles, waits: kept.state.name == :waits, held_for_ms:, at_least_ms:)
      end

      # @return [Kept, nil]
      def [](line_id) = @newest[line_id] || @older[line_id]

      # @return [Kept]
      # @raise [Bavard::Gone] where it is not at hand any more
      def find(line_id)
        self[line_id] || raise(Gone.new("That line left long ago, and nothing can be done about it here. It is in the log.", field: "line"))
      end

      # @return [Kept, nil] the newest that a platform calls so
      def said(lane_id, platform_id)
        to_a.reverse_each.find { |kept| kept.lane_id == lane_id && kept.line.platform_id == platform_id }
      end

      # @return [Array<Kept>] all of them, oldest first
      def to_a = @older.values + @newest.values

      # @return [Array<Kept>] so many of the newest, oldest first
      def last(count) = (@newest.size < count ? to_a : @newest.values).last(count)

      # @return [Integer] how many there are
      def size = @older.size + @newest.size

      # @return [Array<Kept>] those that nobody took away, of which the block is true
      def standing_where = to_a.select { |kept| kept.state.standing? && yield(kept) }

      # Somebody takes a line away, or keeps it from coming.
      #
      # @return [Boolean] false where it is away already
      def pull(kept, by, now_ms) = take_away(kept, :pull, now_ms, by:)

      # Its writer has changed a line. What the gate would not let through now is kept off, whatever was let through before; what is on its
      # way leaves.
      #
      # @param edited [Core::Edited]
      # @param emotes [#cut, nil]
      # @yieldparam line [Core::Chat::Line] as it reads from now on
      # @yieldreturn [Core::Gate::Verdict]
      # @return [Kept, nil] nil where it is not at hand, or somebody else's
      def edit(lane_id, platform_id, edited, emotes, now_ms)
        kept = said(lane_id, platform_id) or return
        return if edited.login && edited.login != kept.line.person.login

        kept.line.reword(edited, emotes)
        kept.verdict = yield kept.line
        kept.shown &&= rewritten(kept)
        take_away(kept, kept.state.coming? ? :leave : :keep_off, now_ms) if kept.state.standing? && !lets?(kept)
        @told.each { |one| one.edited(kept) }
        kept
      end

      # Its platform takes a line away.
      #
      # @return [Array<Integer>] it, where this book keeps it no more but knows of it
      def delete(lane_id, platform_id, now_ms)
        to_a.each { |kept| take_away(kept, :delete, now_ms) if kept.lane_id == lane_id && kept.line.platform_id == platform_id }
        @forgotten.delete(lane_id, platform_id)
      end

      # Its platform takes away all that somebody said.
      #
      # @param login [String, nil] nil: everybody
      # @return [Array<Integer>] lines of theirs as in {#delete}
      def delete_of(lane_id, login, now_ms)
        to_a.each { |kept| take_away(kept, :delete, now_ms) if kept.said_by?(lane_id, login) }
        @forgotten.delete_of(lane_id, login)
      end

      # Somebody is to be forgotten: what stands of theirs is taken away, and nothing of all they wrote is left here.
      #
      # @return [Array<Integer>] the lines
      def erase(lane_id, login, by, now_ms)
        to_a.select { |kept| kept.said_by?(lane_id, login) }.each { |kept| erase_one(kept, by, now_ms) }.map(&:id)
      end

      # @param entry [Store::Lines::Entry] of the log, which may not have yet what is known here
      # @return [Kept] which no book keeps
      def as_known(entry)
        LineBook.of_log(entry).tap do |kept|
          taken = @forgotten.taken_away(kept.id)
          kept.state.move(Core::Moderation::LineState::AWAY.key(taken)) if taken && !kept.state.taken?
        end
      end

      # Somebody shows a line: one that is on its way goes at once, and one that was taken away, kept off or left goes back to where it was, or
      # on the picture.
      #
      # @raise [Bavard::Conflict] where it is on the picture already
      def let_go(kept, by, now_ms)
        raise Conflict.new("That line is on the picture already, or no stage takes it in.", field: "line") unless kept.state.offers?("let_go")
        return go_at_once(kept, by, now_ms) if kept.state.coming?
        return show(kept, anew(kept, now_ms), now_ms, by:) unless back_at_hand?(kept)

        move(kept, :put_back, now_ms, by:)
        go_at_once(kept, by, now_ms) if kept.state.coming?
      end

      # Somebody's pull is taken back: the line is where it was. What was on its way and has missed its time has left.
      #
      # @return [Boolean] false where nobody pulled it, or its platform deleted it since
      def put_back(kept, by, now_ms)
        return false unless kept.state.name == :pulled

        # One that left by an edit was held before that, and is not any more.
        held = Core::Moderation::LineState::HELD.include?(kept.state.was) && @hold.put_back(kept.id)
        move(kept, :put_back, now_ms, by:)
        move(kept, kept.state.name == :queued ? :wash : :leave, now_ms) if kept.state.coming? && !held
        true
      end

      # Letting go is taken back.
      #
      # @param off [Boolean] whether a rule kept it off before
      def take_again(kept, by, now_ms, off:) = take_away(kept, off ? :keep_off : :pull, now_ms, by:)

      # What goes on the picture now, and what leaves by itself.
      #
      # @return [Boolean] whether anything moved
      def advance(now_ms)
        held = @hold.advance(now_ms)
        held.released.each { |line| self[line.id].then { |kept| show(kept, anew(kept, now_ms), now_ms) } }
        held.left.each { |line| move(self[line.id], :leave, now_ms) }
        free = @throng.advance(now_ms).each do |line|
          self[line.id].then do |kept|
            move(kept, on_hold(kept, now_ms) || put(kept, kept.shown), now_ms)
          end
        end
        [held.released, held.left, free].any?(&:any?)
      end

      # @return [Integer, nil] when {#advance} has something to do
      def due_ms = [@hold.next_due_ms, @throng.due_ms].compact.min

      # @return [Array<Hash>] what is held: id, whether it waits for a person, ms left and in all
      def held_report = @hold.report.map { |line, waits, left, whole| {i: line.id, waits:, left:, whole:} }

      # @return [Hash] how many are held, and how many of those wait for somebody
      def figures = {held: @hold.size, waits: @hold.report.count { |_, waits, *| waits }}

      # @return [Integer] of those that are held
      def held = @hold.size

      def held?(line_id) = @hold.held?(line_id)

      private

      # @return [Symbol] the event that takes a new line where it belongs
      def way_of(kept, now_ms, past)
        return :keep_off if kept.verdict.drop?
        return kept.verdict.hold? ? :leave : put(kept, written(kept)) if past
        return :queue unless room?(kept, now_ms)

        on_hold(kept, now_ms) || put(kept, written(kept))
      end

      # Where its feed brings too much it waits, or never comes.
      def room?(kept, now_ms) = !READ.include?(kept.line.kind) || @throng.admit(kept.lane_id, written(kept), now_ms)

      # @return [Symbol, nil] the event with which it begins to wait; nil where it does not
      def on_hold(kept, now_ms)
        return unless kept.verdict.hold? || @hold.settings.any?

        roles = kept.line.person.roles
        return unless kept.verdict.hold? || @hold.settings.for(roles).positive? || @hold.settings.per_minute

        @hold.add(kept.line, now_ms:, roles:, waits: kept.verdict.hold?)
        kept.verdict.hold? ? :stop : :hold
      end

      # @return [Core::Chat::Line] as it goes on the picture
      def written(kept) = kept.shown ||= @picture.written(kept)

      # @return [Core::Chat::Line] as one that is said now
      def anew(kept, now_ms) = @picture.written(kept).dup.tap { |line| line.shown_at_ms = now_ms }

      # @return [Core::Chat::Line] the same anew, with the time that it has
      def rewritten(kept)
        shown_at_ms = kept.shown.shown_at_ms
        @picture.written(kept).dup.tap { |line| line.shown_at_ms = shown_at_ms }
      end

      # @return [Boolean] whether it may go on where it is: what waits for somebody waits on
      def lets?(kept) = kept.verdict.pass? || (kept.verdict.hold? && kept.state.name == :waits)

      # @return [Symbol] the event that says where that was
      def put(kept, line)
        kept.shown = line
        Core::Moderation::LineState::SHOW.fetch(@picture.show(kept))
      end

      def show(kept, line, now_ms, by: nil) = move(kept, put(kept, line), now_ms, by:)

      def go_at_once(kept, by, now_ms)
        @hold.let_go(kept.id)
        move(kept, :let_go, now_ms, by:)
      end

      # @return [Boolean] whether one that was taken away is still where it was
      def back_at_hand?(kept)
        case kept.state.was
        when :held, :waits then !@hold.put_back(kept.id).nil?
        when *Core::Moderation::LineState::SEEN then @picture.remembers?(kept.id)
        else false
        end
      end

      def erase_one(kept, by, now_ms)
        take_away(kept, :pull, now_ms, by:)
        kept.line.erase
        kept.verdict = kept.verdict.without_words
        kept.shown = nil
        @newest.delete(kept.id) || @older.delete(kept.id)
        @told.each do |one|
          one.edited(kept)
          one.forgot(kept)
        end
      end

      # @return [Boolean] whether it could be taken there
      def take_away(kept, event, now_ms, by: nil)
        return false unless kept.state.can?(event)

        @hold.pull(kept.id)
        @throng.pull_where { |line| line.id == kept.id } if kept.state.name == :queued
        move(kept, event, now_ms, by:)
        true
      end

      def came(kept, now_ms)
        @told.each { |one| one.came(kept, now_ms) }
        kept
      end

      def move(kept, event, now_ms, by: nil)
        from = kept.state.move(event, by:)
        @told.each { |one| one.moved(kept, event, from, now_ms) }
      end

      def keep(kept)
        @newest[kept.id] = kept
        retire(@newest.shift.last) if @newest.size > KEPT
        kept
      end

      def retire(kept)
        needed?(kept) ? @older[kept.id] = kept : forget(kept)
        sweep if ((@retired += 1) % SWEPT_EVERY).zero?
      end

      def sweep = @older.each_value.reject { |kept| needed?(kept) }.each { |kept| forget(@older.delete(kept.id)) }
      def needed?(kept) = kept.state.coming? || @picture.remembers?(kept.id)

      def forget(kept)
        @forgotten.add(kept)
        @told.each { |one| one.forgot(kept) }
      end
    end
  end
end
