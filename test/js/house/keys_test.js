import assert from "node:assert/strict";
import { readdirSync, readFileSync } from "node:fs";
import { test } from "node:test";
import { all, eachOnAPage, find, key } from "../support/page.js";
import { keys } from "../../../assets/js/house/keys.js";

eachOnAPage({
  html: `<nav class="rooms"><ul><li><a href="/links">Links and checks<span class="figure">2</span></a></li><li><a href="/links/report">Report</a></li></ul></nav>
    <input id="words"><button id="show-keys"></button><dialog id="keys"><dl id="keys-list"></dl></dialog>`,
});

const told = () => all("#keys-list dt").map((term, at) => [term.textContent, all("#keys-list dd")[at].textContent]);

test("rooms of a station have digits as their keys, beside those of the page, and all are told", () => {
  const gone = [];
  for (const link of all(".rooms a")) link.addEventListener("click", () => gone.push(link.getAttribute("href")));
  keys({ t: ["Send a test", () => gone.push("t")] });
  assert.deepEqual(told(), [
    ["?", "Show these keys"],
    ["1", "Links and checks"],
    ["2", "Report"],
    ["t", "Send a test"],
  ]);
  for (const name of ["2", "t", "3"]) key(name);
  assert.deepEqual(gone, ["/links/report", "t"]);
});

test("whoever types does not leave by a digit", () => {
  const gone = [];
  for (const link of all(".rooms a")) link.addEventListener("click", () => gone.push(link));
  keys({});
  key("1", { target: find("#words") });
  assert.deepEqual(gone, []);
});

// Pages without the house's menu: what stands on the picture, a microphone, and what is only read.
const WITHOUT = ["draft", "link", "microphone"];

test("on every station the menu finds anything and tells the keys", () => {
  const here = new URL("../../../assets/js/", import.meta.url);
  const stations = readdirSync(here).filter((name) => !WITHOUT.includes(name) && readdirSync(new URL(name, here)).includes("main.js"));
  assert.ok(stations.length > 12);
  assert.deepEqual(
    stations.filter((name) => !/\b(?:keys|shortcuts)\(/.test(readFileSync(new URL(`${name}/main.js`, here), "utf8"))),
    [],
  );
});
