import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page, said, serve, settled, type } from "../support/page.js";
import { Hold } from "../../../assets/js/gate/hold.js";

eachOnAPage({
  html: `<input id="hold-range" type="range" min="0" max="30" step="0.5"><input id="hold"><button id="hold-more"></button>
    <div id="hold-sheet" hidden></div><p id="hold-words"></p><div id="messages"></div>`,
});

const HOLD = { ms: 2000, by_role: { host: 0 }, leaves_after_ms: 30000 };
let hold;
const values = (...names) => names.map((name) => find(`#hold-${name}`).value);

beforeEach(() => {
  serve({ "/gate/hold": (sent) => ({ hold: sent }) });
  hold = new Hold(HOLD);
  page.asked.length = 0;
});

test("what is set stands there in seconds, a role without one says so", () => {
  assert.equal(find("#hold").value, "2 s");
  assert.equal(find("#hold-range").value, "2");
  assert.deepEqual(values("host", "moderator", "leaves"), ["0 s", "", "30000"]);
  assert.equal(find("#hold-words").textContent, "Someone may pull a line before it is on screen.");
  hold.tell({ ...HOLD, ms: 0, leaves_after_ms: null });
  assert.equal(find("#hold-words").textContent, "Lines go on screen as they come.");
  assert.equal(find("#hold-leaves").value, "");
});

test("seconds are typed with a point or a comma, and what was kept is shown", async () => {
  type(find("#hold"), "3,5 s");
  await settled();
  assert.equal(page.asked.at(-1)[1].ms, 3500);
  assert.equal(find("#hold").value, "3.5 s");
});

test("a role is set without touching the others, and emptied again", async () => {
  type(find("#hold-moderator"), "1.5");
  await settled();
  assert.deepEqual(page.asked.at(-1)[1], { ...HOLD, by_role: { host: 0, moderator: 1500 } });
  type(find("#hold-host"), " ");
  await settled();
  assert.deepEqual(page.asked.at(-1)[1].by_role, { host: null, moderator: 1500 });
});

test("what a rule holds waits for a person, or leaves by itself", async () => {
  type(find("#hold-leaves"), "");
  await settled();
  assert.equal(page.asked.at(-1)[1].leaves_after_ms, null);
  type(find("#hold-leaves"), "120000");
  await settled();
  assert.equal(page.asked.at(-1)[1].leaves_after_ms, 120_000);
});

test("a refused one is said and goes back to what counts", async () => {
  serve({ "/gate/hold": { error: "At most 30 s." } });
  type(find("#hold"), "900");
  await settled();
  assert.deepEqual(said(), ["At most 30 s."]);
  assert.equal(find("#hold").value, "2 s");
});

test("whoever drags or types is not disturbed by what others set", () => {
  find("#hold-range").focus();
  hold.tell({ ...HOLD, ms: 9000 });
  assert.equal(find("#hold").value, "2 s");
  find("#hold-range").blur();
  hold.tell({ ...HOLD, ms: 9000 });
  assert.equal(find("#hold").value, "9 s");
  find("#hold").focus();
  find("#hold").value = "1";
  hold.tell({ ...HOLD, ms: 4000 });
  assert.equal(find("#hold").value, "1");
  assert.equal(find("#hold-range").value, "4");
});

test("the sheet by role opens and closes, and tells which", () => {
  find("#hold-more").click();
  assert.deepEqual([find("#hold-sheet").hidden, find("#hold-more").getAttribute("aria-expanded")], [false, "true"]);
  find("#hold-more").click();
  assert.deepEqual([find("#hold-sheet").hidden, find("#hold-more").getAttribute("aria-expanded")], [true, "false"]);
});
