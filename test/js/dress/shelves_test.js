import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";

eachOnAPage({
  html: `<div id="shelves"></div><button id="shelf-add"></button><button id="shelf-from"></button><button id="unused" aria-pressed="false"></button>
    <input type="file" id="add-files"><div id="drop-here"></div><div id="messages"></div>
    <dialog id="ask"><form id="ask-form"></form><p id="ask-error"></p><button id="ask-close"></button></dialog>`,
});

const FEEDS = [
  { id: 1, name: "Oxbow", mark: ["circle", "#5fb8d6"] },
  { id: 2, name: "Lantern", mark: ["square", "#e58fb0"] },
];
const emote = (code, more = {}) => ({ id: code.length, code, picture: "abc", used: 3, beaten: false, overlay: false, ...more });
const shelf = (id, more = {}) => ({ id, name: `Shelf ${id}`, on: true, off_feeds: [], emotes: [], count: 0, unused: 0, ...more });
const OWN = shelf(10, { emotes: [emote(":wren:"), emote(":owl:", { used: 0, beaten: true, overlay: true })], count: 2, unused: 1 });

let shelves;
let looked;
const show = (...all) => shelves.show({ shelves: all, feeds: FEEDS });

beforeEach(async () => {
  const { Shelves } = await import("../../../assets/js/dress/shelves.js");
  looked = 0;
  shelves = new Shelves(() => {
    looked += 1;
  });
  serve({ "/dress": {} });
  show(OWN, shelf(11, { off_feeds: [2], on: false, address: "https://example.org" }), shelf(12, { feed: 2, count: 7 }));
});

test("each says how many it has, which is seen first and what nobody uses", () => {
  assert.deepEqual(
    all(".shelf-head .said").map((about) => about.textContent),
    ["2, seen first, 1 unused", "0", "7, sent with each line"],
  );
  show(OWN);
  assert.equal(find(".shelf-head .said").textContent, "2, 1 unused");
});

test("an emote says by its title why it may not be seen, and a platform's own cannot be set", () => {
  assert.deepEqual(
    all(".emote-button").map((one) => [one.title, one.className]),
    [
      ["used 3 times", "emote-button"],
      ["used 0 times, a shelf above has the same code and wins, laid over the emote before it", "emote-button beaten unused"],
    ],
  );
  show(shelf(12, { feed: 2, emotes: [emote("x")] }));
  assert.equal(find(".emote-button").disabled, true);
  assert.equal(find(".emote-place"), null);
});

test("it is worn or not, and on which feeds", async () => {
  called("Shelf 11 is worn").click();
  called("Shelf 11 on Lantern").click();
  called("Shelf 10 on Lantern").click();
  await settled();
  assert.deepEqual(page.asked, [
    ["/dress/shelves/11", { on: "1" }],
    ["/dress/shelves/11", { off_feeds: "" }],
    ["/dress/shelves/10", { off_feeds: "2" }],
  ]);
  assert.deepEqual(
    ["Shelf 11 on Oxbow", "Shelf 11 on Lantern"].map((name) => called(name).getAttribute("aria-pressed")),
    ["true", "false"],
  );
  assert.equal(looked, 3);
});

test("it is moved by keys, by its menu and by the mouse, never beyond the ends", async () => {
  const orders = () => page.asked.map(([, { ids }]) => ids);
  const press = (name, key) => called(name).dispatchEvent(new globalThis.KeyboardEvent("keydown", { key, cancelable: true }));
  press("Move Shelf 10: arrow up or down", "ArrowDown");
  press("Move Shelf 10: arrow up or down", "ArrowUp");
  press("Move Shelf 12: arrow up or down", "ArrowUp");
  press("Move Shelf 12: arrow up or down", "x");
  await settled();
  assert.deepEqual(orders(), ["11,10,12", "10,11,12", "10,12,11"]);
  const menus = all(".shelf-menu .menu-sheet").map((menu) => [...menu.children].map((one) => one.textContent));
  assert.deepEqual(menus, [
    ["Rename", "A picture by its address", "Down", "Take it away"],
    ["Rename", "A picture by its address", "Read it again", "Up", "Down", "Take it away"],
    ["Rename", "Up", "Take it away"],
  ]);
  const drop = Object.assign(new globalThis.Event("drop", { bubbles: true, cancelable: true }), {
    dataTransfer: { getData: () => "12", files: [] },
  });
  find('[data-shelf="10"]').dispatchEvent(drop);
  await settled();
  assert.deepEqual([orders().at(-1), drop.defaultPrevented], ["12,10,11", true]);
});

test("what is taken away can be put back, what is refused is not said to be gone", async () => {
  pressable("Take it away").click();
  await settled();
  assert.deepEqual(said(), ["Shelf 10 is taken away."]);
  pressable("Undo").click();
  await settled();
  assert.deepEqual(
    page.asked.map(([, values]) => values),
    [{ removed: "1" }, { removed: "0" }],
  );
  serve({ "/dress": { error: "No." } });
  pressable("Take it away").click();
  await settled();
  assert.deepEqual(said(), ["No."]);
});

test("only what is unused can be looked at", () => {
  find("#unused").click();
  assert.deepEqual([find("#unused").getAttribute("aria-pressed"), find("#shelves").classList.contains("only-unused")], ["true", true]);
  find("#unused").click();
  assert.equal(find("#shelves").classList.contains("only-unused"), false);
});

test("pictures are added to the shelf whose place was pressed", () => {
  let opened = 0;
  find("#add-files").addEventListener("click", () => {
    opened += 1;
  });
  called("Add pictures to Shelf 11").click();
  assert.deepEqual([opened, find("#add-files").dataset.shelf], [1, "11"]);
});

test("no shelf yet is said, and names are words", () => {
  show();
  assert.equal(find(".shelf-empty h2").textContent, "No shelf yet");
  show(shelf(10, { name: "<img src=x>", emotes: [emote("<img src=y>")] }));
  assert.deepEqual([find(".shelf h2").textContent, all("#shelves img").length], ["<img src=x>", 1]);
});
