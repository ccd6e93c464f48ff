import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { Socket } from "../../../assets/js/link/socket.js";

// What comes late is not shown before all of it is there.

eachOnAPage();

let shown;
let gone;
const line = () => page.sockets.at(-1);
const open = (stalls = false) => {
  line().stalls = stalls;
  line().open();
};
// A frame that was sent so long ago.
const sent = (number, ago = 0, more = {}) => line().tell({ at: `b:${number}`, t: page.clock.now - ago, ...more });

beforeEach(() => {
  shown = [];
  gone = [];
  new Socket("/air/secret/live", {
    frame: (frame) => shown.push(frame.at),
    missed: (frames) => shown.push(frames.map((frame) => frame.at)),
    only: (what) => shown.push(what),
    current: () => {},
    gone: (frame) => gone.push(frame.pulled ?? frame.at),
  });
});

test("what comes in time is shown as it comes", () => {
  open();
  sent(1, 20, { whole: true });
  sent(2, 90);
  sent(3, 169);
  assert.deepEqual(shown, ["b:1", "b:2", "b:3"]);
});

test("over a new line nothing is shown before all that was sent so far is here", () => {
  open(true);
  sent(1, 30_000, { whole: true });
  sent(2, 29_000);
  sent(3);
  assert.deepEqual(shown, []);
  line().answer();
  assert.deepEqual(shown, ["b:1", ["b:2", "b:3"]]);
});

test("what comes in a heap is shown in one go, once the last of it is there", () => {
  open();
  sent(1, 20, { whole: true });
  line().stalls = true;
  sent(2, 33_000);
  sent(3, 20_000);
  sent(4, 30);
  assert.deepEqual(shown, ["b:1"]);
  line().answer();
  assert.deepEqual(shown, ["b:1", ["b:2", "b:3", "b:4"]]);
  sent(5, 20);
  assert.equal(shown.at(-1), "b:5");
});

test("what is pulled in a heap is told at once, before the last of it is there", () => {
  open();
  sent(1, 20, { whole: true });
  line().stalls = true;
  sent(2, 33_000, { pulled: [7] });
  sent(3, 30, { pulled: [8] });
  assert.deepEqual([shown, gone], [["b:1"], [[7], [8]]]);
  line().answer();
  sent(4, 20, { pulled: [9] });
  assert.deepEqual(
    [shown, gone],
    [
      ["b:1", ["b:2", "b:3"], "b:4"],
      [[7], [8]],
    ],
  );
});

test("one frame that is a little late moves as any other, a moment later", () => {
  open();
  sent(1, 20, { whole: true });
  line().stalls = true;
  sent(2, 400);
  line().answer();
  assert.deepEqual(shown, ["b:1", "b:2"]);
});

test("where this clock stood still, as in sleep, what comes is not taken for early", () => {
  open();
  sent(1, 20, { whole: true });
  line().stalls = true;
  line().tell({ at: "b:2", t: page.clock.now + 60_000 });
  line().tell({ at: "b:3", t: page.clock.now + 90_000 });
  assert.deepEqual(shown, ["b:1"]);
  line().answer();
  assert.deepEqual(shown, ["b:1", ["b:2", "b:3"]]);
});

test("a line that has become longer for good holds nothing up after the first", () => {
  open();
  sent(1, 20, { whole: true });
  sent(2, 500);
  const { asked } = line();
  sent(3, 20);
  assert.equal(asked, null);
  assert.deepEqual(shown, ["b:1", "b:2", "b:3"]);
});

// Something waits, the line is cut, and another one is opened that stalls as well.
function cutWhileSomethingWaits() {
  open();
  sent(1, 20, { whole: true });
  line().stalls = true;
  sent(2, 9000);
  line().close(1006);
  page.clock.pass(400);
  open(true);
}

test("what waits when the line is cut goes with what is told over the next one", () => {
  cutWhileSomethingWaits();
  line().tell({ at: "b:4", t: page.clock.now, missed: [{ at: "b:3" }, { at: "b:4" }] });
  assert.deepEqual(shown, ["b:1"]);
  line().answer();
  assert.deepEqual(shown, ["b:1", ["b:2", "b:3", "b:4"]]);
});

test("a whole picture takes the place of what waits", () => {
  cutWhileSomethingWaits();
  sent(9, 0, { whole: true });
  line().answer();
  assert.deepEqual(shown, ["b:1", "b:9"]);
});

test("an answer to what was asked over another line counts for nothing", () => {
  open(true);
  const { asked } = line();
  line().close(1006);
  page.clock.pass(400);
  open(true);
  sent(1, 0, { whole: true });
  line().tell({ here: asked, t: page.clock.now });
  assert.deepEqual(shown, []);
  line().answer();
  assert.deepEqual(shown, ["b:1"]);
});

test("a sound that comes late is not played", () => {
  open();
  sent(1, 20, { whole: true });
  line().tell({ only: "now", t: page.clock.now });
  line().stalls = true;
  sent(2, 5000);
  line().tell({ only: "late" });
  line().answer();
  assert.deepEqual(shown, ["b:1", "now", "b:2"]);
});

test("a line that is slow, and now slower and now less so, shows what comes after a few answers", () => {
  for (const ways of [
    [700, 700, 700],
    [400, 900, 620],
    [900, 400, 800, 500],
  ]) {
    shown.length = 0;
    open(true);
    sent(1, 0, { whole: true });
    ways.forEach((way, index) => {
      assert.deepEqual(shown, [], `${ways} at ${index}`);
      page.clock.pass(way);
      line().answer();
    });
    assert.deepEqual(shown, ["b:1"], `${ways}`);
    line().close(1006);
    page.clock.pass(9000);
  }
});
