import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage } from "../support/page.js";

eachOnAPage({ html: "" });

let wordsOf;
beforeEach(async () => {
  ({ wordsOf } = await import("../../../assets/js/microphone/voice.js"));
});

test("a person is told the first that keeps them from being seen, and else that they are", () => {
  const fine = [
    { listens: true, open: true, talks: true, room: "The hide", off: null, gone: false },
    { on: true, muted: false },
  ];
  const told = (state, settings = {}) => wordsOf({ ...fine[0], ...state }, { ...fine[1], ...settings });
  assert.equal(told({}), "You are shown as talking.");
  assert.equal(told({ talks: false }), "Heard. Say something.");
  assert.equal(told({}, { muted: true }), "Muted. Nobody sees you talk.");
  for (const lost of [{ open: false }, { room: null }]) assert.match(told(lost, { muted: true }), /line is lost/);
  assert.match(told({ listens: false, open: false }), /Waiting for the microphone/);
  assert.match(told({ listens: false }, { on: false }), /is off/);
  assert.equal(told({ off: "This room is off." }, { on: false }), "This room is off.");
  assert.match(told({ gone: true, off: "This room is off." }), /not valid any more/);
});
