import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, hide, page, pressable, serve, settled } from "../support/page.js";
import { Measures } from "../../../assets/js/stage/measures.js";

const CHAT = { id: "a", kind: "chat" };
const nothing = { legibility: null, pace: null, room: null, goal: null, wrong: [] };
const legible = (more = {}) => ({
  word: "poor",
  usual: 5.1,
  worst: 1.8,
  part: "name",
  over: "the sky",
  ways: [{ words: "an outline of 2 px", values: { outline: 2 } }],
  patch: [100, 200, 40, 20],
  ...more,
});

eachOnAPage({ html: '<div id="measures"></div><div id="frame"></div>' });

let measures;
let sets;
let answer;

beforeEach(() => {
  sets = [];
  answer = nothing;
  serve({ "/stage/4/measures": () => answer });
  measures = new Measures(find("#measures"), find("#frame"), "/stage/4/measures", (values) => sets.push(values));
});

const asked = () => page.asked.map(([path]) => path);
const words = () => all(".measure > *").map((part) => part.textContent);
const mark = () => find(".worst-patch");

async function told(more, piece = CHAT, ratio = 0.5) {
  answer = { ...nothing, ...more };
  measures.show(piece, ratio);
  page.clock.pass(400);
  await settled();
}

test("nothing is measured while somebody drags, once it rests it is", async () => {
  for (let at = 0; at < 5; at += 1) {
    measures.show({ ...CHAT, x: at }, 0.5);
    page.clock.pass(300);
  }
  assert.deepEqual(asked(), []);
  page.clock.pass(100);
  await settled();
  assert.deepEqual(asked(), ["/stage/4/measures?piece=a"]);
});

test("it is measured again now and then, not in a page that nobody sees", async () => {
  await told({});
  page.clock.pass(5000);
  await settled();
  assert.equal(asked().length, 2);
  hide(true);
  page.clock.pass(20_000);
  await settled();
  assert.equal(asked().length, 2);
});

test("of no piece, or of several, nothing is measured and nothing is left of the last", async () => {
  await told({ legibility: legible() });
  assert.equal(mark().hidden, false);
  measures.show(null, 0.5);
  page.clock.pass(20_000);
  await settled();
  assert.deepEqual([find("#measures").children.length, mark().hidden, asked().length], [0, true, 1]);
});

test("what is answered of a piece that is not chosen any more is not drawn", async () => {
  let late;
  serve({
    "/stage": () =>
      new Promise((done) => {
        late = done;
      }),
  });
  measures.show(CHAT, 0.5);
  page.clock.pass(400);
  measures.show({ id: "b", kind: "chat" }, 0.5);
  late({ ...nothing, legibility: legible() });
  await settled();
  assert.equal(find("#measures").children.length, 0);
});

test("where the server does not answer, what was measured stays", async () => {
  await told({ legibility: legible() });
  answer = { error: "Not now." };
  page.clock.pass(5000);
  await settled();
  assert.equal(all(".measure").length, 1);
});

test("legibility says how much, where it is worst, and with what it would be enough", async () => {
  await told({ legibility: legible() });
  assert.deepEqual(words(), ["Legibilitypoor", "5.1 : 1", "worst 1.8 : 1, the name over the sky", "Enough with", "an outline of 2 px"]);
  assert.equal(find(".chip").className, "chip mind");
  pressable("an outline of 2 px").click();
  assert.deepEqual(sets, [{ outline: 2 }]);
});

test("the worst place is marked on the picture in its proportion", async () => {
  await told({ legibility: legible() });
  assert.deepEqual(
    [mark().style.left, mark().style.top, mark().textContent, mark().classList.contains("bad")],
    ["60px", "105px", "1.8", true],
  );
  await told({ legibility: legible({ word: "good", ways: [], patch: [0, 0, 10, 10] }) });
  assert.deepEqual([mark().style.left, mark().classList.contains("bad"), words().length], ["2.5px", false, 3]);
  await told({ legibility: legible({ patch: null }) });
  assert.equal(mark().hidden, true);
});

test("where the frame is drawn in another size, the mark moves with it", async () => {
  await told({ legibility: legible() });
  await told({ legibility: legible() }, CHAT, 1);
  assert.equal(mark().style.left, "120px");
});

test("pace says how long lines stay, for how many there is room, and what is advised", async () => {
  const pace = { word: "too fast", fits: 7, stays_ms: 2500, longest_needs_ms: 4000, per_minute: 168, advice: "Let lines queue." };
  await told({ pace });
  assert.deepEqual(words(), ["Pacetoo fast", "2.5 s", "on screen; the longest needs 4 s. 7 fit, 168 a minute come.", "Let lines queue."]);
  await told({ pace: { ...pace, word: "calm", stays_ms: null, longest_needs_ms: 12_400, advice: null } });
  assert.deepEqual(words(), ["Pacecalm", "for good", "on screen; the longest needs 12 s. 7 fit, 168 a minute come."]);
  assert.equal(find(".chip").className, "chip fine");
});

test("room for people is made large enough in one press, and never smaller", async () => {
  const room = { needs_px: [900, 120], has_px: [600, 200], people: 12, word: "cut" };
  await told({ room });
  assert.deepEqual(words().slice(1, 3), ["900 × 120", "for 12 people; the piece is 600 × 200, so not all of them are seen."]);
  pressable("Make it large enough").click();
  assert.deepEqual(sets, [{ width: 900, height: 200 }]);
  await told({ room: { ...room, word: "tight", people: 1 } });
  assert.equal(words()[2], "for 1 person; the piece is 600 × 200, so names are cut shorter.");
  await told({ room: { ...room, word: "good" } });
  assert.equal(pressable("Make it large enough"), undefined);
});

test("a goal says how fast it fills and when it would be full", async () => {
  await told({ goal: { per_hour: 40, left_ms: 90 * 60_000 } });
  assert.equal(words()[1], "40 an hour");
  assert.match(words()[2], /^at that rate it is reached at \d\d:\d\d, in 1 h 30 min\.$/);
  await told({ goal: { per_hour: 1, left_ms: 30 * 3_600_000 } });
  assert.match(words()[2], /^at that rate it is reached on \d+ [A-Z][a-z]+ \d{4}, in 30 h 0 min\.$/);
});

test("what cannot be used of own CSS is listed as text", async () => {
  await told({ wrong: ["<b>position</b> is left out"] });
  assert.deepEqual(
    all(".measure.wide li").map((one) => one.textContent),
    ["<b>position</b> is left out"],
  );
});

test("what is measured anew and came to the same leaves the buttons where they are", async () => {
  await told({ legibility: legible() });
  const offered = pressable("an outline of 2 px");
  page.clock.pass(5000);
  await settled();
  assert.equal(pressable("an outline of 2 px"), offered);
});
