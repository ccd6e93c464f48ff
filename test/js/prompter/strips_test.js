import assert from "node:assert/strict";
import { test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, said, serve, settled, type } from "../support/page.js";
import { Answering } from "../../../assets/js/prompter/answering.js";
import { Cues } from "../../../assets/js/prompter/cues.js";
import { Voices } from "../../../assets/js/prompter/voices.js";

eachOnAPage({
  html: `<div id="voices" hidden></div><div id="cues" hidden></div><div id="more-sheet"></div><div id="messages"></div>
    <div id="answering" hidden><form id="answer-form"><div id="answer-feeds"></div><input id="answer"></form><p id="answer-how"></p><p id="answer-lacks"></p></div>`,
});

const room = (more = {}) => ({
  name: "The hides",
  people: [
    ["Teo", true, ["muted"]],
    ["<i>Bo", false, []],
  ],
  more: 0,
  ...more,
});

test("who talks is marked, what a name says stays words, and a lost room says so", () => {
  const voices = new Voices();
  voices.take([room({ more: 3, lost: true }), room({ name: null, people: [] })]);
  assert.deepEqual(
    all(".voice-person").map((person) => [person.textContent, person.classList.contains("talks")]),
    [
      ["Teo", true],
      ["<i>Bo", false],
    ],
  );
  assert.equal(find(".voice-mark").getAttribute("aria-label"), "muted");
  assert.deepEqual(
    all(".voice-room").map((one) => [one.classList.contains("lost"), /and 3 more/.test(one.textContent)]),
    [
      [true, true],
      [false, false],
    ],
  );
  assert.match(all(".voice-room")[1].textContent, /^Voice roomnobody is there$/);
});

test("the strip is there while there is a room and it is wanted", () => {
  const voices = new Voices();
  voices.take([]);
  assert.equal(find("#voices").hidden, true);
  voices.take([room()]);
  assert.equal(find("#voices").hidden, false);
  voices.show(false);
  assert.equal(find("#voices").hidden, true);
  voices.show(true);
  assert.equal(all(".voice-room").length, 1);
});

test("the window of voices opens where it was put, and a browser that refuses is told of", () => {
  const voices = new Voices();
  find("#voices").after(...voices.rows());
  assert.equal(called("Width of the window of voices").value, "320");
  type(called("Width of the window of voices"), "500");
  const opened = [];
  page.window.open = (...given) => {
    opened.push(given);
    return opened.length === 1 ? {} : null;
  };
  pressable("Voices in a window of their own").click();
  pressable("Voices in a window of their own").click();
  assert.deepEqual(opened[0], ["/prompter/?voices", "bavard-voices", "popup,width=500,height=220,left=40,top=40"]);
  assert.match(said()[0], /Allow windows/);
});

test("a window of voices remembers where it was put", () => {
  globalThis.location = { search: "?voices" };
  Object.assign(globalThis, { outerWidth: 444, outerHeight: 300, screenX: 7, screenY: 9 });
  const voices = new Voices();
  voices.show(false);
  voices.take([room()]);
  assert.deepEqual([find("#voices").hidden, page.document.body.classList.contains("voices-alone")], [false, true]);
  page.clock.pass(1000);
  assert.deepEqual(JSON.parse(localStorage.getItem("bavard.prompter.voices")), { width: 444, height: 300, left: 7, top: 9 });
});

const queue = (more = {}) => ({ playing: null, waiting: [], paused: false, approve: false, own: [], ...more });
const waiting = (id, more = {}) => ({ id, words: `alert ${id}`, approved: false, ...more });

test("the queue shows four that wait and counts the others, and goes away when there is nothing", () => {
  const cues = new Cues();
  cues.take(queue({ playing: "Bo follows", waiting: [1, 2, 3, 4, 5, 6].map((id) => waiting(id)) }));
  assert.deepEqual([find("#cues").hidden, all("#cues .cue-line").length, find("#cues > .said").textContent], [false, 5, "and 2 more"]);
  cues.take(queue());
  assert.equal(find("#cues").hidden, true);
  cues.take(queue({ paused: true }));
  assert.match(find("#cues").textContent, /Alerts are paused/);
});

test("what waits for a yes is let play, each is taken out, and the queue pauses and goes on", async () => {
  serve({ "/prompter/act": { done: true } });
  const cues = new Cues();
  cues.take(queue({ playing: "Bo follows", approve: true, waiting: [waiting(1), waiting(2, { approved: true })] }));
  assert.equal(all("button").filter((one) => one.textContent === "Let it play").length, 1);
  for (const press of ["Let it play", "Pause", "Skip"]) pressable(press).click();
  called("Take “alert 2” out").click();
  cues.take(queue({ paused: true }));
  assert.equal(pressable("Skip"), undefined);
  pressable("Go on").click();
  await settled();
  assert.deepEqual(
    page.asked.map(([, what]) => what),
    [{ do: "cue_play", line: 1 }, { do: "cue_pause" }, { do: "cue_skip" }, { do: "cue_off", line: 2 }, { do: "cue_go_on" }],
  );
});

test("the host's own cues have a key each, five at most, and play by place", async () => {
  serve({ "/prompter/act": { done: true } });
  const cues = new Cues();
  const own = [1, 2, 3, 4, 5, 6].map((id) => ({ id: `c${id}`, name: `Cue ${id}` }));
  cues.take(queue({ own }));
  const before = all(".own-cues button");
  assert.deepEqual(
    before.map((row) => row.textContent),
    ["Play “Cue 1”5", "Play “Cue 2”6", "Play “Cue 3”7", "Play “Cue 4”8", "Play “Cue 5”9"],
  );
  cues.take(queue({ own: structuredClone(own) }));
  assert.equal(all(".own-cues button")[0], before[0]);
  before[1].click();
  cues.play(9);
  await settled();
  assert.deepEqual([page.asked.map(([, what]) => what.text), said()], [["c2"], ["“Cue 2” plays."]]);
});

const feed = (id, more = {}) => ({ id, name: `Feed ${id}`, mark: ["circle", "#5fb8d6"], answers: true, ...more });

test("only chats that allow it are offered, and ticks stay while they are the same", () => {
  const answering = new Answering();
  answering.tell([feed(1, { answers: false })], []);
  assert.equal(find("#answering").hidden, true);
  answering.tell([feed(1), feed(2), feed(3, { answers: false })], []);
  assert.deepEqual([find("#answering").hidden, all("#answer-feeds input").length], [false, 2]);
  called("Answer on Feed 1").checked = false;
  answering.tell([feed(1), feed(2)], []);
  assert.equal(called("Answer on Feed 1").checked, false);
  answering.tell([feed(1)], []);
  assert.equal(called("Answer on Feed 1").checked, true);
});

test("an answer goes to the ticked chats, and whether it went is said for each", async () => {
  serve({ "/prompter/answer": { answer: 44 } });
  const answering = new Answering();
  const feeds = [feed(1), feed(2)];
  answering.tell(feeds, []);
  called("Answer on Feed 2").checked = false;
  find("#answer").value = "hello";
  find("#answer-form").dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
  await settled();
  assert.deepEqual([page.asked, find("#answer").value], [[["/prompter/answer", { text: "hello", feeds: ["1"] }]], ""]);
  const told = (all) => {
    answering.tell(feeds, [
      { id: 43, feeds: [{ id: 1, state: "went" }] },
      { id: 44, feeds: all },
    ]);
    return find("#answer-how").textContent;
  };
  assert.equal(told([{ id: 1, state: "sending" }]), "Feed 1: on its way");
  assert.equal(
    told([
      { id: 1, state: "went" },
      { id: 9, state: "refused" },
    ]),
    "Feed 1: went · A chat: did not go",
  );
  assert.equal(told([{ id: 1, state: "refused", reason: "Too fast." }]), "Feed 1: Too fast.");
});

test("a refused answer keeps what was typed, and an answer to a person goes to their chat alone", async () => {
  serve({ "/prompter/answer": { error: "That is too long." } });
  const answering = new Answering();
  answering.tell([feed(1), feed(2)], []);
  answering.to({ fd: 2, n: "Bo" });
  assert.deepEqual([called("Answer on Feed 1").checked, called("Answer on Feed 2").checked, find("#answer").value], [false, true, "@Bo "]);
  find("#answer-form").dispatchEvent(new globalThis.Event("submit", { bubbles: true, cancelable: true }));
  await settled();
  assert.deepEqual([find("#answer").value, said()], ["@Bo ", ["That is too long."]]);
});
