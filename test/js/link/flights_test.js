import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, find, page } from "../support/page.js";
import { FlightCanvas, grown, seen } from "../../../assets/js/link/flight_canvas.js";
import { Sprites } from "../../../assets/js/link/sprites.js";

eachOnAPage({ html: '<div id="sky"></div>' });

const image = (src = "wren.webp", more = {}) => ({ src, complete: true, naturalWidth: 56, naturalHeight: 28, ...more });
let drawn;
let cleared;
let made;

beforeEach(() => {
  drawn = [];
  cleared = [];
  made = [];
  page.window.HTMLCanvasElement.prototype.getContext = () => ({
    clearRect: (...box) => cleared.push(box),
    drawImage(sprite, left, top, ...size) {
      drawn.push([sprite.source, left, top, Number(this.globalAlpha.toFixed(3)), ...(size.length > 0 ? [size] : [])]);
    },
  });
  globalThis.OffscreenCanvas = class {
    constructor(width, height) {
      Object.assign(this, { width, height });
      made.push(this);
    }
    getContext() {
      const drawImage = (from) => {
        this.source = from.src;
      };
      return { translate: () => {}, rotate: (by) => Object.assign(this, { by }), drawImage };
    }
  };
});

const done = [];
const flight = (more = {}) => ({
  h: 40,
  ms: 1000,
  w: 0,
  z: 1,
  p: [
    [0, 100, 0, 0],
    [500, 200, 0, 0],
    [1000, 200, 100, 0],
  ],
  image: image(),
  done: () => done.push(more.z),
  ...more,
});
function sky(...flights) {
  done.length = 0;
  const canvas = new FlightCanvas(find("#sky"));
  for (const one of flights) canvas.add(one);
  return canvas;
}

test("it comes and goes softly, also where it is short", () => {
  assert.deepEqual(
    [0, 110, 500, 820, 1000, 1200].map((ms) => Number(seen(ms, 1000).toFixed(3))),
    [0, 0.5, 1, 0.54, 0, 0],
  );
  assert.deepEqual(
    [0, 15, 60, 90].map((ms) => Number(seen(ms, 90).toFixed(2))),
    [0, 0.56, 1, 0],
  );
  assert.deepEqual([seen(0, 1000, 280), seen(1000, 1000, 280)], [1, 0]);
});

test("it goes straight on from point to point, and only what was drawn is wiped", () => {
  sky(flight());
  page.clock.pass(256);
  const [, left, top] = drawn.at(-1);
  assert.deepEqual([left, top], [Math.round(151.2 - 40), -20]);
  const before = cleared.length;
  page.clock.pass(16);
  assert.deepEqual(cleared.slice(before), [[left, top, 80, 40]]);
  page.clock.pass(480);
  assert.deepEqual(drawn.at(-1).slice(1, 3), [160, Math.round((752 - 500) / 5) - 20]);
});

test("what lies deeper is drawn first", () => {
  sky(flight({ z: 1, image: image("near") }), flight({ z: 3, image: image("far") }), flight({ z: 2, image: image("middle") }));
  page.clock.pass(300);
  assert.deepEqual(
    drawn.slice(-3).map(([src]) => src),
    ["far", "middle", "near"],
  );
});

test("one that waits, or whose picture is not here, is not drawn, but its time runs", () => {
  const canvas = sky(
    flight({ z: 1, w: 500 }),
    flight({ z: 2, image: image("late", { complete: false }) }),
    flight({ z: 3, image: image("broken", { naturalWidth: 0 }) }),
  );
  page.clock.pass(490);
  assert.deepEqual([drawn.length, canvas.size], [0, 3]);
  page.clock.pass(550);
  assert.deepEqual([drawn.length > 0, done], [true, [3, 2]]);
});

test("what goes off grows from nothing around its middle, fast at first", () => {
  assert.deepEqual(
    [0, 70, 140, 280, 900].map((ms) => grown(ms, 280)),
    [0, 0.4375, 0.75, 1, 1],
  );
  assert.equal(grown(0), 1);
  const points = [
    [0, 100, 50, 0],
    [1000, 100, 50, 0],
  ];
  sky(flight({ g: 320, p: points }));
  page.clock.pass(160);
  const [, left, top, seenThen] = drawn.at(-1);
  const [wide, high] = drawn.at(-1).at(-1);
  assert.deepEqual([left + wide / 2, top + high / 2, seenThen], [100, 50, 1]);
  assert.ok(wide > 40 && wide < 80 && high < 40);
  page.clock.pass(400);
  assert.deepEqual(drawn.at(-1).slice(1, 3), [60, 30]);
});

test("when all have flown no canvas is left, and the next makes one", () => {
  const canvas = sky(flight());
  assert.ok(find(".flight-canvas"));
  page.clock.pass(1100);
  assert.deepEqual([find(".flight-canvas"), canvas.size, done.length], [null, 0, 1]);
  canvas.add(flight());
  assert.ok(find(".flight-canvas"));
});

test("those that are taken away are gone with the next frame, and told of", () => {
  const canvas = sky(flight({ z: 1, line: 5 }), flight({ z: 2, line: 6 }));
  canvas.drop((one) => one.line === 5);
  assert.deepEqual([canvas.size, done], [1, [1]]);
  page.clock.pass(100);
  assert.ok(drawn.length > 0);
});

test("an emote is drawn anew for another size or angle alone, turned ones on ground that holds them", () => {
  const sprites = new Sprites();
  const first = sprites.of(image(), 40, 0);
  assert.equal(sprites.of(image(), 41, 2), first);
  assert.equal(sprites.of(image(), 40, 720), first);
  assert.deepEqual([first.width, first.height], [80, 40]);
  const turned = sprites.of(image(), 40, -90);
  assert.notEqual(turned, first);
  assert.deepEqual([turned.width, turned.height], [90, 90]);
  assert.equal(sprites.of(image(), 40, 270), turned);
  assert.notEqual(sprites.of(image("owl"), 40, 0), first);
  assert.equal(made.length, 3);
});

test("drawings are given up from the oldest", () => {
  const sprites = new Sprites();
  const first = sprites.of(image("0"), 40, 0);
  for (let n = 1; n < 3000; n += 1) sprites.of(image(`${n}`), 40, 0);
  assert.equal(sprites.of(image("0"), 40, 0), first);
  sprites.of(image("3000"), 40, 0);
  assert.notEqual(sprites.of(image("0"), 40, 0), first);
});
