import assert from "node:assert/strict";
import { test } from "node:test";
import { around, moving, SMALLEST_PX, sized } from "../../../assets/js/stage/boxes.js";

const BOX = { x: 100, y: 200, width: 400, height: 300 };

test("the box around several reaches from the first edge to the last", () => {
  assert.deepEqual(around([BOX, { x: 50, y: 450, width: 10, height: 100 }]), { x: 50, y: 200, width: 450, height: 350 });
  assert.deepEqual(around([BOX]), BOX);
});

test("a side moves itself alone, and what is opposite stays", () => {
  assert.deepEqual(sized(BOX, "e", 20, 99), { width: 420 });
  assert.deepEqual(sized(BOX, "s", 99, -20), { height: 280 });
  assert.deepEqual(sized(BOX, "w", 20, 0), { width: 380, x: 120 });
  assert.deepEqual(sized(BOX, "n", 0, -20), { height: 320, y: 180 });
  assert.deepEqual(sized(BOX, "n w", -10, -10), { width: 410, height: 310, x: 90, y: 190 });
});

test("nothing becomes smaller than can be taken hold of", () => {
  assert.deepEqual(sized(BOX, "e", -1000, 0), { width: SMALLEST_PX });
  const now = sized(BOX, "n w", 1000, 1000);
  assert.deepEqual([now.width, now.height, now.x, now.y], [16, 16, 484, 484]);
});

test("kept in proportion, the side that was pulled further decides", () => {
  assert.deepEqual(sized(BOX, "s e", 400, 10, true), { width: 800, height: 600 });
  assert.deepEqual(sized(BOX, "s e", 0, 150, true), { width: 600, height: 450 });
  assert.deepEqual(sized(BOX, "e", 200, 0, true), { width: 600, height: 450 });
  assert.deepEqual(sized(BOX, "n w", 200, 0, true), { width: 200, height: 150, x: 300, y: 350 });
});

test("only edges that move come to rest somewhere", () => {
  assert.deepEqual(moving(null), { x: [0, 0.5, 1], y: [0, 0.5, 1] });
  assert.deepEqual(moving("e"), { x: [1], y: [] });
  assert.deepEqual(moving("n w"), { x: [0], y: [0] });
});
