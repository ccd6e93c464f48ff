import assert from "node:assert/strict";
import { test } from "node:test";
import { all, eachOnAPage, find, key } from "../support/page.js";
import { LETTERS, shortcuts } from "../../../assets/js/stage/shortcuts.js";

eachOnAPage({
  html: `<input id="words"><button id="rehearse"></button><button id="show-keys"></button><dialog id="keys"><dl id="keys-list"></dl></dialog>
    <button id="open-find"></button><dialog id="find-anything"><form><input id="find-words"><p id="find-said"></p><ul id="find-list"></ul></form></dialog>`,
});

const kinds = Object.fromEntries(Object.keys(LETTERS).map((kind) => [kind, { label: kind.toUpperCase() }]));

// What is done by keys, in words.
function pressing() {
  const done = [];
  const noted = (name) => () => done.push(name);
  const top = { putOnAir: noted("air"), undo: noted("undo"), redo: noted("redo") };
  const act = Object.fromEntries(
    ["duplicate", "copy", "paste", "group", "ungroup", "orderBy", "remove"].map((name) => [name, noted(name)]),
  );
  shortcuts({
    ...{ kinds, top, act, choose: noted("choose"), openLooks: noted("looks"), openRevisions: noted("revisions") },
    ...{ add: (kind) => done.push(kind), draft: { document: { pieces: [] } } },
  });
  return done;
}

test("each key is told once, and does what is told of it", () => {
  const done = pressing();
  const told = all("#keys-list dt").map((term) => term.textContent);
  assert.deepEqual(
    told.filter((name, at) => told.indexOf(name) !== at),
    [],
  );
  for (const letter of Object.values(LETTERS)) key(letter);
  assert.deepEqual(done, Object.keys(LETTERS));
  done.length = 0;
  for (const name of ["g", "u", "h", "o"]) key(name);
  assert.deepEqual(done, ["group", "ungroup", "revisions", "looks"]);
  assert.ok(told.includes("f"), "Find has the same key everywhere");
});

test("no letter alone goes on air", () => {
  const done = pressing();
  for (const letter of "abcdefghijklmnopqrstuvwxyz") if (letter !== "f") key(letter);
  assert.ok(!done.includes("air"));
  key("Enter", { ctrlKey: true, target: find("#words") });
  assert.ok(!done.includes("air"));
  key("Enter", { ctrlKey: true });
  assert.equal(done.at(-1), "air");
});
