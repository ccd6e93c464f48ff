import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, key, page, pressable, run, said, serve, settled, stationOf } from "../support/page.js";

const KINDS = [
  { key: "links", label: "Links", icon: "link", blank: { id: "links", kind: "links", on: true, action: "hold" }, fields: [] },
  {
    key: "caps",
    label: "Capital letters",
    icon: "a-large-small",
    blank: { id: "caps", kind: "caps", on: true, action: "calm" },
    fields: [],
  },
];
const rule = (id, more = {}) => ({ id, kind: "links", on: true, action: "hold", words_of: "All links", ...more });
const state = (version, rules, more = {}) => ({
  set: "Calm day",
  version,
  kinds: KINDS,
  rules,
  hold: { ms: 4000, by_role: {}, leaves_after_ms: null },
  ...more,
});
const figures = { in: 40, off: 3, aired: 37, feeds: 1, live: 1, trouble: 0, waiting: 0, screens: 1, emotes: 0, held: 0, on_air: true };
const gate = (more = {}) => ({
  version: "v1",
  rules: {},
  sets: ["Calm day", "Big night"],
  in_force: 0,
  hold: { ms: 4000, by_role: {}, leaves_after_ms: null },
  brake: null,
  left_out: 0,
  held: 0,
  waits: 0,
  ...more,
});
let seq = 0;
function tell(more = {}, whole = seq === 0) {
  seq += 1;
  page.sockets.at(-1).tell({ at: `b:${seq}`, whole, now: 1_000_000, figures, gate: gate(more) });
}

let answers;
const rows = () => all("#ladder [data-rule]").map((row) => row.dataset.rule);
const error = () => (find("#gate-error").hidden ? null : find("#gate-error").textContent);
const sent = (path) => page.asked.filter(([asked]) => asked === path).map(([, values]) => values);
// Sets a rule aside with its switch: an edit.
async function flip(label = "Links in force") {
  const field = called(label);
  field.checked = !field.checked;
  field.dispatchEvent(new globalThis.Event("change"));
  await settled();
}

eachOnAPage();
beforeEach(async () => {
  seq = 0;
  const began = state("v1", [rule("links"), rule("caps", { kind: "caps", action: "calm" })]);
  stationOf("gate", { state: began, feeds: [{ id: "4", name: "Oxbow", mark: ["circle", "#5fb8d6"] }] });
  answers = {
    "/gate/left-out": { people: [] },
    "/gate/check": ({ rules }) => ({ rules: rules.map((one) => ({ words_of: "checked", ...one })) }),
    "/gate/replay": { id: 1, state: "stopped" },
    "/gate/keep": ({ rules }) => state("v2", rules),
    "/gate/state": () => state("v9", [rule("theirs")]),
    "/gate/brake": {},
  };
  serve(answers);
  await run("gate/main.js");
});

test("what the show tells stands on the page", () => {
  tell({ held: 3, waits: 1, rules: { links: { hour: 20, last: 880_000 } } });
  assert.deepEqual(
    ["#hour", "#off", "#in-force"].map((id) => find(id).textContent),
    ["Last hour: 40 in", "3 kept off", "3 lines held, 1 until somebody decides."],
  );
  const [links] = all("#ladder [data-did]");
  assert.deepEqual([links.querySelector("i").style.width, links.querySelector("small").textContent], ["50%", "20 this hour"]);
  tell({ held: 1 });
  assert.equal(find("#in-force").textContent, "1 line held.");
  tell();
  assert.equal(find("#in-force").textContent, "Nothing is held.");
  assert.deepEqual([find("#hold-range").value, find("#hold").value], ["4", "4 s"]);
});

test("a rule that is added is opened, and counts for nobody before it is kept", async () => {
  find(".add-rule").open = true;
  pressable("Capital letters").click();
  await settled();
  assert.deepEqual([find(".add-rule").open, rows().length, find("#edit-foot").hidden], [false, 3, false]);
  assert.equal(all("#ladder .rule.open").length, 1);
  assert.deepEqual(sent("/gate/keep"), []);
  find("#edit-undo").click();
  assert.deepEqual([rows(), find("#edit-foot").hidden], [["links", "caps"], true]);
});

test("an edit is kept once, against the version it began from, and says that it counts", async () => {
  await flip();
  find("#edit-keep").click();
  find("#edit-keep").click();
  await settled();
  const kept = sent("/gate/keep");
  assert.deepEqual([kept.length, kept[0].from, kept[0].rules[0].on], [1, "v1", false]);
  assert.deepEqual([said(), find("#edit-foot").hidden], [["Counts from now on."], true]);
});

test("where nothing was changed nothing is kept", async () => {
  find("#edit-keep").click();
  key("k");
  await settled();
  assert.deepEqual([sent("/gate/keep"), said()], [[], []]);
});

test("rules that somebody else changed are taken where nothing is being edited here", async () => {
  tell({ version: "v9" });
  await settled();
  assert.deepEqual([rows(), error()], [["theirs"], null]);
  tell({ version: "v9" });
  await settled();
  assert.equal(sent("/gate/state").length, 1);
});

test("an edit stays, with words, where somebody else changed the rules meanwhile; undoing it shows theirs", async () => {
  await flip();
  tell({ version: "v9" });
  await settled();
  assert.match(error(), /^Somebody changed the rules while you were editing\./);
  assert.deepEqual([rows(), called("Links in force").checked], [["links", "caps"], false]);
  tell({ version: "v9" });
  await settled();
  assert.equal(sent("/gate/state").length, 1);
  find("#edit-undo").click();
  assert.deepEqual([rows(), error()], [["theirs"], null]);
});

test("an edit that is refused as stale goes on against what is in force, and is kept by the next press", async () => {
  await flip();
  answers["/gate/keep"] = { error: "Somebody changed the rules meanwhile.", field: "rules" };
  find("#edit-keep").click();
  await settled();
  assert.deepEqual([error(), find("#edit-foot").hidden], ["Somebody changed the rules meanwhile.", false]);
  answers["/gate/keep"] = ({ rules }) => state("v10", rules);
  find("#edit-keep").click();
  await settled();
  assert.deepEqual(
    sent("/gate/keep").map(({ from }) => from),
    ["v1", "v9"],
  );
});

test("what was asked for before an edit was kept here does not come in its place", async () => {
  await flip();
  let late;
  answers["/gate/state"] = new Promise((answer) => {
    late = answer;
  });
  tell({ version: "v9" });
  answers["/gate/keep"] = ({ rules }) => state("v10", rules);
  find("#edit-keep").click();
  await settled();
  late(state("v9", []));
  await settled();
  assert.deepEqual([rows(), called("Links in force").checked, error()], [["links", "caps"], false, null]);
  answers["/gate/state"] = state("v11", []);
  tell({ version: "v11" });
  await settled();
  assert.deepEqual(rows(), []);
});

test("what else is refused says so and asks for nothing", async () => {
  await flip();
  answers["/gate/keep"] = { error: "That is more rules than fit." };
  find("#edit-keep").click();
  await settled();
  assert.deepEqual([error(), sent("/gate/state")], ["That is more rules than fit.", []]);
});

test("how long lines are held is not taken from the show while rules are edited", async () => {
  await flip();
  tell({ hold: { ms: 9000, by_role: {}, leaves_after_ms: null } });
  assert.equal(find("#hold").value, "4 s");
  find("#edit-undo").click();
  tell({ hold: { ms: 9000, by_role: {}, leaves_after_ms: null } });
  assert.equal(find("#hold").value, "9 s");
});

test("keys: a line is tried, the brake is pulled and taken off at once", async () => {
  key("t");
  assert.equal(page.document.activeElement.id, "trial-text");
  page.document.activeElement.blur();
  for (const name of ["h", "o", "b"]) key(name);
  await settled();
  assert.deepEqual(sent("/gate/brake"), [{ kind: "hold_all", minutes: "" }, { kind: "off_picture", minutes: "" }, { kind: "off" }]);
});

test("a brake stands there with whose it is and how long it lasts, in the place of the menu", () => {
  const shown = () => [
    find("#brake-on").hidden,
    find("#brake-row").hidden,
    find("#brake-words").textContent,
    find("#brake-left").textContent,
  ];
  tell({ brake: { kind: "slow", per_minute: 20, by: "Teo", left: 61_000 } });
  assert.deepEqual(shown(), [false, true, "At most 20 lines a minute", "By Teo; ends by itself in 1 min."]);
  tell({ brake: { kind: "roles_only", roles: ["hosts", "moderators"], by: null, left: null } });
  assert.deepEqual(shown(), [false, true, "Only lines by hosts, moderators", "By somebody; until it is taken off."]);
  tell({ brake: { kind: "off_picture", words: "Chat is off the picture", by: "Teo", left: null } });
  assert.equal(find("#brake-words").textContent, "Chat is off the picture");
  tell();
  assert.deepEqual(shown().slice(0, 2), [true, false]);
});

test("who is left out is read anew when somebody changed it", async () => {
  answers["/gate/left-out"] = {
    people: [
      { name: "bo", feed: 4, until: null },
      { name: "al", feed: null, until: null },
    ],
  };
  tell({ left_out: 2 });
  await settled();
  tell({ left_out: 2 });
  await settled();
  assert.equal(sent("/gate/left-out").length, 2);
  assert.equal(find("#left-out-count").textContent, "2 people");
  assert.deepEqual(
    all("#left-out-list li").map((row) => row.querySelector(".said").textContent),
    ["everywhere", "on Oxbow"],
  );
  called("Take bo back").click();
  await settled();
  assert.deepEqual(sent("/gate/left-out/back"), [{ name: "bo", feed: "4" }]);
});

test("another set is used in one press, by its name", async () => {
  answers["/gate/use"] = () => state("v3", [rule("caps", { kind: "caps" })], { set: "Big night" });
  tell();
  const [, other] = all("#sets input");
  other.dispatchEvent(new globalThis.Event("change"));
  await settled();
  assert.deepEqual([sent("/gate/use"), rows()], [[{ set: "1", name: "Big night" }], ["caps"]]);
});
