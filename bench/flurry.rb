# frozen_string_literal: true

require_relative "event_scene"
require_relative "steal"

module Bench
  # Emotes in flight, some of them turning: how many frames a second a page keeps; and as many as fly in an hour, after which
  # memory is to be what it was.
  class Flurry
    IN_FLIGHT = 300
    FIREWORK = 300
    MEASURE_S = 6
    # A lively hour: ten a second. Played in a minute, on six pieces.
    HOUR = 36_000
    PIECES = 6
    PER_LINE = 20
    LINES_A_SECOND = 5
    WARM_LINES = 60
    WHOLE = {"width" => 1920, "height" => 1080, "depth" => 0, "size_spread" => 0, "alike_s" => 0}.freeze

    # What flies, and how many of it turn, as the frames say.
    WATCH = <<~JS
      window.flights = 0; window.turning = 0;
      const Plain = WebSocket;
      window.WebSocket = class extends Plain {
        constructor(...given) {
          super(...given);
          this.addEventListener("message", ({ data }) => {
            for (const cards of Object.values(JSON.parse(data).fly ?? {})) for (const { p } of cards) {
              window.flights += 1;
              if (new Set(p.map((point) => point[3])).size > 1) window.turning += 1;
            }
          });
        }
      };
    JS

    def run
      told, steal = Steal.around { {**frames, **firework, **hour} }
      {**told, steal_percent: steal.round(1)}
    end

    private

    def frames
      piece = WHOLE.merge("emote_px" => 64, "length_s" => 40, "at_once" => IN_FLIGHT, "per_minute" => 6000,
        "ways" => %w[fall rise drift rebound swing])
      cue = {"length_s" => 1, "flurry_count" => 200, "flurry_emotes" => ":wren:"}
      scene = EventScene.new([["alerts", {}], ["flurry", piece]], cues: {"follow" => cue}, queue: {"gap_ms" => 0}) do |browser|
        browser.evaluate_on_new_document(WATCH)
      end
      idle = scene.frames_per_s(MEASURE_S)
      2.times do |number|
        scene.happen("follow", "viewer#{number}")
        sleep(1.5)
      end
      sleep(3)
      {flying: sum(scene), turning: scene.browser.evaluate("window.turning"), frames_per_s: scene.frames_per_s(MEASURE_S).round(1),
       idle_frames_per_s: idle.round(1)}
    ensure
      scene&.stop
    end

    # All of one cue's, from the first rocket on.
    def firework
      piece = WHOLE.merge("emote_px" => 64, "length_s" => 20, "at_once" => FIREWORK, "per_minute" => 6000)
      cue = {"length_s" => 1, "flurry_count" => FIREWORK, "flurry_emotes" => ":wren:", "flurry_way" => "firework"}
      scene = EventScene.new([["alerts", {}], ["flurry", piece]], cues: {"follow" => cue}, queue: {"gap_ms" => 0})
      scene.frames_per_s(1)
      scene.happen("follow", "viewer")
      sleep(2.5)
      {firework: sum(scene), firework_frames_per_s: scene.frames_per_s(MEASURE_S).round(1)}
    ensure
      scene&.stop
    end

    def hour
      piece = WHOLE.merge("emote_px" => 32, "length_s" => 0.5, "at_once" => 400, "per_minute" => 6000, "per_person" => 600, "per_line" => PER_LINE,
        "apart_ms" => 0)
      scene = EventScene.new(Array.new(PIECES) { ["flurry", piece] })
      fly(scene, WARM_LINES)
      before = memory(scene)
      fly(scene, HOUR / PIECES / PER_LINE) { sum(scene) }
      after = memory(scene)
      {flown: HOUR, in_flight: @most, page_mb: [before, after].map { |one| one[:page] }, nodes: after[:nodes],
       application_mb: [before, after].map { |one| one[:app] }}
    ensure
      scene&.stop
    end

    # @return [Integer] how many fly just now
    def sum(scene)
      scene.browser.evaluate("[...document.querySelectorAll('.flurry')].reduce((sum, one) => sum + Number(one.dataset.flying ?? 0), 0)")
    end

    # @yieldreturn [Integer] how many fly just now
    def fly(scene, lines)
      @most = 0
      lines.times do |number|
        scene.say("viewer#{number % 40}", ":wren: " * PER_LINE)
        sleep(1.0 / LINES_A_SECOND)
        @most = [@most, yield].max if block_given?
      end
      sleep(2)
    end

    def memory(scene)
      page = scene.browser.page
      page.command("HeapProfiler.collectGarbage")
      {page: (page.command("Runtime.getHeapUsage")["usedSize"] / 1e6).round(1),
       nodes: scene.browser.evaluate("document.querySelectorAll('*').length"), app: scene.memory_mb}
    end
  end
end
