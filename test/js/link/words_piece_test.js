import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { MOTION } from "../support/cards.js";
import { CaptionsPiece } from "../../../assets/js/link/captions_piece.js";
import { NewestPiece } from "../../../assets/js/link/newest_piece.js";
import { ClockPiece, CounterPiece, NowLinePiece, TextPiece } from "../../../assets/js/link/words_piece.js";
import { piece, text } from "../support/on_air.js";

eachOnAPage();

// Words.

test("text, counters and captions are words, whatever is in them", () => {
  assert.equal(text(piece(TextPiece, { content: "<b>now</b>" }), ".text"), "<b>now</b>");
  const counter = piece(CounterPiece, { content: "Ringed: {count} ({count})" });
  assert.equal(text(counter, ".text"), "");
  counter.live({ count: 0 });
  assert.equal(text(counter, ".text"), "Ringed: 0 (0)");
  counter.style({ ...counter.given, content: "Ringed" });
  assert.equal(text(counter, ".text"), "Ringed 0");
});

const clock = (told, style = {}) => {
  const made = piece(ClockPiece, { clock: "length", before: "", after: "", ...style });
  made.live(told);
  return made;
};

test("a clock counts down to 0:00 and then says what comes after", () => {
  const made = clock({ value_ms: 61_500, goes: "down" }, { before: "Back in", after: "Any moment" });
  assert.equal(text(made, ".text"), "Back in 1:02");
  page.clock.pass(61_000);
  assert.equal(text(made, ".text"), "Back in 0:01");
  page.clock.pass(1000);
  assert.equal(text(made, ".text"), "Any moment");
  made.remove();
  assert.equal(page.clock.due.length, 0);
});

test("a stopwatch counts up from what it was told, one that stands does not", () => {
  const up = clock({ value_ms: 3_599_000, goes: "up" });
  const stands = clock({ value_ms: 59_999, goes: "stands" });
  page.clock.pass(2000);
  assert.deepEqual([text(up, ".text"), text(stands, ".text")], ["1:00:01", "0:59"]);
});

test("the time of day has two figures each", () => {
  const told = { value_ms: ((7 * 60 + 5) * 60 + 9) * 1000, goes: "stands" };
  assert.equal(text(clock(told, { clock: "time", clock_form: "minutes" }), ".text"), "07:05");
  assert.equal(text(clock(told, { clock: "time", clock_form: "seconds" }), ".text"), "07:05:09");
});

test("now lines come in turn, and setting the same ones again does not begin anew", () => {
  const made = piece(NowLinePiece, { seconds: 4, words: { turn: "fade", too_long: "cut" } });
  made.live({ lines: ["one", "two"] });
  page.clock.pass(4000);
  made.live({ lines: ["one", "two"] });
  assert.equal(text(made, ".text"), "two");
  page.clock.pass(4000);
  assert.equal(text(made, ".text"), "one");
  made.live({ lines: [] });
  assert.ok(made.element.classList.contains("empty"));
  made.remove();
  assert.equal(page.clock.due.length, 0);
});

test("captions come and go one by one", () => {
  const made = piece(CaptionsPiece);
  made.live({
    lines: [
      [1, "one"],
      [2, "two"],
    ],
  });
  made.live({
    lines: [
      [2, "two"],
      [3, "three"],
    ],
  });
  page.ways.find((way) => way.frames === MOTION.out).finish();
  assert.deepEqual(
    [...made.element.querySelectorAll(".caption")].map((one) => one.textContent),
    ["two", "three"],
  );
});

test("the newest are rows of a name and what stands beside it", () => {
  const made = piece(NewestPiece, { title: "", what: "list", figures: true, otherwise: "Nobody yet" });
  made.counted({ rows: [] });
  assert.equal(text(made, ".newest-rows"), "Nobody yet");
  made.counted({ rows: [["<Ann>", "5 EUR"]] });
  assert.deepEqual([text(made, ".newest-name"), text(made, ".newest-figure")], ["<Ann>", "5 EUR"]);
  made.style({ ...made.given, figures: false });
  assert.equal(text(made, ".newest-figure"), undefined);
  assert.equal(made.element.querySelector(".newest-title").hidden, true);
});
