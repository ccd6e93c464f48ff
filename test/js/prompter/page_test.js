import assert from "node:assert/strict";
import { afterEach, beforeEach, test } from "node:test";
import { card } from "../support/cards.js";
import {
  all,
  bodyOf,
  called,
  eachOnAPage,
  find,
  key,
  openPage,
  page,
  pressable,
  run,
  said,
  serve,
  settled,
  type,
} from "../support/page.js";
import { setup } from "../../../assets/js/prompter/door.js";
import { OFFERS } from "../support/offers.js";

const SETUP = { base: "/prompter", acts: true, host: "Odalys", signed_in: true, role: "owner", actor: "Odalys", offers: OFFERS };
const OXBOW = { id: 2, name: "Oxbow", mark: ["circle", "#5fb8d6"], answers: true };
const SKEIN = { id: 3, name: "Skein", mark: ["square", "#c8a15f"], answers: false };
const line = (i, more = {}) => card(i, `line ${i}`, { fd: 2, s: "aired", p: "bo", n: "Bo", ...more });
const deed = (id, more = {}) => ({ id, what: "pull", by: "Teo", about: "Bo", at: 0, undone: null, back: true, ...more });

let answers;
let seq;
const socket = () => page.sockets.at(-1);
const sent = (path) => page.asked.filter(([asked]) => asked === path).map(([, values]) => values);
const rows = () => all("#blocks .row").map((row) => Number(row.dataset.line));
const row = (i) => find(`#blocks [data-line="${i}"]`);
const chosen = () => all("#blocks .row.chosen").map((one) => Number(one.dataset.line));
// A document that is laid out by nobody: rows have no height, and all of them are near.
function withoutLayout() {
  for (const name of ["ResizeObserver", "IntersectionObserver"])
    globalThis[name] = class {
      observe() {}
      unobserve() {}
    };
  page.window.HTMLElement.prototype.scrollIntoView = () => {};
  page.window.HTMLDialogElement.prototype.showModal = function open() {
    this.open = true;
  };
}

async function begin(more = {}, kept = {}) {
  for (const name of Object.keys(setup)) delete setup[name];
  Object.assign(setup, SETUP, more);
  openPage({ html: bodyOf("prompter"), path: "/prompter/", ...(more.path ? { path: more.path } : {}) });
  withoutLayout();
  for (const [name, value] of Object.entries(kept)) page.window.localStorage.setItem(`bavard.prompter.${name}`, JSON.stringify(value));
  seq = 0;
  answers = { "/prompter/feeds": { feeds: [OXBOW, SKEIN], answers: [] }, "/prompter/act": { deed: 9 } };
  serve(answers);
  await run("prompter/main.js");
}

function frame(values, whole = seq === 0) {
  seq += 1;
  socket().tell({ at: `b:${seq}`, whole, ...values });
}

eachOnAPage();
beforeEach(() => begin());
afterEach(() => page.window.localStorage.clear());

test("lines come in, change and are pulled where they stand", () => {
  frame({ lines: [line(1), line(2)] });
  frame({ lines: [line(2, { f: [["text", "better said"]] }), line(3)] });
  assert.deepEqual(rows(), [1, 2, 3]);
  assert.match(row(2).textContent, /better said/);
  frame({ states: { 3: "pulled" }, marks: { 1: ["answered"] } });
  assert.match(row(3).className, /pulled/);
  assert.match(row(1).textContent, /answered$/);
});

test("what was missed is taken in its order", () => {
  frame({ lines: [line(1)] });
  seq = 4;
  socket().tell({ at: "b:4", missed: [{ lines: [line(2)] }, { states: { 2: "pulled" }, lines: [line(3)] }] });
  assert.deepEqual(rows(), [1, 2, 3]);
  assert.match(row(2).className, /pulled/);
});

test("what a whole picture does not know any more is gone, and older lines stay", () => {
  frame({ lines: [line(1), line(2), line(3)] });
  row(3).click();
  frame({ from: 2, lines: [line(2, { s: "pulled" }), line(4)] }, true);
  assert.deepEqual([rows(), chosen()], [[1, 2, 4], []]);
  assert.match(row(2).className, /pulled/);
  frame({ lines: [line(3)] });
  assert.deepEqual(rows(), [1, 2, 4, 3]);
  frame({ from: 0, lines: [] }, true);
  assert.deepEqual(rows(), []);
});

test("what others do is said as they do it, what was done before or by oneself is not", () => {
  frame({ lines: [], deeds: [deed(1)] });
  assert.deepEqual(said(), []);
  frame({ deeds: [deed(2), deed(3, { by: "Odalys" }), deed(4, { undone: "Ann" })] });
  assert.deepEqual(said(), ["Teo pulled a line of Bo", "Ann took back: Teo pulled a line of Bo"]);
});

test("of many deeds at once only the newest are said", () => {
  frame({ lines: [] });
  frame({ deeds: [5, 6, 7, 8].map((id) => deed(id, { about: `p${id}` })) });
  assert.deepEqual(
    said(),
    ["p6", "p7", "p8"].map((name) => `Teo pulled a line of ${name}`),
  );
});

test("a line is chosen by keys, and each key does one thing with it", async () => {
  frame({ lines: [line(1), line(2)] });
  key("ArrowUp");
  assert.deepEqual(chosen(), [2]);
  key("ArrowUp");
  assert.deepEqual(chosen(), [1]);
  for (const name of ["x", "l", "n", "g", "a", "e", "h"]) key(name);
  await settled();
  assert.deepEqual(sent("/prompter/act"), [
    { do: "pull", line: 1 },
    { do: "leave_out", name: "bo", feed: 2 },
    { do: "pin", line: 1 },
    { do: "large", line: 1 },
    { do: "answered", line: 1, on: true },
    { do: "read", line: 1, on: true },
    { do: "shout_out", line: 1 },
  ]);
});

test("where a chat takes no answer, or none does, that is said", async () => {
  frame({ lines: [line(1, { fd: 3 }), line(2)] });
  await settled();
  key("ArrowUp");
  key("r");
  assert.equal(page.document.activeElement.id, "answer");
  key("ArrowUp");
  key("r");
  assert.match(said().at(-1), /^Skein takes no answers from here\. .*Feeds/);
  key("c");
  assert.equal(said().length, 1);
  answers["/prompter/feeds"] = { feeds: [SKEIN], answers: [] };
  page.clock.pass(4000);
  await settled();
  key("c");
  assert.match(said().at(-1), /^No chat takes answers from here/);
});

test("what is pinned or large is unpinned and taken off by the same keys", async () => {
  frame({ lines: [line(1)], pins: [line(1)], large: 1 });
  key("ArrowUp");
  key("n");
  key("g");
  await settled();
  assert.deepEqual(sent("/prompter/act"), [
    { do: "unpin", line: 1 },
    { do: "small", line: 1 },
  ]);
});

test("a line that is off can be let go, and not be pulled", async () => {
  frame({ lines: [line(1, { s: "off" })] });
  key("ArrowDown");
  key("x");
  key("v");
  await settled();
  assert.deepEqual(sent("/prompter/act"), [{ do: "let_go", line: 1 }]);
});

test("the newest deed that can be is taken back by key", async () => {
  frame({ lines: [], deeds: [deed(1), deed(2, { undone: "Ann" }), deed(3, { back: false })] });
  key("z");
  await settled();
  assert.deepEqual(sent("/prompter/act"), [{ do: "undo", deed: 1 }]);
});

test("own cues are played by their keys", async () => {
  frame({ lines: [], cues: { playing: null, waiting: [], paused: false, approve: false, own: [{ id: "gong", name: "Gong" }] } });
  key("5");
  key("6");
  await settled();
  assert.deepEqual(sent("/prompter/act"), [{ do: "cue_own", text: "gong" }]);
  assert.deepEqual(said(), ["“Gong” plays."]);
});

test("a prompter for reading has no key that does anything", async () => {
  await begin({ acts: false, role: "viewer" });
  frame({ lines: [line(1)] });
  key("ArrowUp");
  for (const name of ["x", "v", "l", "n", "g", "a", "e", "r", "h", "z", "c", "5"]) key(name);
  await settled();
  assert.deepEqual([chosen(), sent("/prompter/act"), said()], [[1], [], []]);
  assert.equal(find("#answering").hidden, true);
});

test("one jumps to what one looks for, and is told where there is none", () => {
  frame({ lines: [line(1, { at: ["question"] }), line(2)] });
  key("2");
  assert.deepEqual(chosen(), [1]);
  key("1");
  assert.deepEqual(said(), ["There is none among the lines that are here."]);
  assert.deepEqual(
    all(".jump kbd").map((one) => one.textContent),
    ["1", "2", "3", "4"],
  );
});

test("chats are chosen; all of them is no choice, so that a new one is seen", async () => {
  frame({ lines: [line(1), line(2, { fd: 3 })] });
  const tick = (name, on) => {
    const box = called(`Show ${name}`);
    box.checked = on;
    box.dispatchEvent(new globalThis.Event("change"));
  };
  tick("Skein", false);
  assert.deepEqual(rows(), [1]);
  assert.deepEqual(JSON.parse(page.window.localStorage.getItem("bavard.prompter.look")).feeds, [2]);
  tick("Skein", true);
  assert.deepEqual(rows(), [1, 2]);
  assert.equal(JSON.parse(page.window.localStorage.getItem("bavard.prompter.look")).feeds, null);
});

test("chats are asked for now and then, and drawn anew only where they changed", async () => {
  const box = called("Show Oxbow");
  page.clock.pass(4000);
  await settled();
  assert.equal(called("Show Oxbow"), box);
  answers["/prompter/feeds"] = { feeds: [OXBOW], answers: [] };
  page.clock.pass(4000);
  await settled();
  assert.deepEqual(
    all("#feed-choice input").map((one) => one.value),
    ["2"],
  );
});

test("how it looks is set, and kept in this browser", async () => {
  frame({ lines: [line(1), line(2, { s: "off" })] });
  type(called("Text"), "26");
  type(called("Lines"), "true");
  type(called("Time"), "none");
  type(called("What was kept off"), "false");
  const { body } = page.document;
  assert.deepEqual(
    [body.style.getPropertyValue("--size"), body.classList.contains("dense"), body.classList.contains("timeless"), rows()],
    ["26px", true, true, [1]],
  );
  const look = JSON.parse(page.window.localStorage.getItem("bavard.prompter.look"));
  assert.deepEqual([look.size, look.dense, look.time, look.off], [26, true, "none", false]);
});

test("what was kept of its look counts from the beginning", async () => {
  await begin({}, { look: { size: 34, off: false, feeds: [2] } });
  frame({ lines: [line(1), line(2, { s: "off" }), line(3, { fd: 3 })] });
  assert.deepEqual([page.document.body.style.getPropertyValue("--size"), rows(), called("Text").value], ["34px", [1], "34"]);
  assert.deepEqual([called("Show Oxbow").checked, called("Show Skein").checked], [true, false]);
});

async function look(text, person) {
  find("#jumps").open = true;
  find("#find").value = text;
  find("#find-person").value = person;
  find("#find-form").dispatchEvent(new globalThis.Event("submit", { cancelable: true }));
  await settled();
}

test("lines are found by their words, people by their names", async () => {
  answers["/prompter/find"] = { lines: [line(7)] };
  answers["/prompter/people"] = { people: [] };
  await look("wing", " bo ");
  assert.deepEqual(
    [page.asked.at(-1)[0], find("#side-title").textContent, find("#jumps").open],
    ["/prompter/find?text=wing&person=bo", "Lines with “wing”", false],
  );
  await look("  ", "bo");
  assert.deepEqual([page.asked.at(-1)[0], find("#side-title").textContent], ["/prompter/people?name=bo", "Called “bo”"]);
});

test("what is pulled while it waits to be said is not said", async () => {
  await begin({}, { speech: { which: "all" } });
  const texts = [];
  globalThis.Audio = class extends EventTarget {
    constructor(address) {
      super();
      texts.push(address);
    }
    pause() {}
    async play() {}
  };
  answers["/prompter/say"] = (_, path) => ({ text: path });
  frame({ lines: [] });
  frame({ lines: [line(1), line(2)] });
  await settled();
  frame({ states: { 2: "pulled" } });
  find("#speech-skip").click();
  await settled();
  assert.deepEqual(texts, ["/prompter/say/1/wav"]);
});

test("the way to the stations is there for whoever is signed in, links for whoever may give them", async () => {
  const more = () => all("#more-sheet > a, #more-sheet > button:not([hidden])").map((one) => one.textContent.trim());
  assert.deepEqual(more(), ["To the stations", "What was done", "Prompters without signing in", "Keys"]);
  await begin({ role: "moderator", signed_in: false });
  assert.deepEqual(more(), ["What was done", "Keys"]);
});

test("menus close once something in them was pressed", () => {
  const menu = find("#more-sheet").closest("details");
  menu.setAttribute("open", "");
  pressable("Keys").click();
  assert.equal(menu.hasAttribute("open"), false);
});

test("a line that is asked for by its address is traced", async () => {
  await begin({ path: "/prompter/?line=12" });
  assert.deepEqual(
    page.asked.map(([path]) => path).filter((path) => path.startsWith("/prompter/trace")),
    ["/prompter/trace/12"],
  );
});

test("that older lines cannot be read is said once, and they are asked for again after a while", async () => {
  frame({ lines: [line(9)] });
  const older = () => sent("/prompter/lines?before=9").length;
  const scroll = async () => {
    find("#scroller").dispatchEvent(new page.window.Event("scroll"));
    await settled();
  };
  answers["/prompter/lines"] = { error: "The database does not answer just now." };
  for (let time = 0; time < 3; time += 1) await scroll();
  assert.deepEqual([older(), said()], [1, ["The database does not answer just now."]]);
  page.clock.pass(15_100);
  answers["/prompter/lines"] = { lines: [line(8)] };
  await scroll();
  assert.deepEqual([older(), rows()], [2, [8, 9]]);
});
