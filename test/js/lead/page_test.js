import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, page, run, serve, settled } from "../support/page.js";

const KEYS = ["chat", "picture", "look", "program", "proof"];
const BODIES = {
  chat: `<form id="lead-chat-form"><select id="lead-place"><option data-field="channel" data-label="Channel" data-example="x" data-values="{}"></option></select>
    <label id="lead-address-label"></label><input id="lead-address"><p id="lead-chat-error" hidden></p><button type="button" id="lead-anyway"></button></form>`,
  picture: `<button data-picture="white"></button><button data-picture="dawn"></button><input type="file" id="lead-own-picture">`,
  look: `<button id="lead-take"></button>`,
  program: `<button data-copy="link">Copy</button><button data-copy="width">Width <b></b></button><button data-copy="height">Height <b></b></button><button data-copy="frame_rate">Rate <b></b></button>`,
  proof: `<p id="lead-waits"></p><button id="lead-finish" hidden></button>`,
};
const step = (key) =>
  `<li data-step="${key}"><button class="lead-head"></button><span data-words></span><div class="lead-body" hidden>${BODIES[key]}</div></li>`;
eachOnAPage({
  html: `<main class="lead-page" data-outfits='{"quiet":"Quiet"}'><p id="lead-said"></p><ol id="lead-steps">${KEYS.map(step).join("")}</ol><button id="lead-leave"></button>
    <div id="frame" data-backdrop="none"><span id="lead-whose" hidden></span></div><div id="lead-outfits" hidden></div><span id="lead-last"></span><span id="lead-air"></span></main>
    <span id="on-air"><b></b></span><div id="messages"></div><dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog>`,
});

const STAGE = { stage: 3, name: "Main", link: "http://x/air/secret", size: { width: 1280, height: 720, frame_rate: 30 } };
const FIGURES = { in: 0, off: 0, aired: 0, feeds: 0, live: 0, trouble: 0, waiting: 0, screens: 0, emotes: 0, held: 0 };
const asked = () => page.asked.map(([path, body]) => (Object.keys(body ?? {}).length > 0 ? [path, body] : [path]));
let number;
let gone;

// done: how many of the steps are
async function tell(done, lead = {}, stages = [{ id: 3, backdrop: "white", revision: 0 }]) {
  number += 1;
  const steps = KEYS.map((key, at) => ({ key, words: key, state: at < done ? "done" : at === done ? "now" : "later" }));
  page.sockets.at(-1).tell({
    at: `a:${number}`,
    whole: number === 1,
    now: 0,
    figures: FIGURES,
    stages,
    lead: lead && { left: false, quiet: true, steps, ...lead },
  });
  await settled();
}

beforeEach(async () => {
  number = 0;
  gone = [];
  page.window.location.assign = (path) => gone.push(path);
  serve({
    "/lead/stage": STAGE,
    "/stage/3/looks": { box: [0, 0, 1280, 720], looks: [] },
    "/lead": { done: true },
    "/stage/3": { revision: 1 },
  });
  await run("lead/main.js");
  page.sockets.at(-1).open();
});

test("no stage is made before one is needed, and one alone", async () => {
  await tell(0);
  assert.deepEqual(asked(), []);
  await tell(1);
  await tell(1);
  assert.deepEqual(asked(), [["/lead/stage"]]);
  assert.equal(find("#draft").getAttribute("src"), "/stage/3/draft");
  assert.deepEqual([find('[data-copy="width"] b').textContent, find("#lead-said").textContent.includes("1 of 5")], ["1280", true]);
});

test("a picture that is chosen before the stage is there waits for it", async () => {
  await tell(0);
  find("[data-picture=dawn]").click();
  await settled();
  assert.deepEqual(asked(), [["/lead/stage"], ["/stage/3/backdrop", { backdrop: "dawn" }]]);
});

test("made-up lines stand in only while it is chosen how it looks, and nobody writes", async () => {
  const rehearsed = () => asked().flatMap(([path, body]) => (path === "/stage/3/rehearse" ? [body.script] : []));
  await tell(1, { stage: 3 });
  assert.deepEqual(rehearsed(), []);
  await tell(2, { stage: 3 });
  await tell(2, { stage: 3 });
  assert.deepEqual(rehearsed(), ["quiet_dawn"]);
  await tell(2, { stage: 3, quiet: false });
  assert.deepEqual([rehearsed(), find("#lead-whose").textContent], [["quiet_dawn", ""], "your chat, as it comes"]);
  await tell(2, { stage: 3 });
  find("#lead-leave").click();
  await settled();
  assert.deepEqual(rehearsed(), ["quiet_dawn", "", "quiet_dawn", ""]);
});

test("one outfit is taken by its name, and none where none is worn", async () => {
  await tell(2, { stage: 3 });
  assert.deepEqual([find("#lead-take").disabled, find("#lead-outfits").hidden], [true, false]);
  await tell(2, { stage: 3, wears: "quiet" });
  assert.deepEqual([find("#lead-take").disabled, find("#lead-take").textContent], [false, "Take Quiet"]);
  find("#lead-take").click();
  await settled();
  assert.deepEqual(asked().at(-1), ["/stage/3/put-on-air"]);
});

test("another stage is shown where the first was taken away", async () => {
  await tell(1, { stage: 3 });
  serve({ "/lead/stage": { ...STAGE, stage: 8 } });
  await tell(1, { stage: 8 }, [{ id: 8, backdrop: "none", revision: 0 }]);
  assert.deepEqual(
    all("iframe").map((one) => one.getAttribute("src")),
    ["/stage/8/draft"],
  );
});

test("whoever comes takes it up; whoever leaves does not", async () => {
  await tell(0, { left: true });
  assert.deepEqual(asked(), [["/lead/take-up"]]);
  await tell(0);
  find("#lead-leave").click();
  await settled();
  await tell(0, { left: true });
  assert.deepEqual([asked(), gone], [[["/lead/take-up"], ["/lead/leave"]], ["/feeds"]]);
});

test("it is over when all of it was seen and somebody says so, here or elsewhere", async () => {
  await tell(4, { stage: 3 });
  assert.deepEqual([find("#lead-finish").hidden, find("#lead-waits").hidden], [true, false]);
  await tell(5, { stage: 3, last: { took: 41, from: "Oxbow" } });
  assert.deepEqual([find("#lead-finish").hidden, find("#lead-waits").hidden], [false, true]);
  assert.match(find("#lead-last").textContent, /took 41 ms from Oxbow/);
  await tell(0, null);
  assert.deepEqual(gone, ["/feeds"]);
});
