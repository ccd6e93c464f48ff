import assert from "node:assert/strict";
import { readdirSync, readFileSync } from "node:fs";
import { test } from "node:test";

const FOLDER = new URL("../../../assets/css/", import.meta.url);
const sheets = readdirSync(FOLDER).map((name) => [name, readFileSync(new URL(name, FOLDER), "utf8")]);
const found = (text, pattern) => [...text.matchAll(pattern)].map((match) => match[1] ?? match[0]);

test("a colour is written out in one file and nowhere else", () => {
  const written = /#[0-9a-f]{3,8}\b(?![^{}]*\{)|\b(?:hsl|hwb|lab|lch|oklab|oklch)a?\(/gi;
  for (const [name, text] of sheets) {
    if (name === "tokens.css") assert.ok(found(text, written).length > 20);
    else assert.deepEqual(found(text, written), [], name);
  }
});

test("what is named by day is named by night, and every name is used", () => {
  const tokens = sheets.find(([name]) => name === "tokens.css")[1];
  const [night, day] = tokens.split("@media").map((half) => found(half, /^\s*(--[\w-]+):/gm));
  assert.deepEqual(
    day.filter((name) => !night.includes(name)),
    [],
  );
  const used = new Set(sheets.flatMap(([, text]) => found(text, /var\((--[\w-]+)/g)));
  assert.deepEqual(
    night.filter((name) => !used.has(name)),
    [],
  );
});
