import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, hide, page } from "../support/page.js";
import { Report } from "../../../assets/js/link/report.js";

eachOnAPage({ html: '<div id="stage"></div>', width: 1280, height: 720 });

let sent;
let report;

beforeEach(() => {
  sent = [];
  report = new Report({ send: (value) => sent.push(value) }, { revision: 4, side: "", installed: () => ["Reed Sans"] }, ["?colour"]);
});

const last = () => sent.at(-1);

test("a page says how large it is drawn, how smoothly, and what of its link it does not understand", () => {
  page.clock.pass(5000);
  const { w, h, rev, hidden, not, side, fps } = last();
  assert.deepEqual([w, h, rev, hidden, not, side], [1280, 720, 4, false, ["?colour"], null]);
  assert.ok(fps > 55 && fps < 65, `${fps}`);
});

test("pixels of the screen count, not those of the page", () => {
  globalThis.devicePixelRatio = 1.5;
  report.tell();
  assert.deepEqual([last().w, last().h], [1920, 1080]);
});

test("what was painted is told soon, with how long ago that was, once", () => {
  report.paint(41);
  report.paint(42);
  page.clock.pass(1000);
  const told = sent.find((one) => one.painted.length > 0);
  assert.deepEqual(
    told.painted.map(([id]) => id),
    [41, 42],
  );
  assert.ok(told.painted.every(([, ago]) => ago >= 0 && ago <= 1000));
  page.clock.pass(5000);
  assert.equal(sent.filter((one) => one.painted.length > 0).length, 1);
});

test("in a flood the oldest paintings are left out", () => {
  for (let id = 0; id < 1000; id += 1) {
    report.paint(id);
    page.clock.pass(0);
  }
  page.clock.pass(20);
  report.tell();
  assert.ok(sent.every((one) => one.painted.length <= 1000));
});

test("a page that is hidden says so at once and measures nothing", () => {
  const before = sent.length;
  hide(true);
  assert.equal(sent.length, before + 1);
  assert.equal(last().hidden, true);
});

test("faces that this computer does not have are named", () => {
  report.tell();
  assert.deepEqual(last().missing, ["Reed Sans"]);
});

test("what cannot be heard here is said once", () => {
  report.silent(7);
  assert.equal(last().silent, 7);
  report.tell();
  assert.equal(last().silent, undefined);
});
