import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { ChallengePiece, GoalPiece } from "../../../assets/js/link/goal_piece.js";
import { piece, text } from "../support/on_air.js";

eachOnAPage();

// Goals.

const goal = (values, style = {}) => {
  const made = piece(GoalPiece, {
    reached: "All of them!",
    figures: "both",
    counted: "worth",
    unit: "EUR",
    words: { drawn: "line" },
    ...style,
  });
  made.counted({ title: "Nest boxes", value: 0, to: 60, share: 0, reached: false, ...values });
  return made;
};

test("a goal by steps or marks shows as many as are done, and no more", () => {
  const steps = (drawn, share) => {
    const made = goal({ value: share * 60, share }, { steps: 12, words: { drawn } });
    const all = [...made.element.querySelectorAll(".step")].map((step) => step.classList.contains("passed"));
    return [all.length, all.filter(Boolean).length, all.lastIndexOf(true)];
  };
  for (const drawn of ["steps", "tally"]) {
    assert.deepEqual(steps(drawn, 0), [12, 0, -1]);
    assert.deepEqual(steps(drawn, 7 / 12), [12, 7, 6]);
    assert.deepEqual(steps(drawn, 0.999), [12, 11, 10]);
    assert.deepEqual(steps(drawn, 1), [12, 12, 11]);
  }
  const made = goal({ share: 0.5 }, { steps: 12, words: { drawn: "tally" } });
  assert.deepEqual([made.element.querySelectorAll(".tally").length, made.element.querySelectorAll(".across").length], [3, 2]);
  made.style({ ...made.given, steps: 5 });
  assert.equal(made.element.querySelectorAll(".step.passed").length, 2);
});

test("a goal says how far it is, in the figures that are wanted", () => {
  const values = { value: 1234.5, to: 6000, share: 0.2057 };
  assert.equal(text(goal(values), ".goal-figures"), "1 234.50 of 6 000 EUR");
  assert.equal(text(goal(values, { figures: "value" }), ".goal-figures"), "1 234.50 EUR");
  assert.equal(text(goal(values, { figures: "percent" }), ".goal-figures"), "20 %");
  assert.equal(text(goal(values, { counted: "followers" }), ".goal-figures"), "1 234.50 of 6 000");
  const none = goal(values, { figures: "none" });
  assert.equal(none.element.querySelector(".goal-figures").hidden, true);
});

test("99.9 percent is not all", () => {
  assert.equal(text(goal({ share: 0.999 }, { figures: "percent" }), ".goal-figures"), "99 %");
});

test("once it is reached it says so, where there are words for it", () => {
  const made = goal({ value: 60, share: 1, reached: true });
  assert.equal(text(made, ".goal-title"), "All of them!");
  assert.ok(made.element.classList.contains("reached"));
  assert.equal(text(goal({ reached: true }, { reached: "" }), ".goal-title"), "Nest boxes");
});

test("it is drawn as it is set, and anew when that changes", () => {
  const made = goal({ share: 0.5 }, { words: { drawn: "ring" } });
  assert.match(made.element.querySelector(".done").getAttribute("stroke-dasharray"), /^131\.9\d+ 263\.8\d+$/);
  made.style({ ...made.given, words: { drawn: "words" } });
  assert.equal(made.element.querySelector(".goal-drawing").hidden, true);
  made.style({ ...made.given, words: { drawn: "jar" } });
  assert.ok(made.element.querySelector(".goal-jar"));
});

test("it wears the face of what it has come to, which jumps when it becomes another one", () => {
  const made = goal({ face: "abc" });
  const face = made.element.querySelector(".goal-face");
  assert.deepEqual([face.hidden, face.getAttribute("src"), page.ways.length], [false, "/pictures/abc-4.webp", 0]);
  made.counted({ ...made.goal, value: 30, share: 0.5, face: "def" });
  assert.deepEqual([face.getAttribute("src"), page.ways.length, page.ways[0].element], ["/pictures/def-4.webp", 1, face]);
  made.counted({ ...made.goal, value: 31 });
  assert.equal(page.ways.length, 1);
  const { face: gone, ...without } = made.goal;
  made.counted(without);
  assert.deepEqual([gone, face.hidden], ["def", true]);
});

const challenge = (card, style = {}) => {
  const made = piece(ChallengePiece, {
    waits: "soon",
    reached: "Done!",
    missed: "",
    figures: "both",
    unit: "seeds",
    words: { drawn: "line" },
    ...style,
  });
  made.live({
    title: "Fill the feeder",
    value: 3,
    to: 10,
    share: 0.3,
    stages: [25, 50],
    passed: 1,
    state: "running",
    left: 90_500,
    ...card,
  });
  return made;
};

test("a challenge counts its time down to nothing and keeps its marks", () => {
  const made = challenge({});
  assert.equal(text(made, ".goal-left"), "1:31");
  page.clock.pass(31_000);
  assert.equal(text(made, ".goal-left"), "1:00");
  page.clock.pass(120_000);
  assert.equal(text(made, ".goal-left"), "0:00");
  made.draw();
  const marks = [...made.element.querySelectorAll(".stage-mark")];
  assert.deepEqual(
    marks.map((mark) => [mark.style.left, mark.classList.contains("passed")]),
    [
      ["25%", true],
      ["50%", false],
    ],
  );
});

test("a challenge says what becomes of it", () => {
  const words = (state, style) => text(challenge({ state, left: null }, style), ".goal-title");
  assert.deepEqual(
    ["waiting", "running", "reached", "missed"].map((state) => words(state)),
    ["Fill the feeder, soon", "Fill the feeder", "Done!", "Fill the feeder"],
  );
  const made = challenge({ state: "reached", left: 5000 });
  assert.equal(made.element.querySelector(".goal-left").hidden, true);
});

test("a challenge that is taken off ticks no more", () => {
  const ticking = () => page.clock.due.filter((one) => one.every).length;
  const before = ticking();
  const made = challenge({});
  assert.equal(ticking(), before + 1);
  made.remove();
  assert.equal(ticking(), before);
});
