import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, run, said, serve, settled, type } from "../support/page.js";

const WORDS = { face: "Face", silent: "Silent", talking: "Talking" };
const TEO = {
  id: 7,
  key: "teo",
  name: "Teo Marsh",
  short: null,
  colour: null,
  there: true,
  host: false,
  missing: ["talking"],
  pictures: { face: "abc" },
};
const ANN = { id: 8, key: "ann", name: "Ann", short: "A", colour: "#ff0000", there: false, host: true, missing: [], pictures: {} };

eachOnAPage({
  html: `<span id="on-air"><b></b></span><main data-pictures='${JSON.stringify(WORDS)}'></main><p id="summary"></p><section id="cast"></section>
    <section id="empty" hidden></section><button id="add-open"></button><input id="add-files" type="file"><div id="drop-here" hidden></div>
    <dialog id="picture-sheet"><form id="picture-form"><h2 id="picture-title"></h2><input id="picture-file" type="file" name="file">
    <input id="picture-address" name="address"><p id="picture-error" hidden></p><button type="button" id="picture-off"></button>
    <button type="button" id="picture-close"></button></form></dialog>
    <dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog><div id="messages"></div>`,
});

const told = (...members) => ({ members });
const sheet = () => find("#picture-sheet");
// A form's values as the server would get them.
const sent = () => page.asked.map(([path, body]) => [path, body instanceof FormData ? [...body.keys()] : body]);

function answer(answers) {
  globalThis.fetch = async (path, options = {}) => {
    page.asked.push([path, options.body instanceof URLSearchParams ? Object.fromEntries(options.body) : options.body]);
    const value = answers[path];
    return { ok: value?.error === undefined, json: async () => value };
  };
}

beforeEach(async () => {
  page.window.HTMLDialogElement.prototype.showModal = function open() {
    this.open = true;
  };
  page.window.HTMLDialogElement.prototype.close = function close() {
    this.open = false;
  };
  globalThis.FormData = page.window.FormData;
  serve({ "/dress/cast": told(TEO, ANN) });
  await run("cast/main.js");
});

test("everybody stands there with what is known and what is missing", () => {
  assert.equal(find("#summary").textContent, "2 people, 1 in a room now");
  assert.deepEqual(
    all(".cast-row").map((row) => [row.dataset.member, ...[...row.querySelectorAll(".chip")].map((chip) => chip.textContent)]),
    [
      ["teo", "in the room", "no picture for talking"],
      ["ann", "not there"],
    ],
  );
  assert.deepEqual(
    [called("Short name of Ann").value, called("Colour of Ann").value, called("Colour of Teo Marsh").value],
    ["A", "#ff0000", "#8899a6"],
  );
  assert.equal(called("Face of Teo Marsh").querySelector("img").getAttribute("src"), "/pictures/abc-2.webp");
  assert.equal(called("Face of Ann").querySelector("img"), null);
});

test("what is set is kept, and only that", async () => {
  type(called("Short name of Teo Marsh"), "T");
  type(called("Colour of Ann"), "#00ff00");
  all("[name=host]")[0].dispatchEvent(new globalThis.Event("change"));
  await settled();
  assert.deepEqual(sent().slice(1), [
    ["/dress/cast/7", { short: "T" }],
    ["/dress/cast/8", { colour: "#00ff00" }],
    ["/dress/cast/7", { host: "1" }],
  ]);
});

test("whoever types is not disturbed by what is looked up now and then", async () => {
  const field = called("Short name of Ann");
  field.focus();
  field.value = "An";
  page.clock.pass(5000);
  await settled();
  assert.equal(page.asked.length, 2);
  assert.equal(called("Short name of Ann"), field);
  field.blur();
  page.clock.pass(5000);
  await settled();
  assert.notEqual(called("Short name of Ann"), field);
});

test("nobody yet is said instead of an empty list", async () => {
  serve({ "/dress/cast": told() });
  page.clock.pass(5000);
  await settled();
  assert.deepEqual([find("#empty").hidden, find("#cast").hidden, find("#summary").textContent], [false, true, ""]);
});

test("a picture is put by file or address, and taken off where there is one", async () => {
  answer({ "/dress/cast/7/pictures/face": told(TEO, ANN) });
  called("Face of Teo Marsh").click();
  assert.deepEqual([sheet().open, find("#picture-title").textContent, find("#picture-off").hidden], [true, "Face: Teo Marsh", false]);
  find("#picture-address").value = "https://example.org/x.png";
  find("#picture-form").dispatchEvent(new globalThis.Event("submit", { cancelable: true }));
  await settled();
  assert.equal(sheet().open, false);
  called("Silent of Ann").click();
  assert.deepEqual([find("#picture-title").textContent, find("#picture-off").hidden], ["Silent: A", true]);
  assert.equal(find("#picture-address").value, "");
});

test("what is refused is said in the sheet, which stays", async () => {
  answer({ "/dress/cast/7/pictures/talking": { error: "That is no picture." } });
  called("Talking of Teo Marsh").click();
  find("#picture-off").click();
  await settled();
  assert.deepEqual([sheet().open, find("#picture-error").hidden, find("#picture-error").textContent], [true, false, "That is no picture."]);
  find("#picture-close").click();
  called("Talking of Teo Marsh").click();
  assert.equal(find("#picture-error").hidden, true);
});

test("pictures dropped on the page say which found their place and which nobody's name is", async () => {
  const dropped = async (files, done) => {
    answer({ "/dress/cast/drop": { ...told(TEO), ...done } });
    page.window.dispatchEvent(Object.assign(new globalThis.Event("drop"), { dataTransfer: { types: ["Files"], files } }));
    await settled();
  };
  await dropped(["x"], { matched: 1, left: [] });
  await dropped(["x", "y", "z"], { matched: 2, left: ["hat.png"] });
  assert.deepEqual(said(), ["1 picture found its place.", "2 pictures found their place. Nobody is called hat.png."]);
  await dropped(["x"], { matched: 0, left: ["hat.png"] });
  assert.equal(all(".message-line").at(-1).classList.contains("bad"), true);
  const before = page.asked.length;
  await dropped([], {});
  assert.equal(page.asked.length, before);
});

test("one picture dropped on its place goes there, several are left to the page", async () => {
  answer({ "/dress/cast/8/pictures/silent": told(TEO, ANN) });
  const drop = (files) => {
    const event = Object.assign(new globalThis.Event("drop", { bubbles: true, cancelable: true }), { dataTransfer: { types: [], files } });
    called("Silent of Ann").dispatchEvent(event);
    return event.defaultPrevented;
  };
  const file = new page.window.File(["x"], "x.png", { type: "image/png" });
  assert.deepEqual([drop([file]), drop([file, file]), drop([])], [true, false, false]);
  await settled();
  assert.deepEqual(sent().slice(1), [["/dress/cast/8/pictures/silent", sent()[1][1]]]);
});
