import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";

eachOnAPage({
  html: `<button id="one"></button><label id="words">On<input type="checkbox"></label><label id="size">Size<input type="number"></label><input type="range" id="slid">`,
});

let times = 0;
// As a page has it: it listens from when it is read.
const read = () => {
  times += 1;
  return import(`../../../assets/js/house/pressed.js?${times}`);
};
const point = (name, on = "#one") => document.querySelector(on).dispatchEvent(new Event(`pointer${name}`, { bubbles: true }));

test("what nobody presses is drawn at once", async () => {
  const { released, unpressed } = await read();
  const drawn = [];
  unpressed(() => drawn.push(1));
  assert.deepEqual(drawn, [1]);
  assert.equal(released(), null);
});

test("under a finger nothing is drawn before it is let go, and then all of it in its order", async () => {
  const { released, unpressed } = await read();
  const drawn = [];
  point("down");
  unpressed(() => drawn.push(1));
  const answer = released().then(() => drawn.push("answer"));
  unpressed(() => drawn.push(2));
  page.clock.pass(900);
  assert.deepEqual(drawn, []);
  point("up");
  // The press itself is told now.
  assert.deepEqual(drawn, []);
  page.clock.pass(1);
  await answer;
  assert.deepEqual(drawn, [1, 2, "answer"]);
  unpressed(() => drawn.push(3));
  assert.equal(drawn.at(-1), 3);
});

test("what is held for long holds nothing up", async () => {
  const { unpressed } = await read();
  const drawn = [];
  point("down");
  unpressed(() => drawn.push(1));
  page.clock.pass(1001);
  assert.deepEqual(drawn, [1]);
  point("down");
  unpressed(() => drawn.push(2));
  point("cancel");
  page.clock.pass(1);
  assert.deepEqual(drawn, [1, 2]);
});

test("what had the keyboard before loses it as something else is pressed", async () => {
  const { unpressed } = await read();
  const drawn = [];
  point("down");
  document.querySelector("#slid").dispatchEvent(new Event("blur"));
  page.clock.pass(10);
  unpressed(() => drawn.push(1));
  assert.deepEqual(drawn, []);
  window.dispatchEvent(new Event("blur"));
  page.clock.pass(1);
  assert.deepEqual(drawn, [1]);
});

test("a switch is pressed by its words as well; what is dragged is told at once what comes of it", async () => {
  const { unpressed } = await read();
  const drawn = [];
  for (const [on, at] of [
    ["#words", 0],
    ["#size", 1],
    ["#slid", 1],
  ]) {
    point("down", on);
    unpressed(() => drawn.push(on));
    assert.equal(drawn.includes(on), at === 1, on);
    point("up", on);
    page.clock.pass(1);
  }
});
