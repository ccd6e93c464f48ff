import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { MOTION } from "../support/cards.js";
import { showSample } from "../../../assets/js/draft/main.js";
import { AlertsPiece } from "../../../assets/js/link/alerts_piece.js";
import { CaptionsPiece } from "../../../assets/js/link/captions_piece.js";
import { GoalPiece } from "../../../assets/js/link/goal_piece.js";
import { PortraitsPiece } from "../../../assets/js/link/portraits_piece.js";
import { ShoutOutPiece } from "../../../assets/js/link/shout_out_piece.js";

eachOnAPage();

const look = (pieces, told) => pieces.map((one) => showSample(one, told));

function piece(Kind, kind, shown, style = {}) {
  const sample = shown && [...shown, "Piece: a sample"];
  const made = new Kind(`${kind}1`, { css: {} });
  const css = { "--text-size": "30px" };
  made.style({
    kind,
    place: [0, 0, 400, 300],
    opacity: 1,
    side: "front",
    css,
    words: { drawn: "line" },
    motion: MOTION,
    kinds: [],
    sample,
    ...style,
  });
  page.document.body.append(made.element);
  return made;
}

const marked = (made) => made.element.dataset.sample === "Piece: a sample";
const alertCard = (i, name) => ({ i, k: "tip", ms: 60_000, p: "above", s: 40, w: [["name", name]] });

test("an empty piece shows its sample, marked as one, until there is something", () => {
  const told = new WeakMap();
  const made = piece(AlertsPiece, "alerts", ["alert", alertCard("sample", "kestrel_ann")]);
  look([made], told);
  assert.deepEqual([made.element.textContent, marked(made)], ["kestrel_ann", true]);
  made.alert(alertCard("7", "tern_and_cough"));
  look([made], told);
  assert.deepEqual([made.shown.card.i, marked(made)], ["7", false]);
  made.alert(null);
  look([made], told);
  assert.deepEqual([made.shown.card.i, marked(made)], ["sample", true]);
});

test("a sample that is another one is shown anew", () => {
  const told = new WeakMap();
  const made = piece(ShoutOutPiece, "shout_out", ["shout", { i: "sample", n: "Tern Watch", clips: [], c: null, ms: 60_000 }]);
  look([made], told);
  made.given = { ...made.given, sample: ["shout", { i: "sample", n: "Bittern Hour", clips: [], c: null, ms: 60_000 }, "Piece: a sample"] };
  look([made], told);
  assert.equal(made.shown.element.querySelector(".shout-name").textContent, "Bittern Hour");
});

test("a goal on its way, captions and people take the sample's place", () => {
  const told = new WeakMap();
  const goal = piece(GoalPiece, "goal", ["counted", { value: 37, to: 60, share: 0.62, reached: false }], { figures: "value", steps: 4 });
  const captions = piece(CaptionsPiece, "captions", ["live", { lines: [["sample", "out of the reeds"]] }]);
  const person = { i: "odalys", n: "Odalys", s: { silent: "/assets/figure.svg" }, w: "silent" };
  const portraits = piece(PortraitsPiece, "portraits", ["voices", { p: [person] }]);
  const all = [goal, captions, portraits];
  goal.counted({ value: 0, to: 60, share: 0, reached: false });
  look(all, told);
  assert.deepEqual(all.map(marked), [true, true, true]);
  assert.deepEqual([goal.goal.value, captions.element.textContent], [37, "out of the reeds"]);
  assert.match(portraits.element.querySelector("img").src, /\/assets\/figure\.svg$/);
  goal.counted({ value: 3, to: 60, share: 0.05, reached: false });
  captions.live({ lines: [["9", "a wren"]] });
  portraits.voices({ p: [{ ...person, s: { silent: "abc" } }] });
  look(all, told);
  assert.deepEqual(all.map(marked), [false, false, false]);
});

test("a piece without a sample is left alone, and so is everything on air", () => {
  const made = piece(AlertsPiece, "alerts", undefined);
  look([made], new WeakMap());
  assert.deepEqual([made.shown, marked(made)], [undefined, false]);
});
