import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page, settled } from "../support/page.js";
import { make } from "../../../assets/js/house/elements.js";
import { Score } from "../../../assets/js/cues/score.js";

eachOnAPage();

const CUE = { id: "a", length_s: 6 };
const LOOK = { in_ms: 300, out_ms: 600, says: { words: "ann gave 5" }, peaks: [1, 4, 2] };
let score;
let set;
let tried;

beforeEach(() => {
  const root = make("div");
  page.document.body.append(root);
  [set, tried] = [[], 0];
  score = new Score(root, { set: (values) => set.push(values), play: () => tried++, trial: () => {} });
  score.show(
    CUE,
    [
      ["words", 1000, 4000],
      ["sound", 500, 2000],
      ["aloud", 2000, null],
      ["flurry", 0, 4000],
    ],
    LOOK,
  );
});

const bar = (part) => find(`[data-part=${part}]`);
const press = (part, key, shiftKey = false) =>
  bar(part).dispatchEvent(new page.window.KeyboardEvent("keydown", { key, shiftKey, bubbles: true, cancelable: true }));

test("each part has a row where it begins and ends, and what nobody knows stays open", () => {
  const share = (part) =>
    [bar(part).style.left, bar(part).style.width].map((value) => Math.round(Number.parseFloat(value) * 0.0624 * 10) / 10);
  assert.deepEqual(
    [share("words"), share("sound"), share("flurry")],
    [
      [1, 3],
      [0.5, 1.5],
      [0, 4],
    ],
  );
  assert.deepEqual([bar("aloud").classList.contains("open"), bar("words").classList.contains("open")], [true, false]);
  assert.equal(bar("sound").querySelectorAll("rect").length, 3);
  assert.match(bar("words").getAttribute("aria-label"), /^Words: ann gave 5, from 1 s to 4 s\./);
});

test("arrows move a part, with Shift its end, and never out of the cue", async () => {
  press("words", "ArrowRight");
  press("words", "ArrowLeft", true);
  press("sound", "ArrowLeft");
  await settled();
  assert.deepEqual(set, [{ words_begins_s: 1.1, words_ends_s: 4.1 }, { sound_begins_s: 0.4 }, { words_ends_s: 4 }]);
  score.show(CUE, [["words", 0, 6000]], LOOK);
  for (const [key, shift] of [["ArrowLeft"], ["ArrowRight"], ["ArrowRight", true]]) {
    press("words", key, shift);
    await settled();
  }
  assert.deepEqual(set.slice(3), [{ words_begins_s: 0 }, { words_begins_s: 0.1 }, { words_ends_s: 0 }]);
  score.show(CUE, [["words", 5900, 6000]], LOOK);
  press("words", "ArrowRight");
  await settled();
  assert.deepEqual(set.at(-1), { words_begins_s: 5.9 });
});

test("whoever presses a key ten times means ten, however long the answer takes", async () => {
  const answered = [];
  score.set = (values) => {
    set.push(values);
    return new Promise((resolve) => answered.push(resolve));
  };
  for (let many = 0; many < 10; many++) press("sound", "ArrowRight");
  assert.deepEqual([set, bar("sound").style.left], [[{ sound_begins_s: 0.6 }], score.share(1500)]);
  score.show(CUE, [["sound", 600, 2100]], LOOK);
  assert.equal(bar("sound").style.left, score.share(1500));
  answered[0]();
  await settled();
  assert.deepEqual(set.slice(1), [{ sound_begins_s: 1.5 }]);
  answered[1]();
  score.show(CUE, [["sound", 1500, 3000]], LOOK);
  await settled();
  press("sound", "ArrowRight");
  assert.deepEqual(set.at(-1), { sound_begins_s: 1.6 });
  score.show({ ...CUE, id: "b" }, [["sound", 0, 1500]], LOOK);
  press("sound", "ArrowRight");
  assert.deepEqual(set.at(-1), { sound_begins_s: 0.1 });
});

test("a part is dragged, and only once that is over it is told", async () => {
  const point = (name, clientX) => Object.assign(new page.window.Event(name, { bubbles: true }), { clientX, button: 0, pointerId: 1 });
  const held = () => {
    score.show(CUE, [["words", 1000, 4000]], LOOK);
    bar("words").parentElement.getBoundingClientRect = () => ({ width: 624 });
    return bar("words");
  };
  let one = held();
  one.dispatchEvent(point("pointerdown", 200));
  one.dispatchEvent(point("pointermove", 300));
  assert.deepEqual(set, []);
  one.dispatchEvent(point("pointerup", 300));
  await settled();
  one = held();
  one.querySelector(".score-end").dispatchEvent(point("pointerdown", 400));
  one.dispatchEvent(point("pointerup", 250));
  await settled();
  assert.deepEqual(set, [{ words_begins_s: 2, words_ends_s: 5 }, { words_ends_s: 2.5 }]);
  one = held();
  one.dispatchEvent(point("pointerdown", 200));
  one.dispatchEvent(point("pointercancel", 500));
  assert.equal(set.length, 2);
});

test("played from its beginning it says how far it is", () => {
  find(".score-head .do").click();
  page.clock.pass(2400);
  assert.deepEqual([tried, find(".score-time").textContent], [1, "2.4 s of 6 s"]);
  page.clock.pass(4000);
  assert.equal(find(".score-time").textContent, "6 s");
});
