import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page, serve, settled } from "../support/page.js";
import { Checks, chipOf, noticedIn } from "../../../assets/js/air/checks.js";

eachOnAPage({
  html: `<section id="checks"><span id="checks-chip"></span><p id="checks-said"></p><ul id="checks-list"></ul>
    <button id="checks-more" hidden></button></section><div id="messages"></div>`,
});

const WELL = { key: "files", well: true, title: "Every file is there", words: "4 sounds.", at: "/dress/files" };
const BRAKE = {
  key: "gate",
  well: false,
  title: "The brake is on",
  words: "Hold everything.",
  at: "/gate",
  mend: { words: "Lift it", path: "/gate/brake", sends: { kind: "off" }, form: false },
};
const AIR = { ...BRAKE, key: "on_air", mend: { words: "Put Main on air", path: "/stage/7/put-on-air", sends: {}, form: true } };
let checks;

beforeEach(() => {
  checks = new Checks(find("#checks"));
});

const rows = () => all("#checks-list > li").map((row) => [row.dataset.check, row.classList.contains("fine")]);

test("where all is well one line says so, and what was looked at is a press away", () => {
  checks.show([WELL, { ...WELL, key: "feeds" }]);
  assert.deepEqual([find("#checks-chip").textContent, rows()], ["all well", []]);
  assert.equal(find("#checks-more").textContent, "2 things were looked at");
  find("#checks-more").click();
  assert.deepEqual(rows(), [
    ["files", true],
    ["feeds", true],
  ]);
  assert.equal(find("#checks-more").getAttribute("aria-expanded"), "true");
  find("#checks-more").click();
  assert.deepEqual(rows(), []);
});

test("what is not well stands there with what is well, where it is set, and what mends it", () => {
  checks.show([BRAKE, WELL]);
  assert.deepEqual([find("#checks-chip").textContent, find("#checks-more").hidden], ["1 to look at", true]);
  assert.deepEqual(rows(), [
    ["gate", false],
    ["files", true],
  ]);
  assert.equal(find("[data-check=gate] a").getAttribute("href"), "/gate");
  assert.deepEqual(
    all("#checks-list button").map((one) => one.textContent),
    ["Lift it"],
  );
  assert.deepEqual(chipOf([BRAKE, BRAKE]), { words: "2 to look at", tone: "mind" });
});

test("a press mends it as its place is asked to, and it is looked at again", async () => {
  serve({ "/gate/brake": { done: true }, "/stage/7/put-on-air": { revision: 5 }, "/links/checks": { checks: [WELL] } });
  checks.show([BRAKE, AIR]);
  for (const [at, sent] of [
    [0, ["/gate/brake", { kind: "off" }]],
    [1, ["/stage/7/put-on-air", {}]],
  ]) {
    checks.show([BRAKE, AIR]);
    all("#checks-list button")[at].click();
    await settled();
    assert.deepEqual(page.asked.at(-2), sent);
    assert.deepEqual([page.asked.at(-1)[0], rows()], ["/links/checks", []]);
  }
});

test("whoever stands on a press stays there while others come and go", () => {
  checks.show([BRAKE, WELL]);
  find("#checks-list button").focus();
  checks.show([AIR, BRAKE, WELL]);
  assert.equal(document.activeElement.dataset.press, "gate-mend");
  checks.show([AIR, WELL]);
  assert.equal(document.activeElement.dataset.press, "on_air-at");
  checks.show([WELL]);
  assert.equal(document.activeElement.id, "checks-more");
});

test("it is looked at again when something is another one, and not when only figures go on", async () => {
  serve({ "/links/checks": { checks: [WELL] } });
  let figure = 0;
  const another = () => (figure += 1);
  const show = (more = {}, revision = 1) => ({
    figures: { feeds: 1, live: 1, trouble: 0, in: another(), ...more },
    stages: [{ id: 7, revision, changes: [], screens: [{ id: 1, fine: true, heard: another() }] }],
  });
  assert.equal(noticedIn(show()), noticedIn(show()));
  checks.noticed(show());
  checks.noticed(show());
  await settled();
  assert.equal(page.asked.length, 0);
  checks.noticed(show({ brake: true }));
  checks.noticed(show({ brake: true }, 2));
  await settled();
  assert.equal(page.asked.length, 2);
});

test("where Bavard cannot be reached it says that this is how it stood", async () => {
  checks.show([BRAKE]);
  serve({ "/links/checks": { error: "Nobody answers." } });
  await checks.ask();
  assert.match(find("#checks-said").textContent, /how it stood/);
  assert.deepEqual(rows(), [["gate", false]]);
});
