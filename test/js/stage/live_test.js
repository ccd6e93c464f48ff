import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";
import { LiveBox } from "../../../assets/js/stage/live.js";

eachOnAPage({ html: `<section id="live"></section><div id="messages"></div>` });

const LINE = { id: "now1", kind: "now_line", source: "hand" };
const CLOCK = { id: "clock1", kind: "clock", clock: "stopwatch" };
const live = (texts = {}, running = {}) => ({ texts, running });
let box;

beforeEach(() => {
  serve({ "/stage/7/pieces/now2/address": { address: "https://x.example/now/7" }, "/stage/7": (values) => ({ done: true, values }) });
  box = new LiveBox(find("#live"), (path) => `/stage/7/${path}`);
});

const shown = (piece, told = live()) => {
  box.show(piece, told);
  return find("#live");
};

test("only what is set while it goes on has such a box", () => {
  assert.ok(shown({ id: "text1", kind: "text" }).hidden);
  assert.ok(shown({ id: "clock1", kind: "clock", clock: "time" }).hidden);
  assert.ok(shown(undefined).hidden);
  assert.equal(shown(CLOCK).hidden, false);
  assert.equal(shown(LINE).hidden, false);
});

test("from each piece that something feeds one press leads there", () => {
  const fed = (piece) => [...shown(piece).querySelectorAll("a")].map((link) => [link.getAttribute("href"), link.textContent]);
  assert.deepEqual(fed({ id: "chat1", kind: "chat" }), [["/feeds?from=7.chat1", "What comes in here"]]);
  assert.deepEqual(fed({ id: "voices1", kind: "voices" }), [["/dress/cast/?from=7.voices1", "Who talks here"]]);
  assert.deepEqual(fed({ id: "alerts1", kind: "alerts", kinds: ["tip"] }), [["/dress/cues/?from=7.alerts1#tip", "What plays here"]]);
  assert.deepEqual(fed({ id: "challenge1", kind: "challenge" }), [["/dress/cues/?from=7.challenge1", "What is counted here"]]);
  assert.deepEqual(fed(CLOCK), []);
});

test("what somebody types is not written over by what is told meanwhile, in the field or on the way to the button", () => {
  shown(LINE, live({ now1: "as it was" }));
  const field = find("textarea");
  assert.equal(field.value, "as it was");
  field.focus();
  field.value = "a reed warbler";
  shown(LINE, live({ now1: "by somebody else" }));
  field.blur();
  shown(LINE, live({ now1: "as it was" }));
  assert.equal(field.value, "a reed warbler");
});

test("what is not being typed follows what is told", () => {
  shown(LINE, live({ now1: "one" }));
  shown(LINE, live({ now1: "two" }));
  assert.equal(find("textarea").value, "two");
  find("textarea").focus();
  shown(LINE, live({ now1: "three" }));
  assert.equal(find("textarea").value, "two");
  find("textarea").blur();
});

test("a text is sent as it stands, and said to be on air", async () => {
  shown(LINE);
  find("textarea").value = "a reed warbler\na wren";
  pressable("Set now").click();
  await settled();
  assert.deepEqual(page.asked, [["/stage/7/pieces/now1/live", { text: "a reed warbler\na wren" }]]);
  assert.deepEqual(said(), ["It stands on the draft and on air."]);
  shown(LINE, live({ now1: "a reed warbler\na wren" }));
  shown(LINE, live({ now1: "later" }));
  assert.equal(find("textarea").value, "later");
});

test("another piece gets a box of its own, and the same one keeps its field", () => {
  shown(LINE);
  const field = find("textarea");
  shown({ ...LINE, x: 40 });
  assert.equal(find("textarea"), field);
  shown({ ...LINE, id: "now3" });
  assert.notEqual(find("textarea"), field);
});

test("a line that its file or whoever has its address sets has no field", async () => {
  const copied = [];
  Object.defineProperty(globalThis, "navigator", {
    configurable: true,
    value: { clipboard: { writeText: async (text) => copied.push(text) } },
  });
  assert.match(shown({ ...LINE, source: "file" }).textContent, /Set by its file/);
  shown({ ...LINE, id: "now2", source: "address" });
  assert.equal(called("Whoever has its address sets it").value, "covered");
  pressable("Copy").click();
  await settled();
  assert.deepEqual(copied, ["https://x.example/now/7"]);
  assert.match(said()[0], /somebody can set this line is copied/);
});

test("a clock is started and stopped by one of two buttons", async () => {
  const visible = () =>
    all("#live button")
      .filter((one) => !one.hidden)
      .map((one) => one.textContent);
  shown(CLOCK);
  assert.deepEqual(visible(), ["Start", "Back to the beginning"]);
  pressable("Start").click();
  await settled();
  shown(CLOCK, live({}, { clock1: true }));
  assert.deepEqual(visible(), ["Stop", "Back to the beginning"]);
  pressable("Stop").click();
  pressable("Back to the beginning").click();
  await settled();
  assert.deepEqual(
    page.asked.map(([, values]) => values.run),
    ["start", "stop", "back"],
  );
});

test("a counter counts by one, back by one and by ten", async () => {
  shown({ id: "counter1", kind: "counter" });
  for (const button of all("#live button")) button.click();
  await settled();
  assert.deepEqual(
    page.asked.map(([, values]) => values.count),
    ["1", "-1", "10"],
  );
});

test("a challenge says what became of it, and is taken back", async () => {
  shown({ id: "challenge1", kind: "challenge" });
  for (const words of ["Begin", "End", "Back to before"]) {
    pressable(words).click();
    await settled();
  }
  assert.deepEqual(said(), ["It runs.", "It is over.", "It waits to begin."]);
  shown(CLOCK);
  pressable("Undo").click();
  await settled();
  assert.deepEqual(page.asked.at(-1), ["/stage/7/pieces/challenge1/live", { run: "undo" }]);
});

test("a refusal is said and nothing else", async () => {
  serve({ "/stage/7": { error: "That is too long." } });
  shown(LINE);
  pressable("Set now").click();
  await settled();
  assert.deepEqual(said(), ["That is too long."]);
});
