# frozen_string_literal: true

require_relative "stage_visit"

module Bench
  # A flood with motion on, a stage on which nothing happens, and a day of chat.
  class StageDrawing
    include StageVisit

    FLOOD_A_SECOND = 200
    FLOOD_S = 10
    # Ten hours at 24 lines a minute, as fast as they can be sent.
    DAY_LINES = 14_400
    IDLE_S = 30
    CLOCK_TICKS = 100.0

    def run = flood

    private

    def flood
      with_scene(motion_in: "rise", motion_out: "mist") do
        page = browser.create_page
        page.go_to(@scene.link)
        sleep 0.1 until page.at_css("[data-piece=chat1]")
        idle_percent = idle_share
        idle = frames(page, 3)
        before = page.evaluate("window.drawn")
        say(FLOOD_A_SECOND * FLOOD_S, FLOOD_A_SECOND)
        rate = ((page.evaluate("window.drawn") - before) / FLOOD_S.to_f).round(1)
        {flood_frames_per_s: rate, flood_idle_frames_per_s: idle, idle_percent:, **day(page)}
      end
    end

    # @return [Float] the share of one core the browser takes while nothing happens
    def idle_share
      sleep 3
      before = cpu_ticks
      sleep IDLE_S
      ((cpu_ticks - before) / CLOCK_TICKS / IDLE_S * 100).round(2)
    end

    # Of the process that draws the page.
    def cpu_ticks
      Dir["/proc/[0-9]*/cmdline"].sum do |file|
        next 0 unless File.read(file).include?("--type=renderer")

        File.read(file.sub("cmdline", "stat")).split(")").last.split.values_at(11, 12).sum(&:to_i)
      rescue Errno::ENOENT, Errno::ESRCH
        0
      end
    end

    def say(lines, per_s)
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      lines.times do |index|
        wait = began + (index / per_s.to_f) - Process.clock_gettime(Process::CLOCK_MONOTONIC)
        sleep(wait) if wait.positive?
        @scene.typist.say("bench-#{index} can we see the wing again please")
      end
    end

    def day(page)
      sizes = Array.new(2) do |half|
        say(half.zero? ? DAY_LINES / 4 : DAY_LINES * 3 / 4, 400)
        sleep 2
        page.evaluate("(gc(), performance.memory.usedJSHeapSize)") / 1024.0 / 1024
      end
      {day_lines: DAY_LINES, day_mb: sizes.map { |mb| mb.round(1) }}
    end
  end
end
