import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page } from "../support/page.js";
import { cutWordsTold } from "../../../assets/js/house/cut.js";

eachOnAPage({
  html: `<p id="row"><span id="long" style="text-overflow: ellipsis">all of  it</span><b id="own" title="its own" style="text-overflow: ellipsis">x</b></p>`,
});

const wide = (name, within, whole) => {
  for (const [what, value] of [
    ["clientWidth", within],
    ["scrollWidth", whole],
  ])
    Object.defineProperty(find(name), what, { configurable: true, value });
};
const point = (name) => find(name).dispatchEvent(new page.window.Event("pointerover", { bubbles: true }));

beforeEach(() => {
  wide("#long", 40, 90);
  wide("#own", 40, 90);
  cutWordsTold();
});

test("what is cut says all of it once somebody points at it or at what it stands in", () => {
  point("#row");
  assert.equal(find("#long").title, "all of it");
});

test("a title of its own stays, and what is no longer cut needs none", () => {
  point("#long");
  point("#own");
  assert.equal(find("#own").title, "its own");
  find("#long").textContent = "other words";
  point("#long");
  assert.equal(find("#long").title, "other words");
  wide("#long", 90, 90);
  point("#long");
  assert.equal(find("#long").hasAttribute("title"), false);
});
