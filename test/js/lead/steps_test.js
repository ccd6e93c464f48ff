import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find } from "../support/page.js";
import { openStep, Steps } from "../../../assets/js/lead/steps.js";

const item = (key) =>
  `<li data-step="${key}"><button class="lead-head"></button><span data-words></span><div class="lead-body" hidden></div></li>`;
eachOnAPage({ html: `<ol>${["chat", "picture", "look"].map(item).join("")}</ol>` });

const steps = (...states) => ["chat", "picture", "look"].map((key, at) => ({ key, state: states[at], words: `${key} ${states[at]}` }));
const open = () =>
  all("[data-step]")
    .filter((one) => !one.querySelector(".lead-body").hidden)
    .map((one) => one.dataset.step);
let list;

beforeEach(() => {
  list = new Steps(find("ol"));
});

test("what comes next is open, until all is done", () => {
  assert.equal(openStep(steps("done", "now", "later")), "picture");
  assert.equal(openStep(steps("done", "done", "done")), "look");
  assert.equal(openStep(steps("done", "now", "later"), "nothing there"), "picture");
  assert.equal(openStep([]), undefined);
});

test("each says how it stands, and one is open", () => {
  list.show(steps("done", "now", "later"));
  assert.deepEqual(open(), ["picture"]);
  assert.deepEqual(
    all("[data-step]").map((one) => [one.dataset.state, one.querySelector("[data-words]").textContent]),
    [
      ["done", "chat done"],
      ["now", "picture now"],
      ["later", "look later"],
    ],
  );
  assert.deepEqual(
    all(".lead-head").map((one) => one.getAttribute("aria-expanded")),
    ["false", "true", "false"],
  );
});

test("one that was opened by hand stays open, until it is done", () => {
  list.show(steps("now", "later", "later"));
  all(".lead-head")[2].click();
  list.show(steps("done", "now", "later"));
  assert.deepEqual(open(), ["look"]);
  list.show(steps("done", "now", "done"));
  assert.deepEqual(open(), ["picture"]);
});

test("one that was done already can be looked at again", () => {
  list.show(steps("done", "now", "later"));
  all(".lead-head")[0].click();
  list.show(steps("done", "now", "later"));
  assert.deepEqual(open(), ["chat"]);
});
