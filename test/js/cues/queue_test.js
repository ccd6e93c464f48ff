import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";
import { Queue } from "../../../assets/js/cues/queue.js";

eachOnAPage({
  html: `<button id="pause"><span></span></button><button id="skip"></button><button id="clear"></button><button id="begin"><span></span></button>
    <p id="began"></p><input type="checkbox" id="approve"><div id="queue"></div><div id="lately"></div><div id="messages"></div>`,
});

const AT = new Date(2026, 2, 14, 20, 5).getTime();
const NOW = { began: null, ended: null, paused: false, playing: null, waiting: [], recent: [] };
const waits = (id, more = {}) => ({ id, words: `cue ${id}`, approved: false, ...more });
const event = (number, more = {}) => ({ at: AT, name: `viewer ${number}`, kind: "tip", line: number, worth: null, cue: null, ...more });

let queue;
let asks;
let sheets;
const show = (more) => queue.show({ ...NOW, ...more });
const texts = (selector) => all(selector).map((one) => one.textContent);

beforeEach(() => {
  asks = false;
  sheets = [];
  serve({ "/dress/cues": NOW });
  queue = new Queue({ kinds: () => ({ tip: "tips" }), asks: () => asks, changed: (sheet) => sheets.push(sheet) });
});

test("an empty queue says so, and what plays stands before what waits", () => {
  show({});
  assert.deepEqual(texts("#queue > *"), ["Nothing waits."]);
  show({ playing: { words: "Odalys tips" }, waiting: [waits(3), waits(4)] });
  assert.deepEqual(texts("#queue .cue-waiting > b, #queue .cue-waiting > span"), ["Odalys tips", "cue 3", "cue 4"]);
});

test("one that waits is taken out, and let play only where somebody has to", async () => {
  show({ waiting: [waits(3)] });
  assert.equal(pressable("Let it play"), undefined);
  asks = true;
  show({ waiting: [waits(3), waits(4, { approved: true })] });
  assert.equal(all("#queue button").filter((one) => one.textContent === "Let it play").length, 1);
  pressable("Let it play").click();
  called("Take “cue 4” out of the queue");
  await settled();
  show({ waiting: [waits(4)] });
  called("Take “cue 4” out of the queue").click();
  await settled();
  assert.deepEqual(page.asked, [
    ["/dress/cues/now/approve", { id: "3" }],
    ["/dress/cues/now/remove", { id: "4" }],
  ]);
});

test("pausing and going on are one button", async () => {
  show({});
  assert.equal(find("#pause").textContent, "Pause");
  find("#pause").click();
  await settled();
  show({ paused: true });
  assert.equal(find("#pause").textContent, "Go on");
  find("#pause").click();
  find("#skip").click();
  find("#clear").click();
  await settled();
  assert.deepEqual(
    page.asked.map(([path]) => path.split("/").at(-1)),
    ["pause", "go_on", "skip", "clear"],
  );
});

test("the last eight events are told, with what played and what they are worth", async () => {
  show({
    recent: [event(1, { worth: "5.00 EUR", cue: "Big tip" }), event(2, { kind: "strange" }), ...[3, 4, 5, 6, 7, 8, 9].map((n) => event(n))],
  });
  assert.equal(all("#lately .cue-waiting").length, 8);
  assert.deepEqual(
    [...all("#lately .cue-waiting")[0].children].map((one) => one.textContent),
    ["20:05", "viewer 1: tips, 5.00 EUR", "“Big tip”", "Play again"],
  );
  assert.deepEqual(
    [...all("#lately .cue-waiting")[1].children].slice(1, 3).map((one) => one.textContent),
    ["viewer 2: strange", "nothing played"],
  );
  pressable("Play again").click();
  await settled();
  assert.deepEqual(page.asked, [["/dress/cues/again", { line: "1" }]]);
});

test("a broadcast begins and ends in one press, and either is taken back", async () => {
  show({});
  assert.equal(find("#begin").textContent, "The broadcast begins now");
  find("#begin").click();
  await settled();
  assert.deepEqual(page.asked.shift(), ["/dress/cues/begin", {}]);
  assert.deepEqual(said(), ["It is counted from now on."]);
  assert.equal(pressable("Undo"), undefined, "nothing went on before");

  show({ began: AT, noticed: "Oxbow" });
  assert.equal(find("#begin").textContent, "The broadcast ends now");
  assert.equal(find("#began").textContent, "Since 20:05, noticed on Oxbow. What counts the broadcast counts from there.");
  find("#begin").click();
  await settled();
  assert.deepEqual(page.asked.shift(), ["/dress/cues/end", {}]);
  pressable("Undo").click();
  await settled();
  assert.deepEqual(page.asked.shift(), ["/dress/cues/begun-before", { began: String(AT) }]);

  show({ began: AT, ended: AT + 1 });
  assert.equal(find("#begin").textContent, "The broadcast begins now");
  find("#begin").click();
  await settled();
  pressable("Undo").click();
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/dress/cues/begun-before", { began: String(AT), ended: String(AT + 1) }]);
});

test("a refused beginning says why and changes nothing", async () => {
  serve({ "/dress/cues": { error: "It cannot be reached." } });
  show({});
  find("#begin").click();
  await settled();
  assert.deepEqual(said(), ["It cannot be reached."]);
  assert.equal(find("#begin").textContent, "The broadcast begins now");
});

test("whether each waits for a person is set on the sheet", async () => {
  find("#approve").checked = true;
  find("#approve").dispatchEvent(new globalThis.Event("change"));
  await settled();
  assert.deepEqual(page.asked, [["/dress/cues/queue", { approve: true }]]);
  assert.equal(sheets.length, 1);
});
