import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, hide, page } from "../support/page.js";
import { MOTION } from "../support/cards.js";
import { PortraitsPiece } from "../../../assets/js/link/portraits_piece.js";
import { RoomCardPiece } from "../../../assets/js/link/room_card_piece.js";

eachOnAPage();

const STYLE = { place: [0, 0, 400, 300], opacity: 1, side: "front", css: {}, words: {}, motion: MOTION };
const PICTURES = { silent: "s1", talking: "t1", loud: "l1" };
let made;

const person = (i, more = {}) => ({ i, n: i.toUpperCase(), s: PICTURES, w: "silent", ...more });
const shown = (i) => find(`[data-voice="${i}"] .portrait-state.shown`)?.dataset.state;
const states = (i) => all(`[data-voice="${i}"] .portrait-state`).map((image) => image.dataset.state);

function portraits(style = {}) {
  made = new PortraitsPiece("p1", { css: {} });
  made.style({
    ...STYLE,
    align: "middle",
    mirrored: "none",
    figure: 80,
    gap: 10,
    swap: "cut",
    swap_ms: 90,
    bounce: 5,
    quiet_opacity: 60,
    sized: "own",
    blinks: true,
    ...style,
  });
  page.document.body.append(made.element);
  return made;
}

beforeEach(() => portraits());

test("all pictures of somebody are there from the start and one of them is shown", () => {
  made.voices({ p: [person("teo")] });
  assert.deepEqual([states("teo"), shown("teo")], [["silent", "talking", "loud"], "silent"]);
  made.voices({ p: [person("teo", { w: "loud", t: 1, l: 7 })] });
  const figure = find('[data-voice="teo"]');
  assert.deepEqual([shown("teo"), figure.classList.contains("talking"), figure.style.getPropertyValue("--loud")], ["loud", true, "0.7"]);
});

test("where there is no picture for what somebody does, a quieter one is shown", () => {
  made.voices({
    p: [
      person("teo", { s: { silent: "s1" }, w: "loud" }),
      person("ann", { s: { talking: "t1" }, w: "muted" }),
      person("bo", { s: { blink: "b" }, w: "silent" }),
    ],
  });
  assert.deepEqual(["teo", "ann", "bo"].map(shown), ["silent", "talking", "blink"]);
  made.voices({ p: [person("teo", { s: {}, w: "silent" })] });
  assert.equal(shown("teo"), undefined);
});

test("another picture takes the place of the one before, and one taken away goes", () => {
  made.voices({ p: [person("teo")] });
  const kept = find('[data-state="talking"]');
  made.voices({ p: [person("teo", { s: { silent: "s2", talking: "t1" } })] });
  assert.deepEqual(states("teo"), ["talking", "silent"]);
  assert.equal(find('.portrait-state[data-state="talking"]'), kept);
  assert.equal(find('.portrait-state[data-state="silent"]').getAttribute("src"), "/pictures/s2-4.webp");
});

test("a picture that cannot be loaded is not waited for", () => {
  made.voices({ p: [person("teo", { w: "talking" })] });
  find('.portrait-state[data-state="talking"]').dispatchEvent(new globalThis.Event("error"));
  assert.deepEqual([shown("teo"), states("teo")], ["silent", ["silent", "loud"]]);
});

test("people stand in their order, and whoever leaves is gone", () => {
  const order = () => all(".portrait").map((figure) => figure.dataset.voice);
  made.voices({ p: [person("teo"), person("ann")] });
  made.voices({ p: [person("ann"), person("teo"), person("bo")] });
  assert.deepEqual(order(), ["ann", "teo", "bo"]);
  made.voices({ p: [person("bo")], q: 1 });
  assert.deepEqual([order(), made.element.classList.contains("dimmed")], [["bo"], true]);
});

test("by their own pixels the highest fills the row", () => {
  made.voices({ p: [person("teo", { s: { silent: "s1" } }), person("ann", { s: { silent: "s2" } })] });
  const [one, other] = all(".portrait-state");
  Object.defineProperty(one, "naturalHeight", { value: 200 });
  Object.defineProperty(other, "naturalHeight", { value: 150 });
  other.dispatchEvent(new globalThis.Event("load"));
  assert.deepEqual([one.style.height, other.style.height], ["100%", "75%"]);
  made.style({ ...made.given, sized: "same" });
  assert.deepEqual([one.style.height, other.style.height], ["", ""]);
});

// From and to, in ms.
function blinksOf(i, within) {
  const spans = [];
  for (let ms = 10; ms <= within; ms += 10) {
    page.clock.pass(10);
    assert.equal(shown("ann"), "silent");
    if (shown(i) === "blink" && spans.at(-1)?.length !== 1) spans.push([ms]);
    if (shown(i) !== "blink" && spans.at(-1)?.length === 1) spans.at(-1).push(ms);
  }
  return spans;
}

for (const [chance, spans] of [
  [0, [2800, 5600, 8400, 11_200]],
  [1, [6400, 12_800]],
])
  test(`who is silent blinks for a moment, as soon as chance has it: ${chance}`, () => {
    page.chance = chance;
    made.voices({ p: [person("teo", { s: { ...PICTURES, blink: "b1" } }), person("ann")] });
    assert.deepEqual(
      blinksOf("teo", 13_000),
      spans.map((from) => [from, from + 130]),
    );
  });

test("nobody blinks while talking, in another tab, where it is not wanted, or once it is removed", () => {
  const blinks = () => {
    for (let ms = 0; ms < 14_000; ms += 50) {
      page.clock.pass(50);
      if (shown("teo") === "blink") return true;
    }
    return false;
  };
  const pictures = { ...PICTURES, blink: "b1" };
  made.voices({ p: [person("teo", { s: pictures, w: "talking" })] });
  assert.equal(blinks(), false);
  made.voices({ p: [person("teo", { s: pictures })] });
  hide(true);
  assert.equal(blinks(), false);
  hide(false);
  assert.equal(blinks(), true);
  page.clock.pass(200);
  made.style({ ...made.given, blinks: false });
  assert.equal(blinks(), false);
});

const ROOM = { title: "shown", count: "shown", picture: "shown", join: "Come in" };

function room(style = {}, card = { n: "The hides", w: "4 there", f: "abc", k: [21, "M0 0"] }) {
  const piece = new RoomCardPiece("p1", { css: {} });
  piece.style({ ...STYLE, ...ROOM, ...style });
  piece.voices(card);
  return piece;
}
const words = (piece) => [...piece.element.querySelectorAll(".room-words > *")].filter((one) => !one.hidden).map((one) => one.textContent);

test("a room's card tells what is wanted of it", () => {
  const piece = room();
  assert.deepEqual(words(piece), ["The hides", "4 there", "Come in"]);
  assert.equal(piece.element.querySelector(".room-picture").getAttribute("src"), "/pictures/abc-4.webp");
  assert.equal(piece.element.querySelector(".room-code").getAttribute("viewBox"), "0 0 21 21");
  assert.deepEqual(words(room({ title: "none", count: "none", join: "" })), []);
  const card = { n: "The hides", w: "4 there", o: "214 online" };
  assert.deepEqual(words(room({ count: "on the service" }, card)), ["The hides", "214 online", "Come in"]);
  assert.deepEqual(words(room({ count: "on the service" })), ["The hides", "Come in"]);
  assert.equal(room({ picture: "none" }).element.querySelector(".room-picture").hidden, true);
});

test("without a room it is empty, and a lost one is dimmed", () => {
  const piece = room({}, {});
  assert.deepEqual(
    [piece.element.classList.contains("empty"), piece.element.querySelector(".room-code").hasAttribute("hidden")],
    [true, true],
  );
  piece.voices({ n: "<b>x</b>", q: 1 });
  assert.deepEqual(
    [
      piece.element.classList.contains("dimmed"),
      piece.element.classList.contains("empty"),
      piece.element.querySelector(".room-name").textContent,
    ],
    [true, false, "<b>x</b>"],
  );
});

test("a room's picture that does not come leaves no hole", () => {
  const piece = room();
  const picture = piece.element.querySelector(".room-picture");
  picture.dispatchEvent(new globalThis.Event("error"));
  assert.equal(picture.hidden, true);
});
