import assert from "node:assert/strict";
import { test } from "node:test";
import { levelOf, lengthOf, Meter, NO_FLOOR, SILENCE } from "../../../assets/js/microphone/level.js";

test("levels are −dBov of the mean square, 0 to 127", () => {
  assert.equal(levelOf(1), 0);
  assert.equal(levelOf(0.5), 3, "a sine at its loudest");
  assert.equal(levelOf(0.001), 30);
  assert.equal(levelOf(10 ** -12.6), 126);
  assert.equal(levelOf(10 ** -20), SILENCE);
  for (const nothing of [0, -1, Number.NaN, undefined]) assert.equal(levelOf(nothing), SILENCE);
  assert.equal(levelOf(4), 0, "louder than there is");
});

test("gain moves a level, and what is under the floor is silence", () => {
  assert.equal(levelOf(0.001, { gain: 12 }), 18);
  assert.equal(levelOf(0.001, { gain: -20 }), 50);
  assert.equal(levelOf(0.5, { gain: 20 }), 0);
  assert.equal(levelOf(0.001, { floor: -29 }), SILENCE);
  assert.equal(levelOf(0.001, { floor: -31 }), 30);
  assert.equal(levelOf(0.001, { floor: -31, gain: -2 }), SILENCE, "after the gain");
  assert.equal(levelOf(10 ** -9, { floor: NO_FLOOR }), 90, "no floor at all");
});

test("a meter goes from nothing to all", () => {
  assert.deepEqual([SILENCE, 80, 40, 0].map(lengthOf), [0, 0, 0.5, 1]);
});

test("a meter is painted every few levels, as far as the loudest of them, and at once when it is silent", () => {
  const painted = [];
  const meter = new Meter((length) => painted.push(length));
  const hear = (...levels) => {
    for (const level of levels) meter.heard(level);
    return painted.splice(0);
  };
  assert.deepEqual(hear(60, 20, 40), []);
  assert.deepEqual(hear(60), [0.75]);
  assert.deepEqual(hear(20, 21, 60, 70), [], "the same as before");
  assert.deepEqual(hear(40, 40, 40, 40), [0.5]);
  assert.deepEqual(hear(40, SILENCE), [], "the loudest since is as it was");
  assert.deepEqual(hear(SILENCE, SILENCE), [0]);
});
