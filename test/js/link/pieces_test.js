import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, hide, page } from "../support/page.js";
import { MOTION } from "../support/cards.js";
import { AlertsPiece } from "../../../assets/js/link/alerts_piece.js";
import { CaptionsPiece } from "../../../assets/js/link/captions_piece.js";
import { ChallengePiece, GoalPiece } from "../../../assets/js/link/goal_piece.js";
import { FlurryPiece } from "../../../assets/js/link/flurry_piece.js";
import { NewestPiece } from "../../../assets/js/link/newest_piece.js";
import { PicturePiece, VideoPiece } from "../../../assets/js/link/picture_piece.js";
import { ShoutOutPiece } from "../../../assets/js/link/shout_out_piece.js";
import { VoicesPiece } from "../../../assets/js/link/voices_piece.js";
import { ClockPiece, CounterPiece, NowLinePiece, TextPiece } from "../../../assets/js/link/words_piece.js";

eachOnAPage();

function piece(Kind, style = {}) {
  const made = new Kind("p1", { css: {} });
  made.style({ place: [0, 0, 400, 300], opacity: 1, side: "front", css: { "--text-size": "30px" }, words: {}, motion: MOTION, ...style });
  page.document.body.append(made.element);
  return made;
}

const text = (made, selector) => made.element.querySelector(selector)?.textContent;

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

// Goals.

const goal = (values, style = {}) => {
  const made = piece(GoalPiece, {
    title: "Nest boxes",
    reached: "All of them!",
    figures: "both",
    counted: "worth",
    unit: "EUR",
    words: { drawn: "line" },
    ...style,
  });
  made.counted({ value: 0, to: 60, share: 0, reached: false, ...values });
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

const challenge = (card, style = {}) => {
  const made = piece(ChallengePiece, {
    title: "Fill the feeder",
    waits: "soon",
    reached: "Done!",
    missed: "",
    figures: "both",
    unit: "seeds",
    words: { drawn: "line" },
    ...style,
  });
  made.live({ value: 3, to: 10, share: 0.3, stages: [25, 50], passed: 1, state: "running", left: 90_500, ...card });
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

// Voices.

const person = (i, more = {}) => ({ i, n: i, a: i[0], c: "#8fc0ea", ...more });
const voices = (style = {}) => piece(VoicesPiece, { words: { arranged: "upright" }, arc_degrees: 180, ...style });
const seats = (made) => [...made.element.querySelectorAll(".voice:not(.leaving)")].map((one) => one.dataset.voice);

test("people of a room come, go and stand in the order they are told in", () => {
  const made = voices();
  made.voices({ p: [person("odalys"), person("teo")] });
  made.voices({ p: [person("teo"), person("ibrahim"), person("odalys")] });
  assert.deepEqual(seats(made), ["teo", "ibrahim", "odalys"]);
  made.voices({ p: [person("ibrahim")], o: 2 });
  assert.deepEqual([seats(made), text(made, ".voice-more")], [["ibrahim"], "and 2 more"]);
  made.voices({ p: [], e: "Nobody is here" });
  assert.deepEqual([seats(made), text(made, ".voice-empty"), text(made, ".voice-more")], [[], "Nobody is here", undefined]);
});

test("who talks is shown, who is muted has a mark, and a lost service dims the room", () => {
  const made = voices();
  made.voices({ p: [person("teo", { t: 1, l: 5, m: ["muted", "of tomorrow"] })], q: 1 });
  const teo = made.element.querySelector(".voice");
  assert.deepEqual(
    [teo.classList.contains("talking"), teo.style.getPropertyValue("--loud"), made.element.classList.contains("dimmed")],
    [true, "0.5", true],
  );
  assert.deepEqual(
    [...teo.querySelectorAll(".voice-mark")].map((mark) => mark.getAttribute("aria-label")),
    ["muted"],
  );
  made.voices({ p: [person("teo")] });
  assert.deepEqual([teo.classList.contains("talking"), teo.querySelectorAll(".voice-mark").length], [false, 0]);
});

test("a face that does not come is a letter", () => {
  const made = voices();
  made.voices({ p: [person("teo", { f: "abc" })] });
  made.element.querySelector("img").dispatchEvent(new page.window.Event("error"));
  assert.equal(text(made, ".voice-picture.drawn"), "t");
});

test("on an arc people stand evenly apart, one alone in the middle", () => {
  const made = voices({ words: { arranged: "arc" } });
  const places = () =>
    [...made.people.values()].map((one) => [one.element.style.getPropertyValue("--arc-x"), one.element.style.getPropertyValue("--arc-y")]);
  made.voices({ p: [person("a")] });
  assert.deepEqual(places(), [["0.0000", "-1.0000"]]);
  made.voices({ p: [person("a"), person("b"), person("c")] });
  assert.deepEqual(
    places().map(([x]) => Number(x)),
    [-1, 0, 1],
  );
});

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

test("a hidden page lets people of a room stand at once", () => {
  const made = voices();
  hide(true);
  made.voices({ p: [person("teo")] });
  assert.equal(page.ways.length, 0);
});
