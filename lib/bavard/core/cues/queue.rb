# frozen_string_literal: true

module Bavard
  module Core
    module Cues
      # What is to be played, one after another: the more important first, none waiting for too long, many alike as one.
      class Queue
        # gap_ms:: between two; longest_wait_ms:: what waits longer is left; alike_ms:: alike ones within it become one
        # most:: how many may wait; approve:: whether a person lets each one play
        Settings = Struct.new(:gap_ms, :longest_wait_ms, :alike_ms, :most, :approve, keyword_init: true)
        CALM = Settings.new(gap_ms: 800, longest_wait_ms: 300_000, alike_ms: 4000, most: 40, approve: false).freeze
        # importance:: the higher, the sooner; length_ms:: how long it plays; alike:: what may be joined with it, or nil
        # events:: what it stands for; approved:: whether somebody let it go
        Waiting = Struct.new(:id, :cue, :importance, :length_ms, :alike, :events, :came_ms, :approved)

        attr_reader :playing, :left

        # @param settings [Settings]
        def initialize(settings = CALM)
          @settings = settings
          @waiting = []
          @playing = nil
          @paused = false
          @left = 0
          @number = 0
        end

        attr_writer :settings

        def waiting = @waiting.dup
        def paused? = @paused
        def pause = @paused = true
        def go_on = @paused = false

        # @return [Waiting] what now stands for the event
        def add(event, cue, now_ms, importance: 0, length_ms: 5000, joins: true)
          alike = joins ? event.alike : nil
          known = alike && @waiting.reverse_each.find { |one| joins?(one, alike, cue, now_ms) }
          return known.tap { |one| one.events << event } if known

          made = Waiting.new(@number += 1, cue, importance, length_ms, alike, [event], now_ms, false)
          @waiting << made
          shed if @waiting.size > @settings.most
          made
        end

        # Whatever its time is up for.
        #
        # @return [Array(Waiting, Waiting)] what ended and what begins, or nil
        def advance(now_ms)
          ended = finish(now_ms)
          drop_old(now_ms)
          [ended, begin_next(now_ms)]
        end

        # @return [Integer, nil] when {#advance} has something to do
        def due_ms
          return @playing_until_ms if @playing
          return if @paused || @waiting.none? { |one| ready?(one) }

          @free_at_ms || 0
        end

        # What plays now is over.
        #
        # @return [Waiting, nil]
        def skip(now_ms)
          @playing_until_ms = now_ms if @playing
          finish(now_ms)
        end

        def clear = @waiting.clear

        # @return [Waiting, nil] that a person let go, or took away
        def approve(id) = @waiting.find { |one| one.id == id }&.tap { |one| one.approved = true }

        def remove(id)
          @waiting.find { |one| one.id == id }&.tap { |one| @waiting.delete(one) }
        end

        # What was deleted or pulled: it plays no more, not even if it plays already.
        #
        # @yieldparam event [Event]
        # @return [Boolean] whether what plays now is gone
        def pull_where(now_ms)
          @waiting.each { |one| one.events.reject! { |event| yield event } }
          @waiting.reject! { |one| one.events.empty? }
          return false unless @playing&.events&.any? { |event| yield event }

          skip(now_ms)
          true
        end

        private

        def joins?(one, alike, cue, now_ms)
          one.alike == alike && one.cue["id"] == cue["id"] && now_ms - one.came_ms <= @settings.alike_ms
        end

        def ready?(one) = !@settings.approve || one.approved

        def finish(now_ms)
          return unless @playing && now_ms >= @playing_until_ms

          @free_at_ms = now_ms + @settings.gap_ms
          @playing.tap { @playing = nil }
        end

        def begin_next(now_ms)
          return if @playing || @paused || (@free_at_ms && now_ms < @free_at_ms)

          chosen = @waiting.select { |one| ready?(one) }.min_by { |one| [-one.importance, one.id] } or return
          @waiting.delete(chosen)
          @playing_until_ms = now_ms + chosen.length_ms
          @playing = chosen
        end

        # What is joined meanwhile keeps the time it came at first.
        def drop_old(now_ms)
          before = @waiting.size
          @waiting.reject! { |one| now_ms - one.came_ms > @settings.longest_wait_ms }
          @left += before - @waiting.size
        end

        # The least important of those that came last.
        def shed
          @waiting.delete(@waiting.min_by { |one| [one.importance, -one.id] })
          @left += 1
        end
      end
    end
  end
end
