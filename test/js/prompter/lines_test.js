import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page, serve } from "../support/page.js";
import { card } from "../support/cards.js";
import { Deeds, sentence } from "../../../assets/js/prompter/deeds.js";
import { Held } from "../../../assets/js/prompter/held.js";
import { Lines } from "../../../assets/js/prompter/lines.js";
import { Actions } from "../../../assets/js/prompter/actions.js";
import { fill, rowOf } from "../../../assets/js/prompter/row.js";

eachOnAPage({ html: '<div id="held"></div><div id="pinned"></div><div id="messages"></div>' });

const turn = () => new Promise((done) => setImmediate(done));

function listening() {
  const lines = new Lines();
  const heard = [];
  lines.heard({
    newer: (cards) => heard.push(["newer", cards.map((one) => one.i)]),
    older: (cards) => heard.push(["older", cards.map((one) => one.i)]),
    changed: (one) => heard.push(["changed", one.i, one.s]),
    chosen: () => heard.push(["chosen"]),
  });
  return { lines, heard };
}

test("newer lines go to the end, older ones to the beginning, and none twice", () => {
  const { lines, heard } = listening();
  lines.add([card(5), card(6)]);
  lines.add([card(6), card(7)]);
  lines.add([card(3), card(4), card(8)]);
  assert.deepEqual(
    lines.all.map((one) => one.i),
    [3, 4, 5, 6, 7, 8],
  );
  assert.deepEqual(heard, [
    ["newer", [5, 6]],
    ["newer", [7]],
    ["older", [3, 4]],
    ["newer", [8]],
  ]);
});

test("what becomes of a line is told, of one that is not here nothing", () => {
  const { lines, heard } = listening();
  lines.add([card(5, "x", { s: "held" })]);
  lines.change("5", { s: "aired" });
  lines.change("9", { s: "aired" });
  assert.deepEqual(heard.at(-1), ["changed", 5, "aired"]);
  assert.equal(heard.length, 2);
});

test("what is not asked to be seen is kept, and seen once it is asked for", () => {
  const { lines, heard } = listening();
  lines.choose({ showOff: false, feeds: new Set([1]) });
  lines.add([card(1, "", { s: "off", fd: 1 }), card(2, "", { s: "aired", fd: 2 }), card(3, "", { s: "aired", fd: 1 })]);
  assert.deepEqual(heard.at(-1), ["newer", [3]]);
  lines.choose({ showOff: true, feeds: null });
  assert.deepEqual(
    lines.shown.map((one) => one.i),
    [1, 2, 3],
  );
});

function holding(held, more = {}) {
  const lines = new Lines();
  lines.add(held.map((one) => card(one.i, `line ${one.i}`, { rule: "Links", s: one.waits ? "waits" : "held", ...more })));
  const picked = [];
  const made = new Held(lines, (id) => picked.push(id));
  made.take(held);
  const rows = () => [...page.document.querySelectorAll("#held .held-row")];
  return { made, picked, rows, order: () => rows().map((row) => Number(row.dataset.line)) };
}

const timed = (i, left, whole = 10_000) => ({ i, waits: false, left, whole });
const waits = (i, left = null) => ({ i, waits: true, left, whole: left });

test("on top stands what waits for a person, the newest first, then what goes soonest", () => {
  const { order } = holding([timed(1, 9000), waits(2), timed(3, 2000), waits(4)]);
  assert.deepEqual(order(), [4, 2, 3, 1]);
});

test("many that wait do not hide what goes by itself, and what has no room is counted", () => {
  const { order } = holding([1, 2, 3, 4, 5].map((i) => waits(i)).concat([timed(6, 100), timed(7, 50), timed(8, 70), timed(9, 90)]));
  assert.deepEqual(order(), [5, 4, 3, 7, 8, 9]);
  assert.equal(page.document.querySelector(".held-more").textContent, "and 3 more");
});

test("where there is no room for all of them, whole ones are seen and the others are counted", () => {
  const { HTMLElement } = page.window;
  const own = (name) => Object.getOwnPropertyDescriptor(HTMLElement.prototype, name);
  const before = ["offsetTop", "offsetHeight"].map((name) => [name, own(name)]);
  const box = page.document.querySelector("#held");
  const at = (row) => [...box.querySelectorAll(".held-row")].indexOf(row);
  Object.defineProperty(HTMLElement.prototype, "offsetTop", {
    configurable: true,
    get: function top() {
      return 40 + Math.max(0, at(this)) * 70;
    },
  });
  Object.defineProperty(HTMLElement.prototype, "offsetHeight", {
    configurable: true,
    get: function height() {
      return at(this) < 0 ? 30 : 70;
    },
  });
  Object.defineProperties(box, { clientHeight: { get: () => 275 }, scrollHeight: { get: () => box.children.length * 70 } });
  holding([1, 2, 3, 4, 5].map((i) => waits(i)));
  for (const [name, descriptor] of before) Object.defineProperty(HTMLElement.prototype, name, descriptor);
  assert.deepEqual([box.style.maxHeight, box.querySelector(".held-more").textContent], ["241px", "and 2 more"]);
});

test("what comes and goes within a moment is measured once, for each time lays the whole page out anew", () => {
  const { made } = holding([1, 2, 3, 4].map((i) => waits(i)));
  let measured = 0;
  let width = 800;
  Object.defineProperties(page.document.querySelector("#held"), {
    clientHeight: { get: () => 275 },
    clientWidth: { get: () => width },
    scrollHeight: { get: () => 70 * ++measured },
  });
  for (const i of [1, 2, 3, 4]) made.take([waits(i)]);
  assert.equal(measured, 0);
  page.clock.pass(100);
  assert.equal(measured, 1);
  page.clock.pass(1000);
  assert.equal(measured, 1);
  width = 430;
  page.clock.pass(1000);
  assert.equal(measured, 2);
});

test("the time that is left runs on between two tellings and never below nothing", () => {
  const { rows } = holding([timed(1, 12_000, 20_000), waits(2, 30_000), waits(3)]);
  const words = () => rows().map((row) => row.querySelector("small").textContent);
  assert.deepEqual(words(), ["held by Links, no limit", "held by Links, leaves in 30 s", "goes on screen in 12 s"]);
  page.clock.pass(2500);
  assert.equal(words()[2], "goes on screen in 9.5 s");
  page.clock.pass(60_000);
  assert.equal(words()[2], "goes on screen in 0.0 s");
  assert.match(rows()[2].querySelector(".left").style.strokeDasharray, /^0 /);
});

test("nothing held is no box, and a line this prompter does not have is no row", () => {
  const { made, rows } = holding([timed(1, 1000)]);
  made.take([timed(99, 1000)]);
  assert.equal(rows().length, 0);
  assert.equal(page.document.querySelector("#held").hidden, true);
});

test("a held line is let go or pulled where it stands, or chosen by a press beside its buttons", async () => {
  serve({ "/prompter/act": { done: true, deed: 3 } });
  const { rows, picked } = holding([timed(1, 1000)]);
  const [letGo, pull] = rows()[0].querySelectorAll("button");
  letGo.click();
  pull.click();
  rows()[0].click();
  await turn();
  assert.deepEqual(
    page.asked.map(([, what]) => what),
    [
      { do: "let_go", line: 1 },
      { do: "pull", line: 1 },
    ],
  );
  assert.deepEqual(picked, [1]);
});

test("a row stays the element it is while others come and go, so that no press on it is lost", () => {
  const { made, rows } = holding([timed(1, 3000), timed(2, 5000), timed(3, 9000)]);
  const [, second, third] = rows();
  made.lines.add([card(4, "line 4", { s: "held" })]);
  made.take([timed(2, 4000), timed(3, 8000), timed(4, 9500)]);
  assert.deepEqual([rows()[0], rows()[1], rows().length], [second, third, 3]);
});

const on = (type) => page.document.querySelector("#held").dispatchEvent(new page.window.Event(type));
const ableAt = (rows, at) => [...rows()[at].querySelectorAll("button")].map(({ disabled }) => !disabled);

test("while the mouse is on the rows none moves, and what comes in the place of another is pressed only a moment later", () => {
  const { made, rows, order } = holding([timed(1, 3000), timed(2, 5000), timed(3, 9000)]);
  const [, second, third] = rows();
  on("pointermove");
  made.take([timed(2, 4000), timed(3, 8000)]);
  assert.deepEqual(order(), [1, 2, 3]);
  assert.deepEqual([rows()[1], rows()[2]], [second, third]);
  assert.deepEqual(
    [ableAt(rows, 0), ableAt(rows, 1)],
    [
      [false, false],
      [true, true],
    ],
  );
  assert.equal(rows()[0].querySelector("small").textContent, "not held any more");
  made.lines.add([card(4, "line 4", { s: "held" })]);
  made.take([timed(2, 3500), timed(3, 7500), timed(4, 9500)]);
  assert.deepEqual(
    [order(), ableAt(rows, 0)],
    [
      [4, 2, 3],
      [false, false],
    ],
  );
  page.clock.pass(500);
  assert.deepEqual(ableAt(rows, 0), [true, true]);
});

test("once the mouse has left, or has not moved for long, all stand in their order again", () => {
  for (const end of [() => on("pointerleave"), () => page.clock.pass(3200)]) {
    const { made, order } = holding([timed(1, 3000), timed(2, 50_000), timed(3, 90_000)]);
    on("pointerenter");
    made.take([timed(2, 50_000), timed(3, 90_000)]);
    assert.deepEqual(order(), [1, 2, 3]);
    end();
    assert.deepEqual(order(), [2, 3]);
  }
});

test("what was pinned stands apart, the one on the stage marked", () => {
  const { made } = holding([]);
  made.pins([card(1), card(2)], 2);
  const pinned = [...page.document.querySelectorAll("#pinned .pin")];
  assert.deepEqual(
    pinned.map((row) => row.classList.contains("large")),
    [false, true],
  );
  made.pins([], null);
  assert.equal(page.document.querySelector("#pinned").hidden, true);
});

function deed(id, what, more = {}) {
  return { id, what, by: "Teo", about: "ann", at: 0, undone: null, back: true, ...more };
}

test("the newest deed that can be taken back is the one that is undone", async () => {
  serve({ "/prompter/act": { done: true } });
  const deeds = new Deeds();
  deeds.take([deed(2, "pull"), deed(1, "pin"), deed(3, "rules", { back: false })]);
  deeds.undoLast();
  deeds.take([deed(2, "pull", { undone: "Ibrahim" })]);
  deeds.undoLast();
  deeds.take([deed(1, "pin", { undone: "Ibrahim" })]);
  deeds.undoLast();
  await turn();
  assert.deepEqual(
    page.asked.map(([, what]) => what.deed),
    [2, 1],
  );
  const rows = deeds.rows().map((row) => row.textContent);
  assert.deepEqual(
    rows.map((words) => words.includes("taken back by Ibrahim")),
    [false, true, true],
  );
});

test("a deed reads as a sentence, also one of a kind this page does not know", () => {
  assert.equal(sentence(deed(1, "pull")), "Teo pulled a line of ann");
  assert.equal(sentence(deed(1, "air", { about: "Main, revision 4" })), "Teo put on air: Main, revision 4");
  assert.equal(sentence(deed(1, "cue_pause", { about: null })), "Teo paused alerts");
  assert.equal(sentence(deed(1, "of tomorrow", { about: null })), "Teo of tomorrow");
});

function offered(state, told = {}) {
  const actions = new Actions({
    pins: () => told.pins ?? [],
    large: () => told.large ?? null,
    open: () => {},
    answerTo: () => {},
    speak: () => {},
  });
  return actions.all(card(1, "x", { s: state, p: "ann", fd: 1, ...told.card })).map(([key]) => key);
}

test("what can be seen can be pulled, what cannot be seen can be let go", () => {
  for (const state of ["aired", "draft", "nowhere"])
    assert.deepEqual([offered(state).includes("x"), offered(state).includes("v")], [true, false], state);
  for (const state of ["held", "waits"])
    assert.deepEqual([offered(state).includes("x"), offered(state).includes("v")], [true, true], state);
  for (const state of ["pulled", "deleted", "off", "left"])
    assert.deepEqual([offered(state).includes("x"), offered(state).includes("v")], [false, true], state);
});

test("what is told anew of a line leaves the buttons that do the same where they are, also one that is pressed", () => {
  const actions = new Actions({ pins: () => [], large: () => null, open: () => {}, answerTo: () => {}, speak: () => {} });
  const one = card(1, "x", { s: "held", p: "ann", fd: 1 });
  const row = rowOf(one);
  const shown = () => [...row.querySelectorAll(".action")];
  const named = (words) => shown().find((button) => button.querySelector("span").textContent === words);
  actions.show(one, row);
  const before = shown();
  const moved = [];
  actions.bar.remove = () => moved.push("bar");
  Object.assign(one, { s: "aired", mk: ["answered"] });
  fill(row, one);
  actions.show(one, row);
  assert.deepEqual([named("Let go"), named("Answered"), moved], [undefined, undefined, []]);
  assert.deepEqual(
    shown().filter((button) => !before.includes(button)),
    [named("Not answered")],
  );
  assert.equal(row.lastElementChild, actions.bar);
  const other = card(2, "y", { s: "aired", p: "bo", fd: 1 });
  actions.show(other, rowOf(other));
  assert.equal(
    [...actions.bar.children].some((button) => before.includes(button)),
    false,
  );
});

test("what was done is offered the other way round, and done by its key", async () => {
  serve({ "/prompter/act": { done: true } });
  const actions = new Actions({ pins: () => [1], large: () => 1, open: () => {}, answerTo: () => {}, speak: () => {} });
  const row = page.document.createElement("div");
  actions.show(card(1, "x", { s: "aired", mk: ["read", "answered"] }), row);
  for (const key of ["n", "g", "e", "a", "?"]) actions.key(key);
  await turn();
  assert.deepEqual(
    page.asked.map(([, what]) => [what.do, what.on]),
    [
      ["unpin", undefined],
      ["small", undefined],
      ["read", false],
      ["answered", false],
    ],
  );
  actions.show(null, null);
  assert.equal(row.children.length, 0);
  actions.key("n");
  await turn();
  assert.equal(page.asked.length, 4);
});
