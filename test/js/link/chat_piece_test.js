import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { card, chatStyle, MOTION } from "../support/cards.js";
import { ChatPiece } from "../../../assets/js/link/chat_piece.js";

eachOnAPage();

let chat;

function begin(style = chatStyle(), overrides = { css: {} }) {
  chat = new ChatPiece("chat1", overrides);
  chat.style(style);
  page.document.body.append(chat.element);
}

beforeEach(() => begin());

const NOW = { lively: 1, arriving: true, now: 100_000 };
const text = (line) => line.querySelector(".text").textContent;
const lines = () => [...chat.stack.children];

test("words of viewers are text, whatever they are", () => {
  chat.change({ in: [card(1, "<img src=x onerror=alert(1)> &amp; ‮evil", { n: "<b>Ann</b>" })] }, NOW);
  assert.equal(chat.element.querySelectorAll("img, b, script").length, 0);
  assert.equal(text(lines()[0]), "<img src=x onerror=alert(1)> &amp; ‮evil");
  assert.equal(chat.element.querySelector(".name").textContent, "<b>Ann</b>");
});

test("every second line is odd, also once a line was drawn anew", () => {
  for (const id of [1, 2, 3]) chat.add(card(id), false);
  assert.deepEqual(
    lines().map((line) => line.classList.contains("odd")),
    [true, false, true],
  );
  chat.again(card(2, "another"));
  assert.deepEqual(
    lines().map((line) => [text(line), line.classList.contains("odd")]),
    [
      ["line 3", true],
      ["another", false],
      ["line 1", true],
    ],
  );
});

test("no more lines stand there than this link asks for, the newest of them, also after a break", () => {
  begin(chatStyle(), { css: {}, lines: 2 });
  chat.change({ in: [card(1), card(2), card(3)] }, { ...NOW, lively: 0 });
  const standing = () => lines().map((line) => line.dataset.line);
  assert.deepEqual(standing(), ["3", "2"]);
  chat.change({ in: [card(4)] }, { ...NOW, lively: 0 });
  assert.deepEqual(standing(), ["4", "3"]);
  chat.replace([card(1), card(2), card(3), card(4), card(5)], 100_000, 0);
  assert.deepEqual(standing(), ["5", "4"]);
});

test("none stands longer there than this link asks for, also where it was there before this page", (context) => {
  context.mock.timers.enable({ apis: ["setTimeout"] });
  begin(chatStyle(), { css: {}, staysMs: 8000 });
  const standing = () =>
    lines()
      .filter((line) => !line.classList.contains("leaving"))
      .map((line) => line.dataset.line);
  chat.change({ in: [card(1)] }, { ...NOW, lively: 0 });
  context.mock.timers.tick(7999);
  assert.deepEqual(standing(), ["1"]);
  context.mock.timers.tick(2);
  assert.deepEqual(standing(), []);
  chat.replace(
    [
      { ...card(2), t: 91_000 },
      { ...card(3), t: 95_000 },
    ],
    100_000,
    0,
  );
  assert.deepEqual(standing(), ["3"]);
  context.mock.timers.tick(3001);
  assert.deepEqual(standing(), []);
});

test("what a link says of how long they stand counts also after the piece was set otherwise", (context) => {
  context.mock.timers.enable({ apis: ["setTimeout"] });
  begin(chatStyle(), { css: {}, staysMs: 8000 });
  chat.change({ in: [{ ...card(1), t: 100_000 }] }, { ...NOW, lively: 0 });
  chat.style(chatStyle({ motion: MOTION }));
  context.mock.timers.tick(7999);
  assert.equal(chat.lines.has(1), true);
  context.mock.timers.tick(2);
  assert.equal(chat.lines.has(1), false);
});

test("a line that is not there is not drawn anew", () => {
  chat.again(card(9));
  assert.equal(lines().length, 0);
});

test("others make room once for all that changes in a frame", () => {
  chat.add(card(1), false);
  chat.add(card(2), false);
  page.ways.length = 0;
  chat.change({ in: [card(3), card(4)], out: [1] }, NOW);
  const coming = page.ways.filter((way) => way.timing.duration === MOTION.in_ms);
  const going = page.ways.filter((way) => way.timing.fill === "forwards");
  assert.deepEqual([coming.length, going.length], [2, 1]);
});

test("in a flood nothing moves", () => {
  chat.change({ in: [card(1)] }, { ...NOW, lively: 0.01 });
  assert.equal(page.ways.length, 0);
  chat.change({ out: [1] }, { ...NOW, lively: 0.01 });
  assert.equal(lines().length, 0);
});

test("typed lines come letter by letter, an emote counting as one", () => {
  begin(chatStyle({ motion: { ...MOTION, typed: true } }));
  chat.add(
    card(1, "né", {
      f: [
        ["text", "né"],
        ["emote", ":owl:", "abc", 1, 0],
      ],
    }),
    true,
  );
  const delays = page.ways.map((way) => way.timing.delay);
  assert.deepEqual([page.ways.length, delays], [3, [0, MOTION.in_ms / 3, (MOTION.in_ms / 3) * 2]]);
});

test("a setting that changes how lines are built draws those that stand anew", () => {
  chat.add(card(1, "hello", { h: "07:24" }), false);
  assert.equal(chat.element.querySelector(".time"), null);
  chat.style(chatStyle({ parts: ["time", "name", "text"] }));
  assert.equal(chat.element.querySelector(".time").textContent, "07:24");
});

test("emotes are taken at the size that is sharp, and stand still where that is set", () => {
  const wren = { f: [["emote", ":wren:", "abc", 1.5, 1]] };
  chat.add(card(1, "", wren), false);
  const source = () => chat.element.querySelector(".emote img").getAttribute("src");
  assert.equal(source(), "/pictures/abc-2.webp");
  chat.style(chatStyle({ css: { "--text-size": "80px" } }));
  assert.equal(source(), "/pictures/abc-4.webp");
  chat.style(chatStyle({ emote_motion: "still" }));
  assert.equal(source(), "/pictures/abc-still.webp");
});

test("a link may have a size of its own", () => {
  begin(chatStyle(), { css: { "--text-size": "12px" }, newest: "top", oneName: true });
  assert.equal(chat.element.style.getPropertyValue("--text-size"), "12px");
  assert.deepEqual([chat.element.dataset.newest, chat.element.dataset.oneName], ["top", "true"]);
});

test("colours of the other form are for links that show it", () => {
  begin(chatStyle({ other: ["bright", { "--text": "#000" }] }), { css: {}, form: "bright" });
  chat.add(card(1, "x", { d: "#010203" }), false);
  assert.equal(lines()[0].style.getPropertyValue("--name"), "#010203");
  chat.recolour(1, "#111111", "#222222");
  assert.equal(lines()[0].style.getPropertyValue("--name"), "#222222");
  assert.equal(chat.element.style.getPropertyValue("--text"), "#000");
});

test("times as age are counted on the page", () => {
  begin(chatStyle({ words: { times: "shown" }, time_form: "age", parts: ["time", "name", "text"] }));
  chat.change({ in: [card(1, "x", { t: 100_000 - 65_000, h: "now" })] }, NOW);
  const age = () => chat.element.querySelector(".time").textContent;
  const first = age();
  page.clock.pass(60_000);
  assert.notEqual(age(), first);
  chat.remove();
  const timers = page.clock.due.length;
  assert.equal(timers, 0);
});

test("a value that is set no more is taken off the piece", () => {
  begin(chatStyle({ css: { "--plate": "#123456" } }));
  assert.equal(chat.element.style.getPropertyValue("--plate"), "#123456");
  chat.style(chatStyle());
  assert.equal(chat.element.style.getPropertyValue("--plate"), "");
});

test("own CSS goes with its piece", () => {
  chat.style(chatStyle({ own_css: ".line { color: red }" }));
  assert.equal(page.document.adoptedStyleSheets.at(-1).css, ".line { color: red }");
  chat.remove();
  assert.equal(page.document.adoptedStyleSheets.length, 0);
});

test("lines of a ticker run one behind the other and are gone when they have run out", () => {
  begin(chatStyle({ words: { flow: "ticker" } }));
  chat.add(card(1), true);
  chat.add(card(2), true);
  assert.equal(page.ways.length, 2);
  page.ways[0].finish();
  assert.equal(lines().find((line) => line.dataset.line === "1").hidden, true);
  chat.leave(2, 1);
  assert.equal(lines().length, 2);
  page.ways[1].finish();
  assert.deepEqual(
    lines().map((line) => line.dataset.line),
    ["1"],
  );
});

test("a line whose time is over leaves by itself where the server is not heard", () => {
  chat.change({ in: [card(1, "soon", { z: 1000 }), card(2, "later", { z: 5000 }), card(3)] }, NOW);
  page.clock.pass(1240);
  assert.equal(chat.lines.has(1), true);
  page.clock.pass(20);
  assert.deepEqual([...chat.lines.keys()], [2, 3]);
  assert.equal(
    lines()
      .find((line) => line.dataset.line === "1")
      .classList.contains("leaving"),
    true,
  );
  page.clock.pass(60_000);
  assert.deepEqual([...chat.lines.keys()], [3]);
});

test("what was long on its way has so much less time", () => {
  chat.change({ in: [card(1, "late", { z: 10_000 })] }, { ...NOW, age: 9500 });
  page.clock.pass(760);
  assert.equal(chat.lines.size, 0);
});

test("what is taken away and comes again has the time it is told then", () => {
  chat.change({ in: [card(1, "a", { z: 1000 })] }, NOW);
  chat.change({ pulled: [1] }, NOW);
  chat.change({ in: [card(1, "a", { z: 9000 })] }, NOW);
  page.clock.pass(5000);
  assert.equal(chat.lines.has(1), true);
});

test("where the piece is set otherwise, and where all is told anew, the times before count no more", () => {
  chat.change({ in: [card(1, "a", { z: 1000 })] }, NOW);
  chat.style(chatStyle());
  page.clock.pass(5000);
  assert.equal(chat.lines.has(1), true);
  chat.replace([card(1, "a", { z: 2000 })], NOW.now);
  page.clock.pass(2300);
  assert.equal(chat.lines.has(1), false);
});

test("a piece that is taken off leaves no time running", () => {
  chat.change({ in: [card(1, "a", { z: 1000 })] }, NOW);
  chat.remove();
  page.clock.pass(5000);
  assert.equal(chat.lines.has(1), true);
});
