import assert from "node:assert/strict";
import { test } from "node:test";
import { all, eachOnAPage, find, hide, key, page, pressable, said, settled } from "../support/page.js";
import { follow } from "../../../assets/js/house/desk.js";
import { dropping } from "../../../assets/js/house/dropping.js";
import { keys } from "../../../assets/js/house/keys.js";
import { listTools } from "../../../assets/js/gate/list_tools.js";

const ROOMS = ["feeds", "air"].map((name) => `<i data-room="${name}">0</i>`).join("");
const FIGURES = ["feeds", "gate", "dress", "stage", "air"].map((name) => `<b data-figure="${name}"></b>`).join("");
eachOnAPage({
  html: `${ROOMS}${FIGURES}<span id="on-air"><b>Off air</b></span><i class="wire"></i><div id="messages"></div><div id="drop-here" hidden></div>
    <button id="opens"></button><input type="file" id="files"><textarea id="typing"></textarea>
    <dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog>`,
});

const told = {
  in: 40,
  off: 3,
  aired: 1234,
  feeds: 2,
  live: 2,
  trouble: 0,
  waiting: 0,
  screens: 1,
  emotes: 1,
  held: 0,
  brake: false,
  on_air: true,
};
function desk() {
  const reports = [];
  follow((frame, lines) => reports.push([frame, lines]));
  const socket = page.sockets.at(-1);
  socket.open();
  let number = 0;
  const tell = (more = {}, frame = {}) => {
    number += 1;
    socket.tell({ at: `a:${number}`, whole: number === 1, figures: { ...told, ...more }, ...frame });
  };
  return { socket, reports, tell };
}
const figure = (name) => find(`[data-figure=${name}]`).textContent;
const troubled = (name) => find(`[data-figure=${name}]`).classList.contains("trouble");

test("the signal line says how each station is, and what is in trouble before what is well", () => {
  const { tell } = desk();
  tell();
  assert.deepEqual(["feeds", "gate", "dress", "stage", "air"].map(figure), [
    "40 in · 2 live",
    "3 kept off",
    "1 emote",
    "nothing waiting",
    "1 screen · 1234 on air",
  ]);
  assert.deepEqual(
    all("[data-room]").map((room) => room.textContent),
    ["2", "1"],
  );
  tell({ took: 41 });
  assert.deepEqual(
    [figure("air"), find("[data-figure=air]").title],
    ["1 screen · 1234 on air · 41 ms", "Counted over the last hour; from keyboard to screen in 41 ms"],
  );
  tell({ took: null });
  assert.equal(figure("air"), "1 screen · 1234 on air");
  tell({ trouble: 1, held: 4, brake: true, emotes: 0, waiting: 2 });
  assert.deepEqual(["feeds", "gate", "dress", "stage"].map(figure), ["1 in trouble", "brake is on", "no emotes yet", "2 waiting"]);
  assert.deepEqual(["feeds", "gate"].map(troubled), [true, true]);
  tell({ feeds: 0, held: 4, trouble: 0 });
  assert.deepEqual([figure("feeds"), figure("gate"), troubled("feeds")], ["none yet", "4 held, 3 off", false]);
});

test("the lamp is lit on air alone", () => {
  const { tell } = desk();
  tell();
  assert.deepEqual([find("#on-air").classList.contains("lit"), find("#on-air").textContent], [true, "On air"]);
  tell({ on_air: false });
  assert.deepEqual([find("#on-air").classList.contains("lit"), find("#on-air").textContent], [false, "Off air"]);
});

test("a trouble stands for as long as it lasts, or until it was read, and again when it comes back", () => {
  const { tell } = desk();
  const trouble = "The disk is full.";
  for (let times = 0; times < 4; times += 1) {
    tell({}, { trouble });
    page.clock.pass(4000);
  }
  assert.deepEqual(said(), [trouble]);
  tell({}, { trouble: "The database is away." });
  assert.deepEqual(said(), ["The database is away."]);
  find("#messages button").click();
  tell({}, { trouble: "The database is away." });
  assert.deepEqual(said(), []);
  tell({}, { trouble: null });
  tell({}, { trouble });
  assert.deepEqual(said(), [trouble]);
  tell({}, {});
  assert.deepEqual(said(), []);
});

test("lines run along the wires, four at a time, and none that nobody would see", () => {
  const { tell } = desk();
  for (let n = 0; n < 9; n += 1) tell({}, { lines: [{}] });
  assert.equal(all(".wire i").length, 4);
  page.clock.pass(1200);
  assert.equal(all(".wire i").length, 0);
  hide(true);
  tell({}, { lines: [{}] });
  tell({}, { lines: [] });
  assert.equal(all(".wire i").length, 0);
});

test("after a gap the page has every line that came in it, and the figures of now alone", () => {
  const { socket, reports, tell } = desk();
  tell();
  const missed = [
    { figures: { ...told, in: 41 }, lines: ["a"] },
    { figures: { ...told, in: 42 }, lines: ["b"], edited: ["e"] },
  ];
  socket.tell({ at: "a:3", missed });
  socket.tell({ at: "a:4", missed: [] });
  socket.tell({ at: "a:5" });
  assert.deepEqual([figure("feeds"), reports.length], ["42 in · 2 live", 2]);
  assert.deepEqual([reports[1][1], reports[1][0].edited], [["a", "b"], ["e"]]);
});

const drag = (name, more = {}) =>
  page.window.dispatchEvent(
    Object.assign(new globalThis.Event(name, { cancelable: true }), { dataTransfer: { types: ["Files"], files: ["one"] }, ...more }),
  );

test("files that are dragged over the page are taken, words that are dragged are not", () => {
  const taken = [];
  dropping((files) => taken.push(files), { opener: find("#opens"), input: find("#files") });
  drag("dragover", { dataTransfer: { types: ["text/plain"], files: [] } });
  drag("drop", { dataTransfer: { types: ["text/plain"], files: [] } });
  assert.deepEqual([find("#drop-here").hidden, taken], [true, []]);
  drag("dragover");
  assert.equal(find("#drop-here").hidden, false);
  drag("dragleave", { relatedTarget: page.document.body });
  assert.equal(find("#drop-here").hidden, false);
  drag("dragleave", { relatedTarget: null });
  assert.equal(find("#drop-here").hidden, true);
  drag("drop");
  assert.deepEqual([find("#drop-here").hidden, taken], [true, [["one"]]]);
});

test("files that are chosen go to the shelf that asked, and the button asks for none", () => {
  const taken = [];
  dropping((files, shelf) => taken.push([files.length, shelf]), { opener: find("#opens"), input: find("#files") });
  const input = find("#files");
  Object.defineProperty(input, "files", { configurable: true, value: [new page.window.File(["x"], "a.png")] });
  input.dataset.shelf = "7";
  input.dispatchEvent(new globalThis.Event("change"));
  find("#opens").click();
  input.dispatchEvent(new globalThis.Event("change"));
  Object.defineProperty(input, "files", { configurable: true, value: [] });
  input.dispatchEvent(new globalThis.Event("change"));
  assert.deepEqual(taken, [
    [1, "7"],
    [1, undefined],
  ]);
});

test("keys act and explain themselves, but never while somebody types or a sheet is open", () => {
  const done = [];
  keys({
    t: ["Try a line", () => done.push("t")],
    "Ctrl z": ["Undo", () => done.push("undo")],
    "Shift Enter": ["Go", () => done.push("go")],
  });
  assert.deepEqual(
    all("#keys-list dt, #keys-list dd").map((one) => one.textContent),
    ["?", "Show these keys", "t", "Try a line", "Ctrl z", "Undo", "Shift Enter", "Go"],
  );
  key("t");
  key("z", { ctrlKey: true });
  key("z", { metaKey: true });
  key("Enter", { shiftKey: true });
  key("q");
  key("t", { target: find("#typing") });
  assert.deepEqual(done, ["t", "undo", "undo", "go"]);
  key("?", { shiftKey: true });
  assert.equal(find("#keys").open, true);
  key("t");
  assert.equal(done.length, 4);
  find("#keys").close();
  find("#show-keys").click();
  assert.equal(find("#keys").open, true);
});

function tools(text = "owl") {
  const wanted = [];
  find("#messages").before(
    listTools(
      () => text,
      async (words) => wanted.push(words),
    ),
  );
  const bring = async (bytes = "x") => {
    const file = find(".list-tools input");
    Object.defineProperty(file, "files", { configurable: true, value: [new page.window.File([bytes], "list.csv")] });
    file.dispatchEvent(new globalThis.Event("change"));
    for (let turn = 0; turn < 5; turn += 1) await new Promise((done) => setImmediate(done));
  };
  return { wanted, bring };
}
const readable = (answer) => {
  globalThis.fetch = async (path, options) => {
    page.asked.push([path, options.body]);
    return { ok: answer.error === undefined, redirected: false, json: async () => answer, blob: async () => answer };
  };
};

test("a list that is brought adds what is new, each word once", async () => {
  readable({ text: "wren\nowl\n\nrail" });
  const { wanted, bring } = tools("owl\nbittern");
  await bring();
  assert.deepEqual([wanted, page.asked[0][0]], [["owl\nbittern\nwren\nrail"], "/gate/list/read"]);
});

test("a file that is no list is refused in words and changes nothing", async () => {
  readable({ error: "That is no list of words." });
  const { wanted, bring } = tools();
  await bring();
  assert.deepEqual([wanted, said()], [[], ["That is no list of words."]]);
});

test("a list is taken along in each format by its own name", async () => {
  const { prototype } = page.window.HTMLAnchorElement;
  const { click } = page.window.HTMLElement.prototype;
  readable({});
  tools("owl");
  const names = [];
  prototype.click = function take() {
    names.push([this.download, this.href]);
  };
  globalThis.URL.createObjectURL = () => "blob:here";
  globalThis.URL.revokeObjectURL = (address) => names.push(["gone", address]);
  for (const words of ["Text", "CSV", "JSON"]) pressable(words).click();
  await settled();
  // Other files of tests have the same elements.
  prototype.click = click;
  assert.deepEqual(names, [
    ["list.txt", "blob:here"],
    ["list.csv", "blob:here"],
    ["list.json", "blob:here"],
  ]);
  assert.deepEqual(page.asked[1], ["/gate/list/write/csv", new URLSearchParams({ text: "owl" })]);
  page.clock.pass(1000);
  assert.equal(names.filter(([name]) => name === "gone").length, 3);
});
