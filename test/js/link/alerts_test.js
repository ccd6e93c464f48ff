import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { AlertsPiece } from "../../../assets/js/link/alerts_piece.js";
import { piece, text } from "../support/on_air.js";

eachOnAPage();

// Parts of an alert that do not stand as long as it does.

test("parts of an alert come and go at their times, also on a page that comes late", () => {
  const animated = [];
  page.window.Element.prototype.animate = function (frames, options) {
    const one = { on: this.className, delay: options.delay, duration: options.duration, frames, currentTime: 0 };
    animated.push(one);
    return one;
  };
  const made = piece(AlertsPiece, { kinds: [], words: { their_message: "shown" } });
  const card = { i: "a1", k: "tip", p: "above", s: 40, ms: 6000, w: [["name", "ann"]], g: [["text", "hello"]], f: "abc" };
  made.alert({ ...card, left: 4000, t: { words: [500, 6000], message: [1500, 4000] } });
  const parts = animated
    .filter(({ on }) => on !== "alert")
    .map(({ on, delay, duration, currentTime }) => [on, delay, duration, currentTime]);
  assert.deepEqual(parts, [
    ["alert-words", 500, 200, 2000],
    ["alert-message", 1500, 200, 2000],
    ["alert-message", 3700, 300, 2000],
  ]);
  animated.length = 0;
  made.alert({ ...card, i: "a2" });
  assert.deepEqual(
    animated.map(({ on }) => on),
    ["alert", "alert"],
  );
});

// Alerts.

const alerts = (style = {}) => piece(AlertsPiece, { kinds: [], words: { their_message: "shown" }, ...style });
const cue = (i, more = {}) => ({
  i,
  k: "tip",
  w: [
    ["name", "Ann"],
    ["text", " gave 5 EUR"],
  ],
  ms: 5000,
  p: "above",
  s: 40,
  ...more,
});
const shown = (made) => [...made.element.querySelectorAll(".alert")].map((one) => one.querySelector(".alert-words").textContent);

test("an alert comes, stands for its time, and goes", () => {
  const made = alerts();
  made.alert(cue(1, { g: [["text", "<i>for</i> a box"]] }));
  assert.deepEqual([shown(made), text(made, ".alert-message")], [["Ann gave 5 EUR"], "<i>for</i> a box"]);
  page.clock.pass(4699);
  assert.equal(page.ways.length, 1);
  page.clock.pass(2);
  assert.equal(page.ways.length, 2);
  page.ways[1].finish();
  assert.deepEqual(shown(made), []);
});

test("the same alert told again does not begin anew, and the next takes its place", () => {
  const made = alerts();
  made.alert(cue(1));
  made.alert(cue(1));
  assert.equal(page.ways.length, 1);
  made.alert(cue(2, { w: [["text", "another"]] }));
  page.ways[1].finish();
  assert.deepEqual(shown(made), ["another"]);
  made.alert(null);
  page.ways.at(-1).finish();
  assert.deepEqual(shown(made), []);
});

test("what was pulled is gone at once, also what is on its way out", () => {
  const made = alerts();
  made.alert(cue(1));
  made.alert(cue(2));
  assert.equal(shown(made).length, 2);
  made.alert({ off: 2 });
  assert.deepEqual(shown(made), []);
  made.alert({ off: 2, ...cue(3) });
  assert.equal(shown(made).length, 1);
});

test("a piece shows its kinds alone, and does not begin what is nearly over", () => {
  const made = alerts({ kinds: ["follow"] });
  made.alert(cue(1));
  made.alert(cue(2, { k: "follow", left: 300 }));
  assert.deepEqual(shown(made), []);
  made.alert(cue(3, { k: "follow", left: 3000 }));
  assert.equal(shown(made).length, 1);
});

test("a message is shown only where that is wanted; a picture that does not come is left out", () => {
  const made = alerts({ words: { their_message: "none" } });
  made.alert(cue(1, { g: [["text", "hello"]], f: "abc" }));
  assert.equal(text(made, ".alert-message"), undefined);
  const image = made.element.querySelector("img");
  assert.equal(image.getAttribute("src"), "/pictures/abc-4.webp");
  image.dispatchEvent(new page.window.Event("error"));
  assert.equal(made.element.querySelector("img"), null);
});

test("a film is silent until this page is the one that is heard", () => {
  const made = alerts();
  made.alert(cue(1, { film: "f1" }));
  const video = made.element.querySelector("video");
  assert.deepEqual([video.muted, video.dataset.alert, video.getAttribute("src")], [true, "1", "/films/f1.webm"]);
});
