import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { card } from "../support/cards.js";
import { Column } from "../../../assets/js/prompter/column.js";
import { Lines } from "../../../assets/js/prompter/lines.js";

eachOnAPage({ html: '<div id="scroller"><div id="blocks"></div></div><button id="newer"></button>' });

const ROW_PX = 30;
let grown;
let near;
let lines;
let column;
let scroller;
let room;
let chosen;
let brought;

// A scroller whose rows are all as high as each other.
function laidOut() {
  scroller = page.document.querySelector("#scroller");
  room = { top: 100, height: 300 };
  const rows = () => [...page.document.querySelectorAll(".row")];
  Object.defineProperties(scroller, {
    clientHeight: { get: () => room.height },
    scrollHeight: { get: () => rows().length * ROW_PX },
    scrollTop: {
      get: () => room.at ?? 0,
      set: (value) => {
        room.at = Math.max(0, Math.min(value, rows().length * ROW_PX - room.height));
      },
    },
  });
  scroller.getBoundingClientRect = () => ({ top: room.top, height: room.height });
  page.window.HTMLElement.prototype.scrollIntoView = function into() {
    brought.push(Number(this.dataset.line));
  };
  const plain = page.window.HTMLElement.prototype.getBoundingClientRect;
  page.window.HTMLElement.prototype.getBoundingClientRect = function box() {
    const at = rows().indexOf(this);
    if (at === -1) return plain.call(this);
    const top = room.top - (room.at ?? 0) + at * ROW_PX;
    return { top, bottom: top + ROW_PX, height: ROW_PX };
  };
}

beforeEach(() => {
  brought = [];
  globalThis.ResizeObserver = class {
    constructor(act) {
      grown = act;
    }
    observe() {}
  };
  globalThis.IntersectionObserver = class {
    constructor(act) {
      near = act;
    }
    observe() {}
    unobserve() {}
  };
  laidOut();
  lines = new Lines();
  chosen = [];
  column = new Column(lines, { choose: (one) => chosen.push(one?.i ?? null), wantOlder: () => Promise.resolve() });
});

// As a browser does it, the column is told before the next painting that it has grown.
const come = (from, to) => {
  lines.add(Array.from({ length: to - from + 1 }, (_, at) => card(from + at, "x", { s: "aired" })));
  if (column.follows) grown();
};
const scroll = (at) => {
  scroller.scrollTop = at;
  scroller.dispatchEvent(new page.window.Event("scroll"));
};
const newer = () => page.document.querySelector("#newer");

test("it follows what comes until the reader scrolls up, and then counts what is new", () => {
  come(1, 30);
  assert.equal(scroller.scrollTop, 600);
  scroll(600);
  scroll(300);
  come(31, 33);
  assert.deepEqual([scroller.scrollTop, newer().hidden, newer().textContent], [300, false, "3 new lines"]);
  newer().click();
  assert.deepEqual([scroller.scrollTop, newer().hidden], [690, true]);
});

test("back at the end it follows again", () => {
  come(1, 30);
  scroll(600);
  scroll(100);
  scroll(590);
  come(31, 31);
  assert.equal(scroller.scrollTop, 630);
});

test("where lines grow or shrink nobody has scrolled, unless a hand is at it", () => {
  come(1, 130);
  scroll(3600);
  near([{ target: column.blocks[0].element, isIntersecting: false }]);
  scroll(1000);
  assert.deepEqual([scroller.scrollTop, newer().hidden], [2400, true]);
  come(131, 133);
  scroll(2490);
  scroller.dispatchEvent(new page.window.Event("wheel"));
  come(134, 134);
  scroll(600);
  come(135, 135);
  assert.deepEqual([scroller.scrollTop, newer().textContent], [600, "1 new line"]);
});

test("where lines go and as many others come, as after a restart, nobody has scrolled", () => {
  come(1, 130);
  scroll(3600);
  lines.only(121, []);
  lines.add(Array.from({ length: 10 }, (_, at) => card(201 + at, "x", { s: "aired" })));
  scroller.dispatchEvent(new page.window.Event("scroll"));
  assert.deepEqual([scroller.scrollTop, newer().hidden], [3600, true]);
});

test("as long as the bar is held lines that come do not take it out of the hand", () => {
  come(1, 130);
  scroll(3600);
  scroller.dispatchEvent(new page.window.Event("pointerdown"));
  page.clock.pass(5000);
  come(131, 131);
  scroll(600);
  assert.deepEqual([scroller.scrollTop, newer().hidden], [600, false]);
  newer().click();
  scroll(3630);
  page.window.dispatchEvent(Object.assign(new page.window.Event("pointermove"), { buttons: 0 }));
  page.clock.pass(5000);
  come(132, 132);
  scroll(600);
  assert.deepEqual([scroller.scrollTop, newer().hidden], [3660, true]);
});

test("what is chosen is not carried away by what comes", () => {
  come(1, 30);
  page.document.querySelector("[data-line='28']").click();
  come(31, 40);
  assert.deepEqual([scroller.scrollTop, newer().textContent, chosen], [600, "10 new lines", [28]]);
});

test("a press that began on a button means that button, wherever it is let go", () => {
  come(1, 3);
  const row = page.document.querySelector("[data-line='2']");
  row.click();
  const button = page.document.createElement("button");
  row.append(button);
  const press = (on) => on.dispatchEvent(new page.window.Event("pointerdown", { bubbles: true }));
  press(button);
  button.remove();
  row.click();
  assert.deepEqual(chosen, [2]);
  row.click();
  assert.deepEqual(chosen, [2, null]);
  press(row);
  row.click();
  assert.deepEqual(chosen, [2, null, 2]);
});

test("what is chosen is chosen wherever it is drawn anew, and not any more where it is not seen", () => {
  come(1, 130);
  page.document.querySelector("[data-line='2']").click();
  near([{ target: column.blocks[0].element, isIntersecting: false }]);
  assert.equal(column.rowOf(2), null);
  near([{ target: column.blocks[0].element, isIntersecting: true }]);
  lines.choose({ showOff: false });
  const marked = () => [...page.document.querySelectorAll(".chosen")].map((row) => row.dataset.line);
  assert.deepEqual([marked(), chosen], [["2"], [2, 2, 2]]);
  lines.choose({ feeds: new Set([-1]) });
  lines.choose({ feeds: null });
  assert.deepEqual([marked(), chosen], [[], [2, 2, 2, null]]);
});

test("what is chosen stays in sight when the room for lines becomes smaller", () => {
  come(1, 30);
  page.document.querySelector("[data-line='28']").click();
  room.height = 120;
  grown();
  assert.deepEqual(brought, [28]);
  scroll(0);
  grown();
  assert.deepEqual(brought, [28]);
});

test("steps go from one to the next and stop at both ends", () => {
  come(1, 3);
  for (const step of [-1, -1, -1, -1, 1]) column.step(step);
  assert.deepEqual([column.chosen, brought], [2, [3, 2, 1, 2]]);
});

test("pressed again, nothing is chosen", () => {
  come(1, 3);
  column.pick(2);
  column.pick(2);
  assert.deepEqual([column.chosen, chosen, page.document.querySelectorAll(".chosen").length], [null, [2, null], 0]);
});

test("blocks far away are emptied and keep their height", () => {
  come(1, 50);
  const [first] = column.blocks;
  near([{ target: first.element, isIntersecting: false }]);
  assert.deepEqual([first.element.children.length, first.drawn], [0, false]);
  lines.change(2, { s: "pulled" });
  near([{ target: first.element, isIntersecting: true }]);
  assert.equal(first.element.children.length, 40);
  assert.match(page.document.querySelector("[data-line='2']").className, /pulled/);
  near([true, false].map((isIntersecting) => ({ target: first.element, isIntersecting })));
  assert.equal(first.drawn, false);
});

test("older lines come above, and what was seen stays where it was", () => {
  come(41, 80);
  scroll(300);
  scroll(200);
  come(1, 40);
  assert.equal(scroller.scrollTop, 200 + 40 * ROW_PX);
  assert.equal(page.document.querySelector(".row").dataset.line, "1");
});

test("it jumps to the last of a kind before what is chosen, and then round", () => {
  lines.add([1, 2, 3, 4].map((i) => card(i, "x", { s: "aired", at: i % 2 ? ["question"] : [] })));
  const jumped = [0, 1, 2].map(() => {
    assert.equal(column.jump("question"), true);
    return column.chosen;
  });
  assert.deepEqual(jumped, [3, 1, 3]);
  assert.equal(column.jump("supporter"), false);
});

test("what is asked to be seen is drawn anew", () => {
  come(1, 3);
  lines.add([card(4, "x", { s: "off" })]);
  lines.choose({ showOff: false });
  assert.deepEqual(
    [...page.document.querySelectorAll(".row")].map((row) => row.dataset.line),
    ["1", "2", "3"],
  );
});
