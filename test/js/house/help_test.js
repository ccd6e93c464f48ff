import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { closeHelp, helpAsked } from "../../../assets/js/house/help.js";
import { NAMES, scene } from "../../../assets/js/house/scenes.js";
import { all, eachOnAPage, find, openPage, page } from "../support/page.js";

eachOnAPage();

const mark = (id, name) =>
  `<button id="${id}" data-help='${JSON.stringify({ title: `<b>${id}</b>`, words: "One. Two.", scene: name })}' aria-expanded="false"></button>`;

beforeEach(() => {
  closeHelp();
  openPage({ html: `<h1>x</h1>${mark("hold", "hold")}${mark("gate", "gate")}<dialog open>${mark("sets", "code")}</dialog>` });
  helpAsked();
});

const press = (id) => find(`#${id}`).click();
const cards = () => all(".help-card");
const expanded = (id) => find(`#${id}`).getAttribute("aria-expanded");

test("a question mark opens its words, and closes them again", () => {
  press("hold");
  assert.deepEqual([cards().length, cards()[0].querySelector("b").textContent, expanded("hold")], [1, "<b>hold</b>", "true"]);
  assert.ok(cards()[0].querySelector("svg.scene rect"));
  press("hold");
  assert.deepEqual([cards().length, expanded("hold")], [0, "false"]);
});

test("one at a time, and a press elsewhere closes it, but not one on it", () => {
  press("hold");
  press("gate");
  assert.deepEqual([cards().length, expanded("hold"), expanded("gate")], [1, "false", "true"]);
  cards()[0].querySelector("p").click();
  assert.equal(cards().length, 1);
  find("h1").click();
  assert.equal(cards().length, 0);
});

test("Escape closes it alone, and leaves the keyboard where it was opened", () => {
  press("sets");
  assert.equal(cards()[0].parentElement.tagName, "DIALOG");
  let passed = 0;
  page.document.body.addEventListener("keydown", () => {
    passed += 1;
  });
  const leave = () =>
    page.document.body.dispatchEvent(new page.window.KeyboardEvent("keydown", { key: "Escape", bubbles: true, cancelable: true }));
  leave();
  assert.deepEqual([cards().length, page.document.activeElement.id, passed], [0, "sets", 0]);
  leave();
  assert.equal(passed, 1);
});

test("each picture moves, and stands still for whoever wants that", () => {
  for (const name of NAMES) {
    page.ways.length = 0;
    const drawn = scene(name, false);
    assert.ok(drawn.children.length > 2, name);
    assert.ok(page.ways.length > 0, name);
    assert.ok(
      page.ways.every(({ frames }) => frames.every(({ offset }, index) => index === 0 || offset > frames[index - 1].offset)),
      name,
    );
  }
  assert.equal(scene("nothing", false).children.length, 0);
});
