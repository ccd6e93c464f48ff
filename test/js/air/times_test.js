import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page, serve, settled } from "../support/page.js";
import { leftOut, Times, wordsOf } from "../../../assets/js/air/times.js";

eachOnAPage({
  html: `<section id="times"><span id="times-of"></span><p id="times-said"></p><svg id="times-drawn" hidden></svg></section><div id="messages"></div>`,
});

const TOLD = { lines: 120, step_ms: 5, bars: [0, 2, 0, 60, 57], beyond: 1, half_ms: 17, most_ms: 1240, hold_ms: 4000 };
const NONE = { ...TOLD, lines: 0, bars: [0, 0, 0, 0, 0], beyond: 0, half_ms: 0, most_ms: 0, hold_ms: 0 };
let times;

beforeEach(() => {
  times = new Times(find("#times"));
});

test("what was measured is said in words", () => {
  assert.equal(wordsOf(TOLD), "120 lines: half within 17 ms, 99 in 100 within 1.2 s. 1 line took longer than is drawn here.");
  assert.equal(wordsOf({ ...TOLD, beyond: 0, most_ms: 999 }), "120 lines: half within 17 ms, 99 in 100 within 999 ms.");
  assert.equal(wordsOf(NONE), "Waiting for a line that a screen paints.");
  assert.deepEqual([leftOut(4000), leftOut(0)], ["last 10 minutes, 4 s of hold left out", "last 10 minutes"]);
});

test("each bar is as high as it has times, and nothing is drawn of nothing", () => {
  times.show(TOLD);
  const bars = all(".bars-bar").map((bar) => [Number(bar.getAttribute("x")), Number(bar.getAttribute("height"))]);
  assert.deepEqual(
    bars.map(([x]) => x),
    [161, 481, 641],
  );
  assert.equal(bars[1][1] / bars[0][1], 30);
  assert.equal(bars[2][1] / bars[1][1], 57 / 60);
  assert.equal(find("#times-drawn").hasAttribute("hidden"), false);
  times.show(NONE);
  assert.deepEqual([all("#times-drawn *").length, find("#times-drawn").hasAttribute("hidden")], [0, true]);
});

test("a mark that would run out at the right stands at the left of its line", () => {
  times.show({ ...TOLD, half_ms: 2, most_ms: 24 });
  assert.deepEqual(
    all(".bars-mark").map((mark) => mark.getAttribute("text-anchor")),
    ["start", "end"],
  );
});

test("it is asked, and what stood there stays where nobody answers", async () => {
  serve({ "/links/times": TOLD });
  await times.ask();
  assert.match(find("#times-said").textContent, /^120 lines/);
  serve({ "/links/times": { error: "Nobody answers." } });
  await times.ask();
  await settled();
  assert.match(find("#times-said").textContent, /^120 lines/);
  assert.deepEqual(
    page.asked.map(([path]) => path),
    ["/links/times", "/links/times"],
  );
});
