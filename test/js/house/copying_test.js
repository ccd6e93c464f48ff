import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page, said } from "../support/page.js";
import { copy } from "../../../assets/js/house/copying.js";

eachOnAPage({ html: `<div id="messages"></div><main></main><dialog id="sheet"></dialog>` });

// As on a plain http address of another computer.
beforeEach(() => Object.defineProperty(globalThis, "navigator", { configurable: true, value: {} }));

test("beneath an open sheet nothing can be chosen: what is copied stands in it for that moment", async () => {
  const from = [];
  page.document.execCommand = () => from.push(find("textarea").parentElement.localName) > 0;
  await copy("secret", "The key");
  find("#sheet").setAttribute("open", "");
  await copy("secret", "The key");
  assert.deepEqual([from, find("textarea"), said()], [["body", "dialog"], null, ["The key is copied.", "The key is copied."]]);
});

test("what was not copied is not said to be", async () => {
  page.document.execCommand = () => false;
  await copy("secret", "The key");
  assert.equal(said().length, 1);
  assert.match(said()[0], /lets nothing be copied/);
});
