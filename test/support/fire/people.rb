# frozen_string_literal: true

require "json"
require "net/http"

module Fire
  # Who is there while everything goes wrong: viewers who write, platforms that delete, a moderator who pulls, a host who edits and brakes.
  # What they do, and when, the seed says; what was answered, they put down.
  class People
    EVERY_S = {write: 0.05..0.25, pull: 0.4..1.5, edit: 1.0..3.0, brake: 12.0..24.0}.freeze
    DELETED = 0.2
    DELETED_AFTER_S = (0.0..2.0)
    # Long enough that a screen must know of it, whatever machine this is.
    BRAKED_S = (6.5..8.0)
    HOLD_MS = (0..300)
    PATIENCE_S = 150
    # Of the newest lines, for somebody who pulls.
    SEEN = 8
    OFF = {"kind" => "off"}.freeze

    # @param scene [FireTest] with standins, act, ask, answer and newest
    # @param record [Record]
    def initialize(scene, record, random)
      @scene = scene
      @record = record
      @random = random
      @braking = Mutex.new
    end

    def begin
      @threads = EVERY_S.map { |what, range| goes_on(Random.new(@random.rand(2**30)), what, range) }
      self
    end

    # On a machine that has much else to do, none of the few tries of a minute may have been answered, or the first is still under way.
    def brake_at_least_once
      until_s = now_s + PATIENCE_S
      @braking.synchronize { brake_once(@random) until @record.brakes.any? || now_s > until_s }
    end

    # Everybody goes; no brake stays on.
    def stop
      @quiet = true
      @threads.each(&:join)
    end

    private

    def goes_on(random, what, range)
      Thread.new do
        until @quiet
          waits(random.rand(range))
          send(what, random) unless @quiet
        end
      end
    end

    def waits(seconds)
      until_s = now_s + seconds
      sleep [until_s - now_s, 0.1].min.clamp(0, nil) until @quiet || now_s >= until_s
    end

    def write(random)
      where = @scene.standins.sample(random:)
      text = @record.words(where.name)
      where.say(text)
      delete(where, text, random.rand(DELETED_AFTER_S)) if random.rand < DELETED
    end

    def delete(where, text, after_s)
      sleep after_s
      line = where.lines.find { |one| one["text"] == text } or return
      where.post("/delete", "id" => line["id"])
      @record.take(text, :deleted)
    end

    # What is refused, or not answered, is not taken away.
    def pull(random)
      id, text = @scene.newest(SEEN).sample(random:)
      @record.take(text, :pulled) if id && @scene.act("do" => "pull", "line" => id) == :done
    end

    def edit(random)
      ms = random.rand(HOLD_MS)
      @record.edit(ms, @scene.ask("/gate/hold", "ms" => ms))
    end

    # One at a time: whoever lifts one would lift the other's.
    def brake(random) = @braking.synchronize { brake_once(random) unless @quiet }

    def brake_once(random)
      if @scene.ask("/gate/brake", "kind" => "off_picture") == :done
        from_ms = @record.now_ms
        waits(random.rand(BRAKED_S))
        to_ms = @record.now_ms
      end
      @record.brake(from_ms, to_ms) if from_ms
    ensure
      lift_brake
    end

    def lift_brake
      until_s = now_s + PATIENCE_S
      until @scene.ask("/gate/brake", OFF) == :done
        raise "the brake cannot be lifted: #{@scene.answer&.code} #{@scene.answer&.body}" if now_s > until_s

        sleep 0.2
      end
    end

    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
