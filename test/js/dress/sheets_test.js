import assert from "node:assert/strict";
import { afterEach, before, beforeEach, test } from "node:test";
import { all, called, find, openPage, page, pressable, said, serve, settled } from "../support/page.js";

const SHELVES = [{ id: 1, emotes: [{ id: 9, code: ":wren:", picture: "abc" }] }];
const feed = { id: 2, name: "Oxbow", mark: ["circle", "#5fb8d6"] };
const badge = (cell) => ({ kind: "a/b", name: "Ringer", letter: "R", colour: "#5fb8d6", feeds: { 2: cell } });

let parts;
let looked = 0;
const changed = () => {
  looked += 1;
};
const fill = (name, value) => {
  find(`#ask-${name}`).value = value;
};
const submit = async () => {
  find("#ask-form").dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
  await settled();
};
// Steps that wait for the page's own clock in between.
async function passing(ms) {
  await settled();
  page.clock.pass(ms);
  await settled();
}

before(async () => {
  openPage({
    html: `<div id="phrases"></div><button id="phrase-add"></button><div id="badges"></div><div id="messages"></div><div id="emotes"></div>
      <dialog id="ask"><h2 id="ask-title"></h2><p id="ask-about"></p><form id="ask-form"><div id="ask-fields"></div><p id="ask-error" role="alert"></p>
      <button id="ask-do"></button></form><button id="ask-close"></button></dialog>`,
  });
  globalThis.FormData = page.window.FormData;
  const [{ Badges }, { Phrases }, { emoteButton }, imports, forms] = await Promise.all(
    ["badges", "phrases", "emote", "imports", "shelf_forms"].map((name) => import(`../../../assets/js/dress/${name}.js`)),
  );
  parts = { badges: new Badges(changed), phrases: new Phrases(changed), emoteButton, imports, forms };
});
beforeEach(() => {
  page.asked.length = 0;
  looked = 0;
  find("#messages").replaceChildren();
});
afterEach(() => find("#ask").close());

function showEmote(more = {}, shelf = {}) {
  const emote = { id: 9, code: ":wren:", picture: "abc", used: 1, beaten: false, overlay: true, any_case: false, ...more };
  find("#emotes").replaceChildren(parts.emoteButton(emote, shelf, changed));
  return find(".emote-button");
}

test("an emote's sheet shows how it is set, and what is unticked is sent as such", async () => {
  serve({ "/dress": {} });
  showEmote().click();
  assert.deepEqual([find("#ask-title").textContent, find("#ask-about").textContent, find("#ask").open], [":wren:", "Used 1 time.", true]);
  assert.deepEqual([find("#ask-code").value, find("#ask-overlay").checked, find("#ask-any_case").checked], [":wren:", true, false]);
  fill("code", ":Wren:");
  find("#ask-overlay").checked = false;
  await submit();
  assert.deepEqual(page.asked, [["/dress/emotes/9", { code: ":Wren:", any_case: "0", overlay: "0" }]]);
  assert.deepEqual([looked, find("#ask").open], [1, false]);
});

test("what is refused is said in the sheet, which stays with what was typed", async () => {
  serve({ "/dress": { error: "That code is taken.", field: "code" } });
  showEmote().click();
  fill("code", ":owl:");
  await submit();
  assert.deepEqual([find("#ask-error").textContent, find("#ask-error").hidden, find("#ask").open], ["That code is taken.", false, true]);
  assert.deepEqual([find("#ask-code").value, looked], [":owl:", 0]);
  find("#ask-close").click();
  showEmote().click();
  assert.equal(find("#ask-error").hidden, true);
});

test("an emote taken away can be put back", async () => {
  serve({ "/dress": {} });
  showEmote().click();
  pressable("Take it away").click();
  await settled();
  assert.deepEqual([said(), looked], [[":wren: is taken away."], 1]);
  pressable("Undo").click();
  await settled();
  assert.deepEqual(
    page.asked.map(([path]) => path),
    ["/dress/emotes/9/remove", "/dress/emotes/9/put-back"],
  );
  assert.equal(looked, 2);
});

test("words become a picture of ours, and stay words when it is taken back", async () => {
  serve({ "/dress": {} });
  parts.phrases.show({ phrases: [], shelves: SHELVES });
  assert.match(find("#phrases").textContent, /for instance/);
  find("#phrase-add").click();
  fill("words", "reed warbler");
  called(":wren:").checked = true;
  await submit();
  assert.deepEqual(page.asked, [["/dress/phrases", { words: "reed warbler", address: "", picture: "abc" }]]);
  parts.phrases.show({ phrases: [{ id: 4, words: "reed warbler", picture: "abc" }], shelves: SHELVES });
  called("“reed warbler” stays words").click();
  await settled();
  pressable("Undo").click();
  await settled();
  assert.deepEqual(
    page.asked.slice(1).map(([path]) => path),
    ["/dress/phrases/4/remove", "/dress/phrases/4/put-back"],
  );
  assert.equal(looked, 3);
});

test("a badge nobody wore yet has no drawer; one that came has a place for each feed that sends it", () => {
  parts.badges.show({ badges: [], feeds: [feed], shelves: SHELVES });
  assert.match(find("#badges").textContent, /appear here by themselves/);
  const other = { ...badge({ shown: true, theirs: "q" }), name: "Guest", feeds: {} };
  parts.badges.show({ badges: [badge({ shown: true, theirs: "abc" }), other], feeds: [feed, { ...feed, id: 3 }], shelves: SHELVES });
  assert.deepEqual([all(".badges-feed").length, find(".badges-missing").textContent], [1, "none"]);
});

test("a badge says whose picture it has and whether it shows", () => {
  const label = (cell) => {
    parts.badges.show({ badges: [badge(cell)], feeds: [feed], shelves: SHELVES });
    return find(".badge-button").getAttribute("aria-label");
  };
  assert.equal(label({ shown: true, theirs: "abc" }), "Ringer on Oxbow: shown");
  assert.equal(label({ shown: true, ours: "abc" }), "Ringer on Oxbow: your picture");
  assert.equal(label({ shown: false, ours: "abc" }), "Ringer on Oxbow: not shown");
});

test("a badge that is switched off is sent as such, without fields that were left empty", async () => {
  serve({ "/dress": {} });
  parts.badges.show({ badges: [badge({ shown: true, theirs: "abc" })], feeds: [feed], shelves: SHELVES });
  find(".badge-button").click();
  assert.equal(pressable("Back to theirs"), undefined);
  find("#ask-shown").checked = false;
  await submit();
  assert.deepEqual(page.asked, [["/dress/badges/2/a%2Fb", { shown: "0" }]]);
});

test("a badge goes back to the platform's picture in one press", async () => {
  serve({ "/dress": {} });
  parts.badges.show({ badges: [badge({ shown: true, ours: "abc" })], feeds: [feed], shelves: SHELVES });
  find(".badge-button").click();
  pressable("Back to theirs").click();
  await settled();
  assert.deepEqual(page.asked, [["/dress/badges/2/a%2Fb", { picture: "theirs" }]]);
  assert.deepEqual([find("#ask").open, looked], [false, 1]);
});

test("pictures that are brought in are followed to their end and what was refused is told with why", async () => {
  const steps = [
    { state: "running", total: 0, done: 0 },
    { state: "running", total: 3, done: 2 },
    { state: "done", total: 3, done: 3, words: "2 pictures are here", refused: [["bad.svg", "It runs a script."]] },
  ];
  serve({ "/dress/shelves/upload": { import: 7 }, "/dress/imports/7": () => steps.shift() });
  const whole = parts.imports.takeFiles([new page.window.File(["x"], "a.png")], 5, changed);
  await passing(400);
  assert.equal(find(".import-line span").textContent, "Making the pictures anew …");
  await passing(400);
  assert.equal(find(".import-line span").textContent, "2 of 3");
  await passing(400);
  await whole;
  assert.equal(page.asked[0][1].shelf, "5");
  assert.deepEqual(
    all(".import-line").map((line) => line.textContent),
    ["2 pictures are here.Which, and whybad.svg: It runs a script.Close"],
  );
  assert.equal(looked, 1);
  pressable("Close").click();
  assert.equal(find(".import-line"), null);
});

test("an import that is stopped, refused as a whole, or lost is said and looked at once", async () => {
  for (const [end, words] of [
    [{ state: "stopped", words: "Stopped.", refused: [] }, ["Stopped."]],
    [{ state: "refused", words: "That is no pack.", refused: [] }, ["That is no pack."]],
    [{ state: "done", words: "3 pictures are here", refused: [] }, ["3 pictures are here"]],
  ]) {
    find("#messages").replaceChildren();
    serve({ "/dress/imports/7/stop": {}, "/dress/imports/7": end });
    const whole = parts.imports.followImport(7, changed);
    pressable("Stop").click();
    await passing(400);
    await whole;
    assert.deepEqual([said(), find(".bad") !== null], [words, end.state === "refused"]);
  }
  assert.equal(looked, 3);
  serve({ "/dress/imports/7": { error: "There is no such import." } });
  const lost = parts.imports.followImport(7, changed);
  await passing(400);
  await lost;
  assert.deepEqual([said().at(-1), looked], ["There is no such import.", 3]);
});

test("a shelf is put up empty or from an address, whose making is followed", async () => {
  serve({
    "/dress/shelves/from-address": { import: 8 },
    "/dress/shelves": {},
    "/dress/imports/8": { state: "done", words: "Here", refused: [] },
  });
  parts.forms.addShelf(changed);
  fill("name", "Winter");
  await submit();
  parts.forms.addShelfFrom(changed);
  fill("address", "https://reedmere.example/pack.zip");
  await submit();
  await passing(400);
  assert.deepEqual(page.asked, [
    ["/dress/shelves", { name: "Winter" }],
    ["/dress/shelves/from-address", { address: "https://reedmere.example/pack.zip" }],
    ["/dress/imports/8", undefined],
  ]);
  assert.deepEqual([said(), looked, find("#ask").open], [["Here"], 2, false]);
});
