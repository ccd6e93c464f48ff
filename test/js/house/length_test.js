import assert from "node:assert/strict";
import { readdirSync, readFileSync } from "node:fs";
import { test } from "node:test";

const SCRIPTS = new URL("../../../assets/js/", import.meta.url);
const MOST = 40;
// What opens a function; the formatter puts its end at the same depth.
const OPENS = /(?:\bfunction\b.*|=>\s*)\{$|^\s+(?!(?:if|for|while|switch|catch)\b)(?:static |async |get |set )*[#\w]+\(.*\) \{$/;

const depth = (line) => line.length - line.trimStart().length;

function lengths(text) {
  const lines = text.split("\n");
  return lines.flatMap((line, at) => {
    if (!OPENS.test(line)) return [];
    const end = lines.findIndex((other, later) => later > at && depth(other) === depth(line) && other.trimStart().startsWith("}"));
    return [[end - at + 1, line.trim()]];
  });
}

test("no function has more than forty lines", () => {
  const files = readdirSync(SCRIPTS, { recursive: true }).filter((file) => file.endsWith(".js"));
  const all = files.flatMap((file) => lengths(readFileSync(new URL(file, SCRIPTS), "utf8")).map(([length, line]) => [file, length, line]));
  assert.ok(all.length > 500);
  assert.deepEqual(
    all.filter(([, length]) => length > MOST),
    [],
  );
});
