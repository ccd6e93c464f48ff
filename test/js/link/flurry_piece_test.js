import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { FlurryPiece } from "../../../assets/js/link/flurry_piece.js";
import { piece, text } from "../support/on_air.js";

eachOnAPage();

// Flights.

const flight = (i, more = {}) => ({
  i,
  l: 5,
  e: [":owl:", "abc", 1, 0],
  h: 56,
  ms: 3000,
  w: 0,
  z: 0.5,
  p: [
    [0, 0, 0, 0],
    [1000, 100, 200, 90],
  ],
  ...more,
});

test("still emotes fly on the canvas, those that move by themselves as elements", () => {
  const made = piece(FlurryPiece);
  made.canvas.begin = () => {
    made.canvas.drawing = 1;
  };
  made.fly([flight(1), flight(2, { e: [":egg:", "abc", 1, 1] })]);
  assert.deepEqual([made.canvas.size, made.element.querySelectorAll(".flight").length, made.element.dataset.flying], [1, 1, "2"]);
  made.fly([flight(1)]);
  assert.equal(made.canvas.size, 1);
  page.ways[0].finish();
  assert.equal(made.element.dataset.flying, "1");
});

test("one that moves by itself grows from nothing when it goes off", () => {
  const made = piece(FlurryPiece);
  made.fly([flight(1, { e: [":egg:", "abc", 1, 1], g: 280, w: 500 })]);
  const opacities = page.ways[1].frames.map((step) => step.opacity);
  const { frames, timing } = page.ways[2];
  assert.deepEqual(opacities, [1, 1, 1, 0]);
  assert.deepEqual([frames, timing.duration, timing.delay], [[{ scale: 0 }, { scale: 1 }], 280, 500]);
});

test("what was pulled comes down with all its emotes", () => {
  const made = piece(FlurryPiece);
  made.canvas.begin = () => {
    made.canvas.drawing = 1;
  };
  made.fly([flight(1), flight(2, { e: [":egg:", "abc", 1, 1] }), flight(3, { l: 6 })]);
  made.ground([5]);
  assert.deepEqual([made.canvas.size, made.element.dataset.flying], [1, "1"]);
});

test("the same emote from many grows, and says from how many", () => {
  const made = piece(FlurryPiece);
  made.fly([flight(1, { n: 5, s: 1.3 })]);
  assert.equal(text(made, ".flight-count"), "×5");
  made.grow([
    [1, 9, 1.8],
    [77, 3, 1],
  ]);
  assert.equal(text(made, ".flight-count"), "×9");
  assert.equal(made.element.querySelector(".flight-body").style.getPropertyValue("--grown"), "1.8");
});
