import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page, serve } from "../support/page.js";
import { Edit } from "../../../assets/js/gate/edit.js";
import { LadderList } from "../../../assets/js/gate/ladder.js";

const ROLES = [
  ["viewer", "Viewer"],
  ["host", "Host"],
];
const KINDS = [
  {
    key: "links",
    label: "Links",
    icon: "link",
    blank: { id: "links", kind: "links", on: true },
    fields: [
      { name: "on", kind: "switch", label: "In force", default: true },
      {
        name: "action",
        kind: "choice",
        label: "What it does",
        default: "hold",
        choices: [
          ["hold", "Hold"],
          ["drop", "Drop"],
        ],
      },
      { name: "roles", kind: "some", label: "For", default: [], choices: ROLES },
      { name: "feeds", kind: "some", label: "On feeds", default: [], choices: null },
      { name: "sites", kind: "lines", label: "Sites that may be shown", default: "", max: 400 },
      { name: "names", kind: "switch", label: "In names as well", default: true },
      { name: "percent", kind: "number", label: "From so many", default: 30, min: 1, max: 100 },
    ],
  },
];
const rule = (id, more = {}) => ({
  id,
  kind: "links",
  on: true,
  action: "hold",
  roles: [],
  feeds: [],
  sites: "",
  names: true,
  percent: 30,
  words_of: "links",
  ...more,
});
const state = (...rules) => ({ set: "Calm day", version: "v1", kinds: KINDS, rules });

eachOnAPage({ html: '<main data-feeds=\'[{"id":"4","name":"Oxbow"}]\'><ol id="ladder"></ol><div id="messages"></div></main>' });

let edit;
const turn = () => new Promise((done) => setImmediate(done));

beforeEach(() => {
  serve({ "/gate/check": ({ rules }) => ({ rules: rules.map((one) => ({ words_of: "checked", ...one })) }) });
  edit = new Edit(state(rule("links"), rule("links2")));
});

test("nothing is sent of rules that were not changed", () => {
  assert.deepEqual([edit.changed, edit.sent], [false, {}]);
});

test("a change is checked by the server before it counts here", async () => {
  await edit.set("links", { action: "drop" });
  assert.equal(edit.changed, true);
  assert.equal(edit.sent.rules[0].action, "drop");
  edit.undo();
  assert.deepEqual([edit.changed, edit.rules[0].action], [false, "hold"]);
});

test("what is changed while a change is being checked loses nothing, and waits for it", async () => {
  const answers = [];
  globalThis.fetch = (path, options) =>
    new Promise((done) => {
      page.asked.push([path, JSON.parse(options.body)]);
      answers.push(() => done({ ok: true, json: async () => JSON.parse(options.body) }));
    });
  edit.set("links", { action: "drop" });
  edit.set("links", { names: false });
  edit.move("links2", -1);
  for (let at = 0; at < 3; at += 1) {
    await turn();
    assert.equal(page.asked.length, at + 1);
    answers[at]();
  }
  await edit.settled();
  assert.deepEqual(
    edit.rules.map((one) => [one.id, one.action, one.names]),
    [
      ["links2", "hold", true],
      ["links", "drop", false],
    ],
  );
});

test("what is undone does not come back with an answer that was under way", async () => {
  let answer;
  globalThis.fetch = (_path, options) =>
    new Promise((done) => {
      answer = () => done({ ok: true, json: async () => JSON.parse(options.body) });
    });
  edit.set("links", { action: "drop" });
  edit.set("links", { names: false });
  await turn();
  edit.undo();
  answer();
  await edit.settled();
  assert.deepEqual([edit.changed, edit.rules[0].action, edit.rules[0].names], [false, "hold", true]);
});

test("a change that is being checked outlives what somebody else kept meanwhile", async () => {
  const changing = edit.set("links", { action: "drop" });
  edit.rebase({ ...state(rule("links"), rule("links2")), version: "v2" });
  await changing;
  assert.deepEqual([edit.changed, edit.rules[0].action], [true, "drop"]);
});

test("what is refused is told to whoever asked, and those behind it go on", async () => {
  serve({ "/gate/check": ({ rules }) => (rules[0].percent > 100 ? { error: "Too many." } : { rules }) });
  await assert.rejects(edit.set("links", { percent: 900 }), /Too many/);
  await edit.set("links", { percent: 40 });
  assert.equal(edit.rules[0].percent, 40);
});

test("rules are moved, taken away and added, and stay where they cannot go further", async () => {
  await edit.move("links2", -1);
  assert.deepEqual(
    edit.rules.map((one) => one.id),
    ["links2", "links"],
  );
  const asked = page.asked.length;
  await edit.move("links2", -1);
  assert.equal(page.asked.length, asked);
  await edit.remove("links");
  await edit.add("links");
  assert.deepEqual(
    edit.rules.map((one) => one.id),
    ["links2", undefined],
  );
});

test("what somebody else kept meanwhile is what an edit is compared with from then on", async () => {
  await edit.set("links", { action: "drop" });
  edit.rebase({ ...state(rule("links", { sites: "reedmere.example" })), version: "v2" });
  assert.deepEqual([edit.changed, edit.rules[0].action, edit.state.version], [true, "drop", "v2"]);
  edit.undo();
  assert.equal(edit.rules[0].sites, "reedmere.example");
});

function ladder() {
  const list = new LadderList(page.document.querySelector("#ladder"), edit);
  list.toggle("links");
  return list;
}

test("each choice is drawn with its word, and sent as what it stands for", async () => {
  ladder();
  const labels = [...page.document.querySelectorAll(".rule.open .some label")].map((label) => label.textContent);
  assert.deepEqual(labels, ["Viewer", "Host", "Oxbow"]);
  const box = page.document.querySelector(".rule.open .some input[value=host]");
  box.checked = true;
  box.dispatchEvent(new page.window.Event("change"));
  await turn();
  assert.deepEqual(edit.rules[0].roles, ["host"]);
});

test("what a rule does is chosen in words", () => {
  ladder();
  const options = [...page.document.querySelectorAll(".rule.open select[name=action] option")].map((one) => [one.value, one.textContent]);
  assert.deepEqual(options, [
    ["hold", "Hold"],
    ["drop", "Drop"],
  ]);
});

test("only lists have the buttons of lists", () => {
  ladder();
  const tools = [...page.document.querySelectorAll(".list-tools")].map((one) => one.closest(".row").querySelector("[name]").name);
  assert.deepEqual(tools, ["sites"]);
});

test("what rules did in the last hour is told where it changed nothing else", () => {
  const list = ladder();
  list.tellCounts({ links: { hour: 10, last: 1000 } }, 61_000);
  assert.equal(page.document.querySelector("[data-did=links] small").textContent, "10 this hour");
  assert.equal(page.document.querySelector("[data-did=links] i").style.width, "25%");
  assert.match(page.document.querySelector(".rule-last").textContent, /1 min ago/);
  list.tellCounts({});
  assert.equal(page.document.querySelector(".rule-last").textContent, "Has not mattered since the log begins");
});

test("Alt and an arrow moves a rule, Delete takes it away", async () => {
  ladder();
  const opener = page.document.querySelector("[data-key=open-links2]");
  opener.dispatchEvent(new page.window.KeyboardEvent("keydown", { key: "ArrowUp", altKey: true, bubbles: true }));
  await turn();
  assert.equal(edit.rules[0].id, "links2");
  page.document
    .querySelector("[data-key=open-links2]")
    .dispatchEvent(new page.window.KeyboardEvent("keydown", { key: "Delete", bubbles: true }));
  await turn();
  assert.deepEqual(
    edit.rules.map((one) => one.id),
    ["links"],
  );
});
