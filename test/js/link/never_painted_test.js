import assert from "node:assert/strict";
import { test } from "node:test";
import { card, chatStyle, stage } from "../support/cards.js";
import { eachOnAPage, FakeSocket, page } from "../support/page.js";
import { Picture } from "../../../assets/js/link/picture.js";
import { Socket } from "../../../assets/js/link/socket.js";

// The page's own code at the end of a line that stalls and is cut at any moment: whatever the order, a line that was taken away is not
// painted afterwards. What is still on its way over a line that works cannot be known here; it is what the bound allows.

const RUNS = 30;
const STEPS = 160;
const WAY_MS = 20;
// How old a picture may be that is painted: as late as a frame may come and not be doubted, or as long as an answer may take.
const OLDEST_MS = 300 + WAY_MS;
const KEPT = 40;

function chance(seed) {
  let state = seed * 2654435761 + 1;
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
}

// A server and the line to it, in the page's own time.
class Server {
  constructor(random) {
    Object.assign(this, { random, frames: [], standing: new Map(), taken: new Map(), number: 0, line: null, way: [], stalled: false });
  }

  at = () => `b:${this.frames.length}`;
  now = () => page.clock.now;

  put(message) {
    if (this.line) this.way.push({ message, due: this.now() + WAY_MS });
  }

  frame(change) {
    this.frames.push(change);
    this.put({ at: this.at(), t: this.now(), ...change });
  }

  say() {
    this.number += 1;
    const said = card(this.number);
    this.standing.set(said.i, said);
    this.frame({ in: { chat1: [said] } });
  }

  take() {
    const ids = [...this.standing.keys()];
    if (ids.length === 0) return;
    const id = ids[Math.floor(this.random() * ids.length)];
    this.standing.delete(id);
    this.taken.set(id, this.now());
    this.frame({ [this.random() < 0.5 ? "pulled" : "out"]: { chat1: [id] } });
  }

  // A page has come: what it missed, or a whole picture.
  open(line) {
    const [, last] = decodeURIComponent(line.address).match(/last=(?:b:(\d+))?$/);
    this.line = line;
    this.way = [];
    const missed = this.frames.length - Number(last ?? Number.NaN);
    const told =
      missed <= KEPT && last !== undefined
        ? { missed: this.frames.slice(Number(last)).map((change) => ({ ...change })) }
        : { whole: true, style: stage([chatStyle()]), in: { chat1: [...this.standing.values()] } };
    this.put({ at: this.at(), t: this.now(), ...told });
    line.open();
  }

  cut() {
    this.line?.close(1006);
    this.line = null;
    this.way = [];
  }

  // What has arrived is heard one by one, and the page is painted after any of it.
  deliver(paint) {
    if (this.line?.readyState === FakeSocket.CLOSED) this.cut();
    const asked = this.line?.asked;
    if (asked && !this.stalled) {
      this.line.asked = null;
      this.put({ here: asked, t: this.now() });
    }
    while (!this.stalled && this.way[0]?.due <= this.now()) {
      const { line } = this;
      line.tell(this.way.shift().message);
      paint();
      if (line !== this.line) return;
    }
  }
}

eachOnAPage({ html: '<div id="stage"></div>' });

function play(seed) {
  const random = chance(seed);
  const server = new Server(random);
  const picture = new Picture(page.document.querySelector("#stage"), { css: {}, form: "" }, "", () => {});
  new Socket("/air/secret/live", {
    frame: (frame) => picture.apply(frame),
    missed: (frames) => picture.applyMissed(frames),
    replaced: () => {},
  });
  const seen = new Set();
  const paint = () => {
    for (const line of page.document.querySelectorAll(".line:not(.leaving)")) {
      const id = Number(line.dataset.line);
      if (seen.has(id)) continue;
      seen.add(id);
      const since = page.clock.now - (server.taken.get(id) ?? Number.POSITIVE_INFINITY);
      assert.ok(since <= OLDEST_MS, `seed ${seed}: line ${id} was painted ${since} ms after it was taken away`);
    }
  };
  const steps = [
    [0.45, () => server.say()],
    [0.8, () => server.take()],
    [
      0.86,
      () => {
        server.stalled = !server.stalled;
      },
    ],
    [0.89, () => server.cut()],
    [1, () => server.frame({})],
  ];
  for (let step = 0; step < STEPS; step += 1) {
    const line = page.sockets.at(-1);
    line.stalls = true;
    if (!server.line && line.readyState === 0 && !server.stalled) server.open(line);
    const drawn = random();
    steps.find(([below]) => drawn < below)[1]();
    const most = random() < 0.2 ? 8000 : 200;
    let left = Math.floor(random() * most);
    while (left > 0) {
      page.clock.pass(Math.min(left, 10));
      left -= 10;
      server.deliver(paint);
    }
  }
  // In the end what stands there is what stands.
  server.stalled = false;
  for (let turn = 0; turn < 3000; turn += 1) {
    const line = page.sockets.at(-1);
    line.stalls = true;
    if (!server.line && line.readyState === 0) server.open(line);
    if (turn === 2000) server.frame({});
    page.clock.pass(10);
    server.deliver(paint);
  }
  const standing = [...page.document.querySelectorAll(".line:not(.leaving)")].map((line) => Number(line.dataset.line));
  assert.deepEqual(
    standing.sort((one, other) => one - other),
    [...server.standing.keys()],
    `seed ${seed}`,
  );
  return seen.size;
}

test("whatever the order of stalls and cuts, nothing is painted that was taken away before, and in the end all is there", () => {
  let painted = 0;
  for (let seed = 1; seed <= RUNS; seed += 1) {
    page.document.querySelector("#stage").replaceChildren();
    page.sockets.length = 0;
    page.clock.due.length = 0;
    painted += play(seed);
  }
  assert.ok(painted > RUNS * 10, `${painted} lines were painted`);
});
