# frozen_string_literal: true

require_relative "share"

module Bench
  # From the write of a delete on an IRC socket to the first frame without that line.
  class Deletes
    LINES = 200
    EVERY_S = 0.05
    AT_ONCE = 5
    # The frame after the removal is the first that does not show it.
    WATCH = <<~JS
      window.gone = {};
      new MutationObserver((changes) => { for (const change of changes) for (const node of change.removedNodes) {
        const id = node.textContent.match(/bench-\\d+/)?.[0];
        if (id) requestAnimationFrame(() => requestAnimationFrame((at) => { window.gone[id] = (performance.timeOrigin + at) * 1000; }));
      } }).observe(document.querySelector("#stage"), { childList: true, subtree: true });
    JS

    def initialize(browser, typist)
      @browser = browser
      @typist = typist
    end

    def run
      @browser.execute(WATCH)
      asked = (0...(LINES / AT_ONCE)).flat_map { |batch| say_and_delete(batch) }.to_h
      deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 5
      sleep 0.05 until (asked.keys - gone.keys).empty? || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
      took = asked.filter_map { |id, at_us| gone[id] && ((gone[id] - at_us) / 1000.0) }.sort
      {lines: asked.size, never: asked.size - took.size, half_ms: Share.at(took, 0.5), p99_ms: Share.at(took, 0.99)}
    end

    private

    def gone = @browser.evaluate("window.gone")

    # A few at a time, so that none leaves because others came.
    def say_and_delete(batch)
      ids = Array.new(AT_ONCE) { |index| "bench-#{700_000 + (batch * AT_ONCE) + index}" }
      ids.each { |id| @typist.say("#{id} a slip of the tongue", id:) }
      sleep 0.02 until @browser.evaluate("window.painted").keys.then { |painted| (ids - painted).empty? }
      ids.map do |id|
        sleep EVERY_S
        [id, @typist.delete(id)]
      end
    end
  end
end
