import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page } from "../support/page.js";
import { Doubt } from "../../../assets/js/link/doubt.js";

eachOnAPage({ html: '<div id="stage"></div>' });

let after;
let doubt;
let date;
const doubted = () => find("#stage").classList.contains("doubted");

beforeEach(() => {
  after = 15_000;
  date = 0;
  Date.now = () => date + page.clock.now;
  doubt = new Doubt(find("#stage"), () => after);
});

test("after a while without a word chat leaves, and is back with the next word", () => {
  page.clock.pass(15_000);
  assert.equal(doubted(), false);
  page.clock.pass(600);
  assert.equal(doubted(), true);
  doubt.sure();
  assert.equal(doubted(), false);
});

test("as long as it is of now it stays", () => {
  for (let second = 0; second < 60; second += 1) {
    page.clock.pass(1000);
    doubt.sure();
  }
  assert.equal(doubted(), false);
});

test("a computer that slept for long does not show what it showed before", () => {
  page.clock.pass(1000);
  date = 3_600_000;
  page.clock.pass(600);
  assert.equal(doubted(), true);
});

test("where the host rather keeps it, and before it is known, it stays", () => {
  after = undefined;
  page.clock.pass(600_000);
  assert.equal(doubted(), false);
});
