import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled } from "../support/page.js";

// The sheets that a lane's menu opens.
const SHEETS = `<dialog id="inbox"><input id="inbox-expects"><button id="inbox-expects-do"></button><p id="inbox-error"></p></dialog><button id="inbox-show"></button><dialog id="sets"><ul id="set-list"></ul></dialog><dialog id="microphones"><form id="microphones-form"><h2 id="microphones-title"></h2><ul id="microphone-list"></ul><input id="microphone-name"><datalist id="microphone-cast"></datalist><p id="microphones-error"></p><input type="checkbox" id="microphone-anybody"><button type="button" id="microphone-anybody-copy"></button><button type="button" id="microphones-close"></button></form></dialog>
  <dialog id="mapping"><form id="mapping-form"></form>
  <p id="mapping-error"></p><button id="mapping-close"></button></dialog><dialog id="room-sheet"><form id="room-form"></form><button id="room-close"></button></dialog>`;

eachOnAPage({ html: `<div id="lanes"></div><div id="messages"></div>${SHEETS}` });

let Lane;
beforeEach(async () => {
  ({ Lane } = await import("../../../assets/js/feeds/lane.js"));
});

const NOW = new Date(2026, 0, 4, 12, 0, 0).getTime();
const FEED = {
  id: 4,
  name: "Oxbow",
  words: "#reedmere",
  kind: "irc",
  platform: "oxbow",
  mark: ["circle", "#5fb8d6"],
  state: "live",
  since: NOW - 125_000,
  reason: "Joined.",
  lines: [],
  pace: [0, 2, 8],
  rate: 10,
  wanted: true,
};
const card = (more = {}) => ({ t: NOW, n: "Ann", c: "#fff", day: "#000", k: "said", f: [["text", "hi"]], ...more });

function lane(more = {}) {
  const feed = { ...FEED, ...more };
  const made = new Lane(feed);
  find("#lanes").replaceChildren(made.element);
  made.tell(feed, NOW);
  return made;
}
const chip = () => find(".lane-state .chip").textContent;
const rows = () => [...find(".lane-lines").children].map((row) => row.textContent);

test("each state says what it is and since when", () => {
  const states = [
    [{}, "live, 2 min"],
    [{ state: "off" }, "off"],
    [{ state: "connecting" }, "connecting"],
    [{ state: "nobody_broadcasting" }, "connected, nobody is broadcasting"],
    [{ state: "waiting", retry_in: 8000 }, "lost at 11:57, again in 8 s"],
    [{ state: "waiting" }, "silent since 11:57"],
    [{ state: "needs_you", want: "permission" }, "needs permission"],
    [{ state: "needs_you", want: "odd" }, "needs you"],
  ];
  for (const [more, words] of states) {
    lane(more);
    assert.equal(chip(), words);
    assert.equal(find(".lane").classList.contains("needs"), more.state === "needs_you");
  }
});

test("the last lines stand there with all that is told of them", () => {
  lane({
    lines: [
      card({ r: { n: "Bo" }, v: "5.00 EUR", w: 1 }),
      card({ e: "follows", f: [], v: "5.00 EUR" }),
      card({ off: "Links", pulled: 1 }),
      card({ pulled: 1 }),
      card({ r: {} }),
    ],
  });
  assert.deepEqual(rows(), [
    "12:00AnnBo5.00 EURhifirst line",
    "12:00Annfollows",
    "12:00Annhikept off: Links",
    "12:00Annhideleted",
    "12:00Annan earlier linehi",
  ]);
  assert.deepEqual(
    all(".lane-line").map((row) => row.classList.contains("gone")),
    [false, false, true, true, false],
  );
});

test("there is room for six rows, the newest last, and trouble is never pushed out", () => {
  const many = Array.from({ length: 9 }, (_, at) => card({ f: [["text", `n${at}`]] }));
  lane({ lines: many });
  assert.deepEqual([rows().length, rows().at(-1).endsWith("n8")], [6, true]);
  lane({ lines: many, state: "waiting", reason: "The server is away.", gap: [NOW - 9000, NOW - 1000] });
  assert.deepEqual(rows().slice(-2), ["Nothing is known from 11:59:51 to 11:59:59: this server keeps no history.", "The server is away."]);
  lane({ kind: "described", gap: [NOW - 9000, NOW - 1000] });
  assert.match(rows().at(-1), /: what was said then cannot be read\.$/);
  lane({ lines: many, room: { name: "The hides", people: ["Teo"], count: 3 } });
  assert.deepEqual([rows().length, rows()[0], rows().at(-1).endsWith("n8")], [6, "The hidesTeo and 2 more", true]);
});

test("a feed that knows no place asks for it, and any other can be read elsewhere", () => {
  const asks = [{ field: "skein.room", label: "Room", value: "reedmere" }];
  lane({ state: "needs_you", want: "address", reason: "Skein does not know “nowhere”.", asks });
  assert.deepEqual([all(".lane-lines .address").length, find(".chip").textContent], [1, "needs another address"]);
  lane({ state: "needs_you", want: "permission", asks });
  assert.equal(all(".address").length, 0);
  lane({ asks, lines: [card()] });
  pressable("Read elsewhere").click();
  assert.deepEqual([find(".address input").value, globalThis.document.activeElement.name], ["reedmere", "skein.room"]);
  pressable("Leave it as it was").click();
  assert.deepEqual([all(".address").length, rows().length], [0, 1]);
});

test("where nothing came yet it says what will", () => {
  lane();
  assert.deepEqual(rows(), ["Joined. Lines show here as they come."]);
  lane({ state: "connecting" });
  assert.deepEqual(rows(), ["Joined."]);
  lane({ room: { name: "The hides", people: [], count: 0 } });
  assert.deepEqual(rows(), ["The hidesnobody is there"]);
});

test("its pace is drawn against the busiest ten seconds", () => {
  lane();
  const heights = [...find(".lane-pace svg").children].map((bar) => Number(bar.getAttribute("height")));
  assert.deepEqual([heights, find(".lane-pace p").textContent], [[1, 11, 44], "10 a minute"]);
  lane({ rate: 400, thinned: 260 });
  assert.equal(find(".lane-pace p").textContent, "400 a minute, 260 too many to be read");
  lane({ rate: 0, thinned: 0, pace: [1] });
  assert.deepEqual([Number(find(".lane-pace rect").getAttribute("height")), find(".lane-pace p").textContent], [11, "quiet for a minute"]);
});

test("what can be done is made anew only when it changes, so that focus stays", () => {
  const made = lane();
  const before = pressable("Disconnect");
  made.tell({ ...FEED, lines: [card()] }, NOW);
  assert.equal(pressable("Disconnect"), before);
  made.tell({ ...FEED, wanted: false }, NOW);
  assert.deepEqual([pressable("Disconnect"), pressable("Connect").textContent], [undefined, "Connect"]);
  made.tell({ ...FEED, state: "needs_you", want: "permission" }, NOW);
  assert.ok(pressable("Connect"));
});

test("every kind of feed offers what is for it", () => {
  const offered = (more) => {
    lane(more);
    return all(".menu-sheet > *").map((one) => one.textContent);
  };
  assert.deepEqual(offered({}), ["Tags", "Into the draft alone"]);
  assert.deepEqual(offered({ kind: "voice", rooms: true, draft_only: true }), ["Another room", "On air too"]);
  assert.deepEqual(offered({ kind: "inbox" }), ["Address and key", "Into the draft alone"]);
  const account = { login: "odalys", may: ["read", "write"], since: NOW };
  assert.deepEqual(offered({ kind: "own", consent: true }), ["Give permission", "Into the draft alone"]);
  assert.deepEqual(offered({ kind: "own", consent: true, account }), [
    "Change the account",
    "Disconnect the account",
    "Into the draft alone",
  ]);
  assert.equal(find(".lane-account").textContent, "May read and write, since 4 Jan 2026");
  assert.equal(find(".menu-sheet a").getAttribute("href"), "/feeds/permission?platform=oxbow&feed=4");
});

test("deeds are sent, and a feed taken away can be put back", async () => {
  serve({ "/feeds/4/remove": {}, "/feeds/4/put-back": {}, "/feeds/4/draft-only": {}, "/feeds/4/disconnect": { error: "Not now." } });
  lane();
  pressable("Into the draft alone").click();
  pressable("Disconnect").click();
  called("Take Oxbow away").click();
  await settled();
  assert.deepEqual(said(), ["Not now.", "Oxbow is taken away."]);
  pressable("Undo").click();
  await settled();
  assert.deepEqual(page.asked, [
    ["/feeds/4/draft-only", { on: "1" }],
    ["/feeds/4/disconnect", {}],
    ["/feeds/4/remove", {}],
    ["/feeds/4/put-back", {}],
  ]);
});

test("a viewer's and a platform's words are words", () => {
  const evil = "<img src=x onerror=alert(1)>";
  lane({
    name: evil,
    words: evil,
    reason: evil,
    state: "waiting",
    lines: [card({ n: evil, f: [["text", evil]] })],
    room: { name: evil, people: [evil], count: 1 },
  });
  assert.equal(find("#lanes img"), null);
});
