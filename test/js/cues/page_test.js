import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { CUE_FIELDS, MOTION } from "../support/cards.js";
import { all, called, eachOnAPage, find, key, page, pressable, run, said, serve, settled, stationOf, type } from "../support/page.js";

const cue = (id, more = {}) => ({
  id,
  name: `Cue ${id}`,
  kind: "tip",
  on: true,
  words: "{name} gave",
  length_s: 6,
  sound: null,
  volume: 80,
  ...more,
});
const PLACE = {
  kinds: [],
  box: [0, 0, 1920, 1080],
  stage: 4,
  name: "Dawn",
  backdrop: "dawn",
  style: {
    id: "alerts1",
    kind: "alerts",
    place: [400, 60, 900, 300],
    css: { "--text-size": "40px" },
    words: {},
    kinds: [],
    motion: MOTION,
  },
};
const card = ({ id, words }) => [id, { i: "sample", k: "tip", ms: 86_400_000, p: "above", s: 40, w: [["text", words]] }];
const sheet = (...cues) => ({
  places: [PLACE],
  plays: Object.fromEntries(cues.map(({ id }) => [id, 0])),
  cards: Object.fromEntries(cues.map(card)),
  scores: Object.fromEntries(cues.map(({ id }) => [id, [["words", 0, 6000]]])),
  sounds: {},
  cues,
  findings: [],
  narrowed: {},
  also: {},
  samples: { a: { kind: "tip", name: "bo", amount: "10", currency: "EUR" } },
  kinds: { tip: "a tip", raid: "a raid" },
  fields: CUE_FIELDS,
  queue: { approve: false },
  totals: { followers: 7 },
  told: { followers: [["Oxbow", 5]] },
});
const now = (more = {}) => ({ began: null, ended: null, paused: false, playing: null, waiting: [], recent: [], ...more });

let answers;
let heard;
const sent = (path) => page.asked.filter(([asked]) => asked === path).map(([, values]) => values);
const rows = () => all("#cues .cue-row").map((row) => row.dataset.cue);
const rowOf = (id) => find(`#cues [data-cue="${id}"]`);
const title = () => find("#edit-title")?.textContent ?? null;

// A form's fields without its buttons, as a browser gives them where none is named as what was pressed.
const FieldsOf = (FormData) =>
  class extends FormData {
    constructor(form) {
      super(form);
      for (const { name } of form.querySelectorAll("button[name]")) this.delete(name);
    }
  };

eachOnAPage();
beforeEach(async () => {
  stationOf("cues", {
    feeds: [],
    sounds: [
      ["", "none"],
      ["9", "Gong"],
    ],
    films: [["", "none"]],
    voices: [["en-gb", "English"]],
  });
  globalThis.FormData = FieldsOf(page.window.FormData);
  heard = [];
  globalThis.Audio = class {
    constructor(address) {
      this.address = address;
    }
    async play() {
      heard.push([this.address, this.volume]);
    }
  };
  answers = {
    "/dress/cues/sheet": sheet(cue("a", { sound: "9" }), cue("b", { on: false })),
    "/dress/cues/now": now(),
  };
  serve(answers);
  await run("cues/main.js");
});

test("nothing can be pressed before the sheet is there, everything after", async () => {
  assert.deepEqual(
    all("[data-waits]").filter((control) => control.disabled),
    [],
  );
  stationOf("cues", { feeds: [], sounds: [], films: [], voices: [] });
  serve({ "/dress/cues/sheet": { error: "Not now." }, "/dress/cues/now": now() });
  await run("cues/main.js");
  assert.equal(
    all("[data-waits]").every((control) => control.disabled),
    true,
  );
  assert.deepEqual(said(), ["Not now."]);
});

test("cues stand by their kind of event, and it is said where nothing plays", () => {
  assert.deepEqual(
    all("#cues > section").map((section) => [section.querySelector("h2").textContent, section.querySelectorAll(".cue-row").length]),
    [
      ["A tip", 2],
      ["A raid", 0],
    ],
  );
  assert.equal(all("#cues > section")[1].querySelector(".cue-none").textContent, "Nothing plays for these.");
  assert.deepEqual([rowOf("a").classList.contains("off"), rowOf("b").classList.contains("off")], [false, true]);
});

test("a row says what narrows it, what else it does and what is amiss, beside its picture", async () => {
  answers["/dress/cues/sheet"] = {
    ...sheet(cue("a")),
    narrowed: { a: "from 10 EUR" },
    also: { a: "12 emotes fly" },
    findings: [
      ["a", "no emotes are on a shelf", "emotes"],
      ["a", "12 of 30 fly", "ceiling"],
      ["z", "Another’s."],
    ],
  };
  stationOf("cues", { feeds: [], sounds: [], films: [], voices: [] });
  await run("cues/main.js");
  const words = [...rowOf("a").querySelectorAll(".cue-name b, .cue-name .said, .chip, .alert-words")].map((part) => part.textContent);
  assert.deepEqual(words, ["{name} gave", "Cue a", "from 10 EUR; 12 emotes fly", "no emotes are on a shelf", "12 of 30 fly"]);
  rowOf("a").click();
  const lines = all("#shown-lacks p");
  assert.deepEqual(
    lines.map((line) => line.querySelector("span").textContent),
    ["No emotes are on a shelf", "12 of 30 fly"],
  );
  assert.equal(lines[1].querySelector("a").getAttribute("href"), "/stage");
  answers["/dress/shelves/ours"] = { import: "i1" };
  answers["/dress/imports/i1"] = { state: "done", total: 8, done: 8, refused: [], words: "8 emotes are on the shelf" };
  answers["/dress/cues/sheet"] = sheet(cue("a"));
  lines[0].querySelector("button").click();
  await settled();
  page.clock.pass(450);
  await settled();
  assert.deepEqual([sent("/dress/shelves/ours").length, find("#shown-lacks").hidden], [1, true]);
});

test("a cue that is chosen is set at the side, and Escape gives the keys back to its row", () => {
  rowOf("b").click();
  assert.deepEqual([title(), rowOf("b").getAttribute("aria-pressed"), rowOf("a").getAttribute("aria-pressed")], ["Cue b", "true", "false"]);
  key("Escape");
  assert.deepEqual([title(), page.document.activeElement.dataset.cue], [null, "b"]);
});

test("where what a cue looks like stands below the window, choosing one leads there", async () => {
  await run("cues/main.js");
  const middle = find(".cue-middle");
  const led = [];
  middle.scrollIntoView = () => led.push(middle.getBoundingClientRect().top);
  for (const top of [window.innerHeight - 1, window.innerHeight]) {
    middle.getBoundingClientRect = () => ({ top });
    rowOf("a").click();
  }
  assert.deepEqual(led, [window.innerHeight]);
});

test("one that is added is chosen at once", async () => {
  answers["/dress/cues/cues"] = sheet(cue("a"), cue("new", { kind: "raid", name: "Raid" }));
  called("Another cue for a raid").click();
  await settled();
  assert.deepEqual([sent("/dress/cues/cues"), title(), rows()], [[{ kind: "raid" }], "Raid", ["a", "new"]]);
});

test("where adding is refused the sheet stays as it was", async () => {
  answers["/dress/cues/cues"] = { error: "That is as many as fit." };
  called("Another cue for a tip").click();
  await settled();
  assert.deepEqual([said(), rows(), title()], [["That is as many as fit."], ["a", "b"], "Cue a"]);
});

test("one that is taken off can be put back", async () => {
  answers["/dress/cues/cues/a/remove"] = sheet(cue("b"));
  answers["/dress/cues/put-back"] = sheet(cue("a"), cue("b"));
  rowOf("a").click();
  called("Take this cue off the sheet").click();
  await settled();
  assert.deepEqual([rows(), title()], [["b"], null]);
  assert.match(said()[0], /^“Cue a” is off the sheet\./);
  pressable("Undo").click();
  await settled();
  assert.deepEqual([rows(), sent("/dress/cues/put-back")[0].id], [["a", "b"], "a"]);
});

test("what is told anew leaves the keys where they are", () => {
  rowOf("b").focus();
  rowOf("b").click();
  assert.equal(page.document.activeElement.dataset.cue, "b");
});

async function tryIt(where = "draft") {
  find("#try").requestSubmit(find(`#try [value=${where}]`));
  await settled();
}

test("an event that is tried in the drafts is heard here, on the screens it is not", async () => {
  answers["/dress/cues/try"] = { cue: "Cue a", ties: [], passed: [] };
  await tryIt();
  assert.deepEqual([find("#tried").textContent, heard], ["Plays “Cue a”.", [["/sounds/9.ogg", 0.8]]]);
  await tryIt("screens");
  assert.equal(heard.length, 1);
  assert.deepEqual(
    sent("/dress/cues/try").map(({ where }) => where),
    ["draft", "screens"],
  );
});

test("why something else plays, or nothing, is said", async () => {
  answers["/dress/cues/try"] = { cue: null, ties: [], passed: ["Cue b is off"] };
  await tryIt();
  assert.deepEqual([find("#tried").textContent, heard], ["Nothing plays for that. Cue b is off.", []]);
  answers["/dress/cues/try"] = { cue: "Cue b", ties: ["Cue c", "Cue d"], passed: [] };
  await tryIt();
  assert.equal(find("#tried").textContent, "Plays “Cue b”. “Cue c”, “Cue d” fit as well, and stand behind it.");
});

test("why nothing is heard is said: this browser plays no sound yet, or there is none to play", async () => {
  answers["/dress/cues/try"] = { cue: "Cue a", ties: [], passed: [] };
  for (const name of ["NotAllowedError", "NotSupportedError"]) {
    globalThis.Audio.prototype.play = async () => {
      throw Object.assign(new Error("no"), { name });
    };
    await tryIt();
  }
  assert.deepEqual(said(), [
    "This browser plays no sound before something was pressed.",
    "That cannot be heard just now. Try again in a moment.",
  ]);
});

test("a cue is tried by itself with an event that fits it, once", async () => {
  answers["/dress/cues/try"] = { cue: "Cue a", ties: [], passed: [] };
  rowOf("a").click();
  pressable("In the drafts").click();
  await settled();
  await tryIt();
  assert.deepEqual(
    sent("/dress/cues/try").map(({ cue: only, amount }) => [only, amount]),
    [
      ["a", "10"],
      [undefined, "10"],
    ],
  );
});

test("what is chosen stands large over the stage that plays it, with its score, and is played there alone", async () => {
  assert.deepEqual([title(), find("#seen .alert-words").textContent, all(".score-bar").length], ["Cue a", "{name} gave", 1]);
  assert.deepEqual([find("#shown-stage").textContent, find("#shown-stage").getAttribute("href")], ["On Dawn", "/stage/4#alerts1"]);
  const before = page.asked.length;
  pressable("Try it").click();
  assert.deepEqual([all("#seen .alert").length > 0, page.asked.length], [true, before]);
  key("Escape");
  assert.equal(find("#shown").hidden, true);
});

test("somebody else is thrown by dice, shown and tried; when it plays is said where one asks", async () => {
  answers["/dress/cues/cues/a/another"] = {
    sample: { kind: "tip", name: "kai", amount: "70", currency: "EUR", message: "hi" },
    card: { i: "sample", k: "tip", ms: 86_400_000, p: "above", s: 40, w: [["name", "kai gave"]] },
  };
  answers["/dress/cues/cues/a/about"] = { kind: "tips", narrowed: "amount from 50", times: 2, of: 9, instead: "Tips" };
  answers["/dress/cues/try"] = { cue: "Cue a", ties: [], passed: [] };
  pressable("Another").click();
  await settled();
  assert.deepEqual([find("#seen .alert-words").textContent, find(".score-as").textContent], ["kai gave", "as kai · 70 EUR · “hi”"]);
  pressable("In the drafts").click();
  await settled();
  assert.deepEqual([sent("/dress/cues/try").at(-1).name, sent("/dress/cues/try").at(-1).message], ["kai", "hi"]);
  called("When it plays").click();
  await settled();
  assert.equal(find("#shown-why").textContent, "For tips, amount from 50. Of the last 9 events 2 played it. Without it “Tips” would play.");
  rowOf("b").click();
  assert.equal(find("#shown-why").hidden, true);
});

test("totals go on from what is typed, beside what platforms tell", async () => {
  assert.equal(find(".cue-told").textContent, "Oxbow tells 5");
  answers["/dress/cues/totals"] = { totals: { followers: 120 }, told: {} };
  type(called("followers in all"), "120");
  await settled();
  assert.deepEqual([sent("/dress/cues/totals"), said()], [[{ counted: "followers", number: "120" }], ["Followers go on from 120."]]);
  assert.deepEqual([called("followers in all").value, find(".cue-told")], ["120", null]);
});

test("the queue is looked at now and then, and paused and skipped by key", async () => {
  answers["/dress/cues/now"] = now({ playing: { words: "Bo gave 10" } });
  page.clock.pass(1500);
  await settled();
  assert.match(find("#queue").textContent, /Bo gave 10/);
  key("s");
  key("p");
  await settled();
  assert.deepEqual([sent("/dress/cues/now/skip").length, sent("/dress/cues/now/pause").length], [1, 1]);
});
