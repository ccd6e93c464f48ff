import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, hide, openPage, page } from "../support/page.js";
import { card, chatStyle, stage } from "../support/cards.js";
import { Picture } from "../../../assets/js/link/picture.js";

eachOnAPage({ html: '<div id="stage"></div>' });

let picture;
let painted;

function begin({ overrides = {}, side = "", style = stage([chatStyle()]) } = {}) {
  painted = [];
  page.document.querySelector("#stage").replaceChildren();
  picture = new Picture(page.document.querySelector("#stage"), { css: {}, ...overrides }, side, (id) => painted.push(id));
  picture.apply({ whole: true, style, in: {}, live: {} });
}

beforeEach(() => begin());

const lines = () => [...page.document.querySelectorAll(".line:not(.leaving)")].map((line) => line.querySelector(".text").textContent);
const come = (...cards) => picture.apply({ in: { chat1: cards }, now: 1 });

test("lines stand with the newest first in the document, wherever they come from", () => {
  come(card(1), card(3));
  come(card(2, "from history"));
  assert.deepEqual(lines(), ["line 3", "from history", "line 1"]);
  assert.deepEqual(painted, [1, 3, 2]);
});

test("the same line is never twice on the page", () => {
  come(card(1));
  come(card(1));
  picture.apply({ whole: true, style: stage([chatStyle()]), in: { chat1: [card(1)] }, live: {} });
  assert.deepEqual([lines(), painted], [["line 1"], [1]]);
});

test("what is pulled is gone at once, what leaves goes out by its motion", () => {
  come(card(1), card(2));
  picture.apply({ pulled: { chat1: [1] }, out: { chat1: [2] }, now: 2 });
  assert.equal(page.document.querySelectorAll("[data-line='1']").length, 0);
  const leaving = page.document.querySelector("[data-line='2']");
  assert.ok(leaving.classList.contains("leaving"));
  page.ways.find((way) => way.timing.fill === "forwards").finish();
  assert.equal(leaving.isConnected, false);
});

test("what came and went while the page was away is never put on it", () => {
  picture.applyMissed([
    { in: { chat1: [card(1), card(2)] }, now: 1 },
    { pulled: { chat1: [1] }, now: 2 },
    { in: { chat1: [card(3)] }, out: { chat1: [2] }, now: 3 },
  ]);
  assert.deepEqual([lines(), painted], [["line 3"], [3]]);
});

test("what is pulled leaves at once, also where the rest of it cannot be shown yet", () => {
  come(card(1), card(2), card(3));
  picture.apply({ large: card(3), now: 2 });
  picture.takeAway({
    pulled: { chat1: [1], chat9: [1] },
    out: { chat1: [2] },
    in: { chat1: [card(4)] },
    large: null,
    alert: { off: 7 },
    now: 3,
  });
  picture.takeAway({ missed: [{ pulled: { chat1: [3] }, now: 4 }], at: "b:4" });
  assert.deepEqual([lines(), painted, page.document.querySelector(".large-line .line")], [["line 2"], [1, 2, 3], null]);
});

test("what went while the page was away and came again is there", () => {
  come(card(1));
  picture.applyMissed([
    { pulled: { chat1: [1] }, now: 2 },
    { in: { chat1: [card(2)] }, now: 3 },
    { in: { chat1: [card(1)] }, out: { chat1: [2] }, now: 4 },
  ]);
  assert.deepEqual([lines(), painted], [["line 1"], [1, 1]]);
});

test("what is caught up with moves nothing and lets nothing fly", () => {
  const before = page.ways.length;
  picture.applyMissed([{ in: { chat1: [card(1)] }, fly: { chat1: [{}] }, now: 1 }]);
  assert.equal(page.ways.length, before);
});

test("a whole picture leaves what stands where it is and takes the rest away", () => {
  come(card(1), card(2));
  const stays = page.document.querySelector("[data-line='2']");
  picture.apply({
    whole: true,
    style: stage([chatStyle()]),
    in: { chat1: [card(2, "line 2", { c: "#112233" }), card(3)] },
    live: {},
    now: 9,
  });
  assert.deepEqual(lines(), ["line 3", "line 2"]);
  assert.equal(page.document.querySelector("[data-line='2']"), stays);
  assert.equal(stays.style.getPropertyValue("--name"), "#112233");
});

test("a hidden page draws what comes, without motion", () => {
  hide(true);
  come(card(1));
  assert.deepEqual([lines(), page.ways.length], [["line 1"], 0]);
});

test("pieces that are no longer on the stage leave it with all that is in them", () => {
  come(card(1));
  picture.apply({ style: stage([]) });
  assert.deepEqual([lines(), page.document.querySelectorAll(".piece").length], [[], 0]);
});

test("pieces stand in the stage's order, and are moved in the document only where it is another", () => {
  const two = [chatStyle(), chatStyle({ id: "chat2" })];
  begin({ style: stage(two) });
  const order = () => [...page.document.querySelectorAll(".piece")].map((piece) => piece.dataset.piece);
  assert.deepEqual(order(), ["chat1", "chat2"]);
  picture.apply({ style: stage([], { order: ["chat2", "chat1"] }) });
  assert.deepEqual(order(), ["chat2", "chat1"]);
  let moved = 0;
  const root = page.document.querySelector("#stage");
  const { append } = root;
  root.append = (...all) => {
    moved += 1;
    return append.apply(root, all);
  };
  picture.apply({ style: stage([chatStyle()], { order: ["chat2", "chat1"] }) });
  assert.equal(moved, 0);
});

test("a link for one side of the camera shows that side alone", () => {
  const style = stage([chatStyle(), chatStyle({ id: "chat2", side: "behind" })], { behind: true });
  for (const [side, seen] of [
    ["behind", ["chat2"]],
    ["front", ["chat1"]],
    ["", ["chat1", "chat2"]],
  ]) {
    openPage({ html: '<div id="stage"></div>' });
    begin({ side, style });
    const shown = [...page.document.querySelectorAll(".piece")].filter((piece) => !piece.hidden).map((piece) => piece.dataset.piece);
    assert.deepEqual(shown, seen, side);
  }
});

test("a link may name the pieces that its screen shows, and which parts of a line", () => {
  const style = stage([chatStyle(), chatStyle({ id: "chat12" })]);
  for (const [only, seen] of [
    [["chat12"], ["chat12"]],
    [["chat"], ["chat1", "chat12"]],
    [["goal"], []],
    [[], ["chat1", "chat12"]],
  ]) {
    begin({ style, overrides: { only, parts: { badges: "none" } } });
    const shown = [...page.document.querySelectorAll(".piece")].filter((piece) => !piece.hidden);
    assert.deepEqual(
      shown.map((piece) => piece.dataset.piece),
      seen,
      only.join(),
    );
    for (const piece of shown) assert.equal(piece.dataset.badges, "none");
  }
});

test("what a link says of a kind or of one piece counts there alone, the narrower word before the wider", () => {
  const of = { goal: { css: { "--text-size": "9px" } }, chat12: { css: { "--text-size": "40px" }, parts: { times: "shown" }, lines: 3 } };
  begin({
    style: stage([chatStyle(), chatStyle({ id: "chat12" })]),
    overrides: { css: { "--text-size": "30px" }, parts: { badges: "none" }, of },
  });
  const [first, other] = page.document.querySelectorAll(".piece");
  assert.deepEqual(
    [first, other].map((piece) => piece.style.getPropertyValue("--text-size")),
    ["30px", "40px"],
  );
  assert.deepEqual(
    [first, other].map(({ dataset }) => [dataset.badges, dataset.times === "shown"]),
    [
      ["none", false],
      ["none", true],
    ],
  );
  assert.deepEqual([picture.pieces.get("chat1").overrides.lines, picture.pieces.get("chat12").overrides.lines], [undefined, 3]);
});

test("a kind of piece that this page does not know yet is left out", () => {
  begin({ style: stage([{ id: "new1", kind: "of tomorrow" }, chatStyle()]) });
  assert.deepEqual(
    [...page.document.querySelectorAll(".piece")].map((piece) => piece.dataset.piece),
    ["chat1"],
  );
});

test("in a window of another size the stage is drawn as large as it fits, in the middle", () => {
  const root = page.document.querySelector("#stage");
  assert.equal(root.style.transform, "none");
  globalThis.innerWidth = 960;
  globalThis.innerHeight = 1080;
  picture.fit();
  assert.equal(root.style.transform, "translate(0px, 270px) scale(0.5)");
});

test("the line that is being answered stands large, but not behind the camera", () => {
  picture.apply({ large: card(7, "what bird is it?") });
  assert.equal(page.document.querySelector(".large-line .text").textContent, "what bird is it?");
  picture.apply({ large: null });
  assert.equal(page.document.querySelector(".large-line").hidden, true);
  openPage({ html: '<div id="stage"></div>' });
  begin({ side: "behind" });
  picture.apply({ large: card(7) });
  assert.equal(page.document.querySelector(".large-line").hidden, true);
});

test("a link that was replaced empties the picture", () => {
  come(card(1));
  picture.apply({ large: card(1) });
  picture.empty();
  assert.equal(page.document.querySelector("#stage").textContent, "");
});
