import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { PicturePiece, VideoPiece } from "../../../assets/js/link/picture_piece.js";
import { ShoutOutPiece } from "../../../assets/js/link/shout_out_piece.js";
import { piece, text } from "../support/on_air.js";

eachOnAPage();

// Cards, pictures, films.

const fellow = (i, more = {}) => ({
  i,
  n: "Saltpan Hide",
  w: "Waders",
  s: "Knots",
  c: 2140,
  p: "abc",
  clips: ["c1", "c2"],
  r: 1,
  ms: 6000,
  ...more,
});
const card = (style = {}) =>
  piece(ShoutOutPiece, { title: "Go and see", last_shown: "shown", followers: "shown", picture: "shown", clip: "any", ...style });

test("a fellow host's card has what is known and wanted", () => {
  const made = card();
  made.shout(fellow(1));
  assert.equal(text(made, ".shout-followers"), "2 140 follow");
  assert.equal(made.element.querySelector("video").getAttribute("src"), "/films/c2.webm");
  made.shout(fellow(1));
  assert.equal(made.element.querySelectorAll(".shout").length, 1);
  const plain = card({ clip: "none", followers: "none", last_shown: "none" });
  plain.shout(fellow(2, { c: null }));
  assert.equal(plain.element.querySelector("img").getAttribute("src"), "/pictures/abc-4.webp");
  assert.deepEqual([text(plain, ".shout-followers"), text(plain, ".shout-last")], [undefined, undefined]);
});

test("a card goes when its time is over, and what is nearly over does not come", () => {
  const made = card();
  made.shout(fellow(1, { left: 300 }));
  assert.equal(made.element.querySelectorAll(".shout").length, 0);
  made.shout(fellow(2));
  page.clock.pass(5701);
  page.ways.at(-1).finish();
  assert.equal(made.element.querySelectorAll(".shout").length, 0);
});

test("pictures come in turn, one alone stays", () => {
  const made = piece(PicturePiece, {
    pictures: [
      { file: "a", seconds: 5 },
      { file: null, seconds: 1 },
      { file: "b", seconds: 2 },
    ],
    change: "fade",
    fit: "cover",
    round: 0,
  });
  const seen = () => made.element.lastElementChild.getAttribute("src");
  page.clock.pass(0);
  assert.equal(seen(), "/pictures/a-4.webp");
  page.clock.pass(5000);
  assert.equal(seen(), "/pictures/b-4.webp");
  page.clock.pass(2600);
  assert.equal(seen(), "/pictures/a-4.webp");
  assert.equal(made.element.children.length, 1);
  made.style({ ...made.given, pictures: [{ file: "c", seconds: 5 }] });
  page.clock.pass(60_000);
  assert.deepEqual([seen(), made.element.children.length], ["/pictures/c-4.webp", 1]);
});

test("a film plays as it is set, and is loaded anew only where it is another", () => {
  const made = piece(VideoPiece, { film: "f1", again: true, loudness: 0, fit: "cover", round: 0 });
  const video = made.element.querySelector("video");
  assert.deepEqual([video.loop, video.muted], [true, true]);
  made.style({ ...made.given, loudness: 40 });
  assert.deepEqual([made.element.querySelector("video"), video.muted, video.volume], [video, false, 0.4]);
  made.style({ ...made.given, film: null });
  assert.equal(made.element.querySelector("video"), null);
});
