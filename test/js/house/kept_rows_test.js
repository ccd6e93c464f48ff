import assert from "node:assert/strict";
import { test } from "node:test";
import { KeptRows } from "../../../assets/js/house/kept_rows.js";
import { eachOnAPage, page } from "../support/page.js";

eachOnAPage({ html: '<div id="list"></div>' });

function listed() {
  const box = page.document.querySelector("#list");
  const rows = new KeptRows(box);
  const draw = (words) => () => Object.assign(page.document.createElement("p"), { textContent: words });
  return { box, show: (...all) => rows.show(all.map(([key, words]) => ({ key, told: words, draw: draw(words) }))) };
}

const words = (box) => [...box.children].map((one) => one.textContent);

test("a row of which the same is told stays the element it is, whatever comes and goes around it", () => {
  const { box, show } = listed();
  show([1, "a"], [2, "b"], [3, "c"]);
  const [, b, c] = box.children;
  show([4, "d"], [2, "b"], [5, "e"], [3, "c"]);
  assert.deepEqual(words(box), ["d", "b", "e", "c"]);
  assert.equal(box.children[1], b);
  assert.equal(box.children[3], c);
});

test("a row that stays is not taken out meanwhile, or a press that has begun on it would be lost", () => {
  const { box, show } = listed();
  show([1, "a"], [2, "b"]);
  const b = box.children[1];
  const moved = [];
  const seen = new page.window.MutationObserver((all) => moved.push(...all.flatMap((one) => [...one.removedNodes, ...one.addedNodes])));
  seen.observe(box, { childList: true });
  show([2, "b"], [3, "c"]);
  assert.deepEqual(words(box), ["b", "c"]);
  moved.push(...seen.takeRecords().flatMap((one) => [...one.removedNodes, ...one.addedNodes]));
  assert.equal(moved.includes(b), false);
});

test("a row that says something else is drawn anew, where it stands", () => {
  const { box, show } = listed();
  show([1, "a"], [2, "b"]);
  show([1, "a"], [2, "better"]);
  assert.deepEqual(words(box), ["a", "better"]);
  show([2, "better"], [1, "a"]);
  assert.deepEqual(words(box), ["better", "a"]);
  show();
  assert.equal(box.children.length, 0);
});
