import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { moving } from "../../../assets/js/stage/boxes.js";
import { Snapping } from "../../../assets/js/stage/snapping.js";

eachOnAPage({ html: '<div id="hands"></div>' });

const STAGE = {
  width: 1920,
  height: 1080,
  pieces: [
    { id: "chat1", x: 100, y: 100, width: 400, height: 300 },
    { id: "text1", x: 700, y: 500, width: 200, height: 100 },
    { id: "away1", x: 1200, y: 300, width: 50, height: 50, hidden: true },
  ],
};
const ALL = moving(null);

let snapping;
const guides = () =>
  [...page.document.querySelectorAll(".guide")].filter((mark) => !mark.hidden).map((mark) => [mark.className, mark.style.transform]);
const distances = () => [...page.document.querySelectorAll(".distance")].filter((mark) => !mark.hidden).map((mark) => mark.textContent);

beforeEach(() => {
  snapping = new Snapping(page.document.querySelector("#hands"));
  snapping.begin(STAGE, new Set(["chat1"]), 0.5);
});

const box = (x, y, width = 400, height = 300) => ({ x, y, width, height });

test("an edge that is near the middle of the stage comes to rest there, and a guide says so", () => {
  const rested = snapping.rest(box(960 - 400 + 5, 333), ALL);
  assert.equal(rested.x + rested.width, 960);
  assert.deepEqual(guides()[0], ["guide v", "translate(480px, 0px)"]);
});

test("its centre, thirds, the margin and the edges count as well", () => {
  assert.equal(snapping.rest(box(760 + 4, 333), ALL).x, 760);
  assert.equal(snapping.rest(box(640 - 7, 333), ALL).x, 640);
  assert.equal(snapping.rest(box(24 + 3, 333), ALL).x, 24);
  assert.equal(snapping.rest(box(-3, 333), ALL).x, 0);
});

test("so do edges and centres of other pieces, but not of those that are hidden or move along", () => {
  assert.equal(snapping.rest(box(900 + 6, 333, 333), ALL).x, 900);
  assert.equal(snapping.rest(box(1195, 333, 333), ALL).x, 1195);
  assert.equal(snapping.rest(box(105, 333, 333), ALL).x, 105);
});

test("what is too far away on the screen stays where it was put", () => {
  const put = box(930, 333, 333);
  assert.deepEqual(snapping.rest(put, ALL), put);
  assert.deepEqual(guides(), []);
});

test("how near is near is measured on the screen, not on the stage", () => {
  snapping.begin(STAGE, new Set(["chat1"]), 2);
  assert.equal(snapping.rest(box(1000, 333, 333), ALL).x, 1000);
  assert.equal(snapping.rest(box(903, 333, 333), ALL).x, 900);
  assert.equal(snapping.rest(box(904, 333, 333), ALL).x, 904);
});

test("the nearest of several wins", () => {
  snapping.begin({ ...STAGE, pieces: [{ id: "a", x: 966, y: 0, width: 100, height: 10 }] }, new Set(), 0.5);
  assert.equal(snapping.rest(box(964, 333, 333), ALL).x, 966);
});

test("while it is sized only that edge comes to rest, and the opposite one stays", () => {
  assert.deepEqual(snapping.rest(box(100, 333, 596, 300), moving("e")), box(100, 333, 600, 300));
  assert.deepEqual(snapping.rest(box(897, 333, 303, 300), moving("w")), box(900, 333, 300, 300));
});

test("distances to what is beside it are told, and left out where there is no room for the figure", () => {
  snapping.rest(box(100, 450, 500, 200), { x: [], y: [] });
  assert.deepEqual(distances().sort(), ["100", "100", "430", "450"].sort());
  snapping.rest(box(100, 450, 590, 200), { x: [], y: [] });
  assert.equal(distances().includes("10"), false);
});

test("guides are gone once it was let go", () => {
  snapping.rest(box(963, 333, 333), ALL);
  snapping.clear();
  assert.deepEqual([guides(), distances()], [[], []]);
});
