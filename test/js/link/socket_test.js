import assert from "node:assert/strict";
import { test } from "node:test";
import { eachOnAPage, FakeSocket, page } from "../support/page.js";
import { Socket } from "../../../assets/js/link/socket.js";

eachOnAPage();

function connected() {
  const heard = { frames: [], missed: [], opened: 0, replaced: 0, only: [] };
  const socket = new Socket("/air/secret/live", {
    frame: (frame) => heard.frames.push(frame.at),
    missed: (frames) => heard.missed.push(frames.length),
    open: () => {
      heard.opened += 1;
    },
    replaced: () => {
      heard.replaced += 1;
    },
    only: (what) => heard.only.push(what),
  });
  page.sockets[0].open();
  return { socket, heard };
}

const newest = () => page.sockets.at(-1);

test("it says where it was when it comes back, and nothing is played twice", () => {
  const { heard } = connected();
  assert.match(newest().address, /^ws:\/\/127\.0\.0\.1:4600\/air\/secret\/live\?last=$/);
  newest().tell({ at: "a:5", whole: true });
  newest().tell({ at: "a:6" });
  newest().tell({ at: "a:6" });
  newest().tell({ at: "a:4" });
  newest().close(1006);
  page.clock.pass(300);
  assert.equal(page.sockets.length, 2);
  assert.match(newest().address, /last=a%3A6$/);
  assert.deepEqual(heard.frames, ["a:5", "a:6"]);
});

test("after a hole it asks for a whole picture", () => {
  const { heard } = connected();
  newest().tell({ at: "a:5", whole: true });
  newest().tell({ at: "a:8" });
  assert.equal(newest().readyState, FakeSocket.CLOSED);
  page.clock.pass(300);
  assert.match(newest().address, /last=$/);
  assert.deepEqual(heard.frames, ["a:5"]);
});

test("what comes before it is told what there is, counts after that", () => {
  const { heard } = connected();
  for (const at of ["z:9", "a:4", "a:6", "a:7"]) newest().tell({ at });
  assert.deepEqual(heard.frames, []);
  newest().tell({ at: "a:5", whole: true });
  newest().tell({ at: "a:8" });
  assert.deepEqual([heard.frames, heard.missed], [["a:5", "a:8"], [2]]);
  newest().close(1006);
  page.clock.pass(300);
  newest().open();
  newest().tell({ at: "a:11" });
  newest().tell({ at: "a:10", missed: [{ at: "a:9" }, { at: "a:10" }] });
  assert.deepEqual(heard.missed, [2, 3]);
});

test("an answer that is here before what it is about, counts once that is here", () => {
  const shown = [];
  const socket = new Socket("/air/secret/live", {
    frame: ({ at }) => shown.push(at),
    gone: ({ at }) => shown.push(`gone ${at}`),
    current: () => shown.push("now"),
    missed: (frames) => shown.push(...frames.map(({ at }) => at)),
  });
  newest().stalls = true;
  newest().open();
  newest().tell({ at: "a:5", whole: true });
  newest().tell({ here: socket.flow.number, t: 5, upto: "a:6" });
  assert.deepEqual(shown, ["gone a:5"]);
  newest().tell({ at: "a:6" });
  assert.deepEqual(shown, ["gone a:5", "a:5", "a:6", "now", "now"]);
});

test("that a link is no more may be told in a word", () => {
  const { heard } = connected();
  newest().tell({ at: "a:5", whole: true });
  newest().tell({ replaced: true });
  assert.equal(newest().readyState, FakeSocket.CLOSED);
  assert.equal(heard.replaced, 1);
  page.clock.pass(9000);
  assert.match(newest().address, /last=$/);
});

test("frames of another start do not follow", () => {
  const { heard } = connected();
  newest().tell({ at: "a:5", whole: true });
  newest().tell({ at: "b:6" });
  assert.deepEqual(heard.frames, ["a:5"]);
  page.clock.pass(300);
  newest().tell({ at: "b:6", whole: true });
  newest().tell({ at: "b:7" });
  assert.deepEqual(heard.frames, ["a:5", "b:6", "b:7"]);
});

test("what was missed is told in one piece, and goes on from there", () => {
  const { heard } = connected();
  newest().tell({ at: "a:9", missed: [{ at: "a:8" }, { at: "a:9" }] });
  newest().tell({ at: "a:10" });
  assert.deepEqual([heard.missed, heard.frames], [[2], ["a:10"]]);
});

test("it tries again each second, seldom after a minute, and at once after it was heard", () => {
  connected();
  const waits = [];
  for (let time = 0; time < 64; time += 1) {
    const before = page.sockets.length;
    newest().close(1006);
    let waited = 0;
    while (page.sockets.length === before) {
      page.clock.pass(10);
      waited += 10;
    }
    waits.push(waited);
  }
  for (const [index, waited] of waits.entries()) {
    const ceiling = index < 60 ? Math.min(1000, 250 * 2 ** index) : 8000;
    assert.ok(waited >= ceiling / 2 - 10 && waited <= ceiling + 10, `try ${index}: ${waited} of ${ceiling} ms`);
  }
  newest().tell({ at: "a:1", whole: true });
  newest().close(1006);
  page.clock.pass(260);
  assert.equal(page.sockets.length, 66);
});

test("a link that is no more empties the picture, and asks seldom", () => {
  const { heard } = connected();
  newest().tell({ at: "a:5", whole: true });
  newest().close(4404);
  assert.equal(heard.replaced, 1);
  page.clock.pass(3900);
  assert.equal(page.sockets.length, 1);
  page.clock.pass(4200);
  assert.equal(page.sockets.length, 2);
  assert.match(newest().address, /last=$/);
});

test("a line that went silent is cut, one that is never answered sooner", () => {
  connected();
  newest().tell({ here: 1, t: 5 });
  page.clock.pass(39_000);
  assert.equal(newest().readyState, FakeSocket.OPEN);
  page.clock.pass(7000);
  assert.notEqual(page.sockets[0].readyState, FakeSocket.OPEN);
  const unanswered = newest();
  assert.equal(unanswered.readyState, FakeSocket.CONNECTING);
  page.clock.pass(12_000);
  assert.equal(unanswered.readyState, FakeSocket.CLOSED);
});

test("whoever is not answered waits longer for the next answer, until something is heard", () => {
  connected();
  newest().tell({ t: 1 });
  // Until the next line is begun.
  const passes = () => {
    const before = newest();
    let ms = 0;
    for (; before === newest(); ms += 250) page.clock.pass(250);
    return ms;
  };
  passes();
  const times = [passes(), passes(), passes(), passes()];
  for (const [nth, least] of [5000, 10_000, 20_000, 20_000].entries()) {
    assert.ok(times[nth] >= least && times[nth] < least + 4000, `${times}`);
  }
  newest().open();
  newest().tell({ t: 2 });
  passes();
  assert.ok(passes() < 9000);
});

test("a line over which time is told is known to be dead after some seconds", () => {
  connected();
  for (let second = 0; second < 12; second += 1) {
    newest().tell({ t: page.clock.now });
    page.clock.pass(1000);
  }
  assert.equal(page.sockets.length, 1);
  page.clock.pass(4000);
  assert.equal(newest().readyState, FakeSocket.OPEN);
  page.clock.pass(5000);
  assert.ok(page.sockets.length > 1);
  assert.notEqual(page.sockets[0].readyState, FakeSocket.OPEN);
});

test("a dead line is given up: its end, which comes late or never, is not waited for", () => {
  const { heard } = connected();
  const dead = newest();
  const end = dead.close.bind(dead);
  dead.close = () => {};
  page.clock.pass(45_000);
  assert.equal(page.sockets.length, 2);
  dead.tell({ at: "a:9", whole: true });
  end(1006);
  page.clock.pass(3000);
  assert.deepEqual([page.sockets.length, heard.frames], [2, []]);
});

test("whispers reach this page alone and move nothing", () => {
  const { heard } = connected();
  newest().tell({ only: { stop: 3 } });
  assert.deepEqual([heard.only, heard.frames], [[{ stop: 3 }], []]);
});

test("nothing is sent into a line that is not open", () => {
  const { socket } = connected();
  socket.send({ a: 1 });
  newest().close(1006);
  socket.send({ a: 2 });
  assert.deepEqual(page.sockets[0].sent, [{ a: 1 }]);
});
