import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { called, eachOnAPage, find, page, settled, type } from "../support/page.js";
import { Frame } from "../../../assets/js/stage/frame.js";
import { rowFor } from "../../../assets/js/stage/properties.js";
import { Draft } from "../../../assets/js/stage/state.js";

eachOnAPage({ html: '<div><div id="frame"><div id="hands"></div></div></div><div id="rows"></div>' });

// What is told and answered in another order than it was done.

const told = (at, ...pieces) => ({ id: 7, at, order: pieces.map((piece) => piece.id), pieces });

test("what is told of the time before an edit was answered does not undo it", () => {
  const draft = new Draft(7);
  draft.take([told(1, { id: "a", x: 1, y: 1 })], true);
  draft.guess("a", { x: 5 }, 3);
  draft.take([told(2, { id: "a", x: 2, y: 2 })], false);
  assert.deepEqual(draft.piece("a"), { id: "a", x: 5, y: 2 });
  draft.take([told(3, { id: "a", x: 5, y: 2 })], false);
  draft.take([told(4, { id: "a", x: 9, y: 2 })], false);
  assert.equal(draft.piece("a").x, 9);
});

test("a whole picture counts as it is, also of a server that counts anew", () => {
  const draft = new Draft(7);
  draft.take([told(40, { id: "a", x: 1 })], true);
  draft.guess("a", { x: 5 }, 41);
  draft.take([told(1, { id: "a", x: 2 })], true);
  assert.equal(draft.piece("a").x, 2);
});

let answers;
let asked;
const want = (values) => {
  asked.push(structuredClone(values));
  return new Promise((done) => answers.push(done));
};

beforeEach(() => {
  answers = [];
  asked = [];
});

function files(pictures) {
  const row = rowFor({ kind: "rows", name: "pictures", label: "Pictures", fields: [{ kind: "file" }], want });
  find("#rows").replaceChildren(row.element);
  row.show(pictures);
  return row;
}
const TWO = [
  { file: "a", seconds: 8 },
  { file: "b", seconds: 8 },
];
const seconds = () => [1, 2].map((number) => called(`Seconds of picture ${number}`).value);

test("of two pictures set one after the other neither is lost, answered or not", async () => {
  const row = files(TWO);
  type(called("Seconds of picture 1"), "1");
  type(called("Seconds of picture 2"), "2");
  assert.deepEqual(
    asked.at(-1).pictures.map((one) => one.seconds),
    ["1", "2"],
  );
  // Told of the time in between.
  row.show([{ file: "a", seconds: 1 }, TWO[1]]);
  assert.deepEqual(seconds(), ["1", "2"]);
  for (const answer of answers) answer();
  await settled();
  assert.deepEqual(seconds(), ["1", "8"]);
  row.show([
    { file: "a", seconds: 1 },
    { file: "b", seconds: 2 },
  ]);
  assert.deepEqual(seconds(), ["1", "2"]);
});

test("what is refused is shown as it stays", async () => {
  const row = files(TWO);
  type(called("Seconds of picture 1"), "a while");
  row.show(TWO);
  answers[0]();
  await settled();
  assert.deepEqual(seconds(), ["8", "8"]);
});

test("rows of fields are changed one after the other as well", async () => {
  const fields = [{ kind: "text", name: "who", label: "Who", max: 40, default: "" }];
  const row = rowFor({ kind: "rows", name: "names", label: "Names", fields, most: 5, want });
  find("#rows").replaceChildren(row.element);
  row.show([{ who: "ann" }, { who: "bo" }], {});
  const inputs = () => [...page.document.querySelectorAll(".list-row input")];
  type(inputs()[0], "cy");
  row.show([{ who: "ann" }, { who: "bo" }], {});
  type(inputs()[1], "dee");
  assert.deepEqual(asked.at(-1).names, [{ who: "cy" }, { who: "dee" }]);
});

test("once a piece is let go, what was told while it was held is drawn", () => {
  const deeds = [];
  globalThis.ResizeObserver = class {
    observe() {}
  };
  const hands = find("#hands");
  hands.setPointerCapture = () => {};
  const frame = new Frame(
    find("#frame"),
    hands,
    { clock: { icon: "clock", label: "Clock" } },
    {
      choose: () => {},
      set: (sets) => deeds.push(sets),
      gesture: () => "g",
      called: () => "Clock",
      released: () => deeds.push(frame.held),
    },
  );
  frame.show({ width: 1920, height: 1080, pieces: [{ id: "a", kind: "clock", x: 10, y: 10, width: 100, height: 50 }] }, new Set(["a"]));
  frame.ratio = 1;
  const pointer = (name, target, clientX) =>
    target.dispatchEvent(
      Object.assign(new globalThis.Event(name, { bubbles: true, cancelable: true }), { clientX, clientY: 0, button: 0, pointerId: 1 }),
    );
  pointer("pointerdown", find(".hand"), 100);
  assert.ok(frame.held.has("a"));
  pointer("pointermove", hands, 130);
  pointer("pointerup", hands, 130);
  assert.deepEqual(
    deeds.map((one) => (Array.isArray(one) ? one[0][0] : one)),
    ["a", null],
  );
});
