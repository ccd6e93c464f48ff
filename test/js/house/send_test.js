import assert from "node:assert/strict";
import { test } from "node:test";
import { all, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";
import { say } from "../../../assets/js/house/messages.js";
import { attempt, get, Refused, send, sendFiles, sendJson, sendRaw } from "../../../assets/js/house/send.js";
import { clock, clockSeconds, count, day, lasting } from "../../../assets/js/house/words.js";

eachOnAPage({ html: '<div id="messages"></div>' });

test("what is refused says why and for which field", async () => {
  serve({ "/keep": { error: "Too long.", field: "name" } });
  await assert.rejects(
    send("/keep", { name: "x" }),
    (error) => error instanceof Refused && error.message === "Too long." && error.field === "name",
  );
  assert.deepEqual(page.asked, [["/keep", { name: "x" }]]);
});

test("a button's deed that is refused says so at the foot and gives nothing", async () => {
  serve({ "/keep": { error: "Too long." } });
  assert.equal(await attempt(() => send("/keep")), undefined);
  assert.deepEqual([said(), find(".message-line").classList.contains("bad")], [["Too long."], true]);
});

test("a fault of our own is not swallowed", async () => {
  await assert.rejects(
    attempt(() => {
      throw new TypeError("ours");
    }),
    TypeError,
  );
  assert.deepEqual(said(), []);
});

test("a server that is not there or answers nonsense is told as that", async () => {
  globalThis.fetch = () => Promise.reject(new TypeError("down"));
  await attempt(() => get("/sheet"));
  for (const ok of [false, true]) {
    globalThis.fetch = async () => ({ ok, json: () => Promise.reject(new SyntaxError("<html>")) });
    assert.equal(await attempt(() => get("/sheet")), undefined);
  }
  const unread = "Bavard answered something that cannot be read.";
  assert.deepEqual(said(), ["Bavard cannot be reached just now. Nothing was changed; try again in a moment.", unread, unread]);
});

test("whoever was signed out meanwhile is sent to the door", async () => {
  const gone = [];
  globalThis.location = { assign: (path) => gone.push(path) };
  globalThis.fetch = async () => ({ ok: true, redirected: true, json: async () => ({}) });
  await assert.rejects(get("/sheet"), Refused);
  assert.deepEqual(gone, ["/account/login"]);
});

test("documents go as JSON, and what comes may be a file", async () => {
  const sent = [];
  globalThis.fetch = async (_path, options) => {
    sent.push([options.body, options.headers["Content-Type"]]);
    return { ok: true, json: async () => "read", blob: async () => "bytes" };
  };
  assert.equal(await sendJson("/doc", { a: [1] }), "read");
  assert.equal(await sendRaw("/file", "x", { as: "blob" }), "bytes");
  assert.equal(await sendRaw("/file", "x"), "read");
  assert.deepEqual(sent[0], ['{"a":[1]}', "application/json"]);
});

test("a message goes by itself, or with its way back", async () => {
  const undone = [];
  say("Gone.", { undo: () => undone.push(1) });
  say("Other.");
  assert.equal(all(".message-line button").length, 1);
  pressable("Undo").click();
  await settled();
  assert.deepEqual([undone, said()], [[1], ["Other."]]);
  page.clock.pass(8999);
  assert.deepEqual(said(), ["Other."]);
  page.clock.pass(1);
  assert.deepEqual(said(), []);
});

test("words of a message are words", () => {
  say("<img src=x onerror=alert(1)>");
  assert.equal(find("#messages img"), null);
});

test("times and numbers as the house writes them", () => {
  const morning = new Date(2026, 0, 4, 6, 5, 9).getTime();
  assert.deepEqual([clock(morning), clockSeconds(morning), day(morning)], ["06:05", "06:05:09", "4 Jan 2026"]);
  assert.deepEqual([-5, 0, 59_400, 59_500, 60_000, 3_599_000, 3_600_000, 7_260_000].map(lasting), [
    "0 s",
    "0 s",
    "59 s",
    "1 min",
    "1 min",
    "59 min",
    "1 h 0 min",
    "2 h 1 min",
  ]);
  assert.deepEqual(
    [count(1, "line"), count(0, "line"), count(12345, "line"), count(2, "person", "people")],
    ["1 line", "0 lines", "12 345 lines", "2 people"],
  );
});

test("what does not fit is told before any of it is sent", async () => {
  serve({ "/dress": { done: true } });
  page.document.head.innerHTML = `<meta name="bodies" content='[["^/dress/files/bring$", 2097152], ["^/gate/", 10]]'>`;
  const form = (bytes) => {
    const made = new FormData();
    made.set("name", "song");
    made.set("file", new Blob([new Uint8Array(bytes)]), "song.wav");
    return made;
  };
  await assert.rejects(
    sendFiles("/dress/files/bring", form(2_097_152)),
    (error) => error instanceof Refused && error.message === "That is more than fits at once: 2 MB at most. Nothing was sent.",
  );
  await assert.rejects(sendRaw("/gate/read", new ArrayBuffer(11)), Refused);
  assert.deepEqual(page.asked, []);
  await sendFiles("/dress/files/bring", form(2_000_000));
  await sendFiles("/dress/shelves/upload", form(5_000_000));
  assert.equal(page.asked.length, 2);
});
