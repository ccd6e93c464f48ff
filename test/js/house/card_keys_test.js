import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { DESK, LINE, PIECE } from "../../../assets/js/link/card_keys.js";

const read = (name) => readFileSync(new URL(`../../../assets/js/${name}.js`, import.meta.url), "utf8");
// What a script itself keeps on a card of its own.
const keysRead = (name) => [...read(name).matchAll(/\bcard\.([a-z_]+)\b/g)].map(([, key]) => key);

test("what draws a line reads no key that no card has", () => {
  const known = new Set([...Object.keys(LINE), ...Object.keys(PIECE)]);
  for (const name of ["link/line", "link/chat_piece"]) {
    const keys = keysRead(name);
    assert.ok(keys.length > 0, name);
    assert.deepEqual(
      keys.filter((key) => !known.has(key)),
      [],
      name,
    );
  }
});

test("what lists a line for host and moderators reads no key that no card has", () => {
  const known = new Set([...Object.keys(LINE), ...Object.keys(DESK)]);
  for (const name of ["prompter/row", "prompter/lines", "prompter/actions", "feeds/lane"]) {
    const keys = keysRead(name);
    assert.ok(keys.length > 0, name);
    assert.deepEqual(
      keys.filter((key) => !known.has(key)),
      [],
      name,
    );
  }
});
