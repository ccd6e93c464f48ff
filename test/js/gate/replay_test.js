import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, serve, settled, type } from "../support/page.js";
import { Replay } from "../../../assets/js/gate/replay.js";

eachOnAPage({
  html: `<select id="replay-span"><option value="hour">hour</option><option value="day">day</option><option value="between">between</option></select>
    <form id="replay-between" hidden><input id="replay-from"><input id="replay-to"></form>
    <div id="replay-figures"></div><div id="replay-list"></div><div id="messages"></div>`,
});

const AT = new Date(2026, 2, 14, 20, 5).getTime();
const RESULT = {
  off: 1204,
  through: 3,
  otherwise: 0,
  bars: [
    [10, 0, 0],
    [5, 2, 0],
    [0, 0, 0],
    [4, 0, 1],
  ],
  examples: [],
  lines: 2000,
};
const example = (change, more = {}) => ({
  change,
  text: "as written",
  shown: "as shown",
  feed_id: 4,
  rule: "links2",
  at_ms: AT,
  name: "wren",
  ...more,
});
const running = (id, done) => ({ id, state: "running", total: 100, done });

let replay;
let heard;
let edit;

beforeEach(() => {
  edit = { changed: false, rules: [{ id: "links" }], state: { kinds: [{ key: "links", label: "Links" }] }, heard: (act) => (heard = act) };
  replay = new Replay(edit, [{ id: "4", mark: ["circle", "#5fb8d6"] }]);
});

test("before a rule is changed nothing is asked", async () => {
  heard();
  await settled();
  assert.deepEqual(page.asked, []);
  assert.match(find("#replay-list").textContent, /Change a rule/);
});

test("a changed rule is run over the log, followed until it is done, and told in figures", async () => {
  const states = [running(7, 40), { id: 7, state: "done", result: RESULT }];
  serve({
    "/gate/replay/7": () => states.shift(),
    "/gate/replay": running(7, 0),
  });
  edit.changed = true;
  heard();
  await settled();
  assert.deepEqual(page.asked, [["/gate/replay", { rules: [{ id: "links" }], span: "hour" }]]);
  assert.equal(find("#replay-figures .figure").textContent, "0 of 100");
  page.clock.pass(250);
  await settled();
  assert.equal(find("progress").value, 40);
  page.clock.pass(250);
  await settled();
  assert.deepEqual(
    all(".replay-figure").map((one) => [...one.children].map((part) => part.textContent)),
    [
      ["+ 1 204", "newly kept off"],
      ["− 3", "newly let through"],
    ],
  );
  assert.deepEqual(
    all(".replay-bars rect").map((bar) => [bar.getAttribute("class"), bar.getAttribute("height")]),
    [
      ["all", "40"],
      ["off", "20"],
      ["all", "0"],
      ["through", "16"],
    ],
  );
  assert.equal(find("#replay-list").textContent, "Nothing in 2 000 lines.");
  page.clock.pass(5000);
  await settled();
  assert.equal(page.asked.length, 3, "what is done is not asked again");
});

test("a later edit leaves the earlier run to itself", async () => {
  const begun = [running(1, 0), running(2, 0)];
  serve({
    "/gate/replay/": (_values, path) => ({ id: Number(path.split("/").at(-1)), state: "done", result: { ...RESULT, off: 999 } }),
    "/gate/replay": () => begun.shift(),
  });
  edit.changed = true;
  heard();
  await settled();
  heard();
  await settled();
  page.clock.pass(250);
  await settled();
  assert.deepEqual(
    page.asked.map(([path]) => path).filter((path) => path !== "/gate/replay"),
    ["/gate/replay/2"],
  );
});

test("of two that are begun at once the later one counts, also where the earlier is answered last", async () => {
  const answers = [];
  serve({
    "/gate/replay/": (_values, path) => ({ id: Number(path.split("/").at(-1)), state: "done", result: RESULT }),
    "/gate/replay": () => new Promise((done) => answers.push(done)),
  });
  edit.changed = true;
  heard();
  heard();
  answers[1](running(2, 0));
  await settled();
  answers[0](running(1, 0));
  await settled();
  page.clock.pass(250);
  await settled();
  assert.deepEqual(
    page.asked.map(([path]) => path).filter((path) => path !== "/gate/replay"),
    ["/gate/replay/2"],
  );
});

test("examples say who, where and what would have become of them", () => {
  replay.show({
    state: "done",
    result: { ...RESULT, examples: [example("off"), example("through", { rule: null, feed_id: 5 }), example("otherwise")] },
  });
  assert.deepEqual(
    all(".replay-line").map((line) => [...line.children].map((part) => part.textContent).filter(Boolean)),
    [
      ["20:05", "wren", "as written", "Links"],
      ["20:05", "wren", "as written", "Through"],
      ["20:05", "wren", "as shown", "Links"],
    ],
  );
  assert.deepEqual(
    all(".replay-line .chip").map((chip) => chip.className),
    ["chip tag off", "chip tag well", "chip tag told"],
  );
  assert.equal(find(".replay-line .text").dir, "auto");
});

test("what would only be written otherwise is told where nothing else changes", () => {
  replay.show({ state: "done", result: { ...RESULT, otherwise: 1, lines: 1 } });
  assert.equal(find("#replay-list").textContent, "Nothing in 1 line. 1 line would be written otherwise.");
});

test("it can be stopped, and what failed says what to do", async () => {
  serve({ "/gate/replay/7/stop": { id: 7, state: "stopped" } });
  replay.follow({ ...running(7, 0), total: 0 });
  assert.deepEqual([find("#replay-figures .figure").textContent, find("#replay-list").textContent], ["begins", ""]);
  pressable("Stop").click();
  await settled();
  assert.deepEqual(
    [find("#replay-list").textContent, find("#replay-figures").textContent],
    ["Stopped. The edit can be kept all the same.", ""],
  );
  replay.show(running(8, 0));
  replay.show({ state: "failed" });
  assert.equal(find("#replay-figures").textContent, "");
  assert.match(find("#replay-list").textContent, /It is in the log; the edit can be kept/);
});

test("a time of one's own is asked for when it is entered", async () => {
  serve({ "/gate/replay": { id: 1, state: "done", result: RESULT } });
  edit.changed = true;
  type(replay.span, "between");
  await settled();
  page.asked.length = 0;
  assert.equal(find("#replay-between").hidden, false);
  find("#replay-from").value = "2026-03-14T20:00";
  find("#replay-to").value = "2026-03-14T21:00";
  find("#replay-between").dispatchEvent(new globalThis.Event("submit", { cancelable: true }));
  await settled();
  const [, { span, from_ms: from, to_ms: to }] = page.asked.at(-1);
  assert.deepEqual([span, to - from, new Date(from).getHours()], ["between", 3_600_000, 20]);
});

test("a bar is as high as its lines, and the picture says what it shows", () => {
  replay.show({ state: "done", result: RESULT });
  assert.ok(called("Lines over that time, with what would have changed"));
});
