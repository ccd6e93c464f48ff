import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, eachOnAPage, find, key, page, pressable, said, serve, settled, type } from "../support/page.js";
import { bar } from "../../../assets/js/stage/bar.js";
import { Commands } from "../../../assets/js/stage/commands.js";
import { rehearsal } from "../../../assets/js/stage/rehearsal.js";
import { revisions } from "../../../assets/js/stage/revisions.js";
import { voiceRehearsal } from "../../../assets/js/stage/voice_rehearsal.js";

// What stands above the picture and below it: what waits, what is on air, what is done with what is chosen, and made-up traffic.

const buttons = (...ids) => ids.map((id) => `<button id="${id}"><span></span><svg><use></use></svg></button>`).join("");
eachOnAPage({
  html: `<div id="messages"></div>${buttons("put-on-air", "undo", "redo", "set-back", "stage-size", "remove", "remove-many", "group", "ungroup")}
    ${buttons("rehearse", "hold", "step", "clear", "play-recent")}<details id="changes"><ul id="changes-list"></ul></details><span id="waiting"></span>
    <input type="checkbox" id="at-once"><dialog id="revisions"><div id="revision-list"></div></dialog>
    <div id="for-many"><button data-how="left"><i></i></button></div><div id="fit-how"><button data-how="inside"></button></div><select id="fit-to"><option value="stage">S</option></select>
    <div id="scripts"><input type="radio" name="s" value="calm" checked><input type="radio" name="s" value="flood"></div>
    <div id="script-bars"></div><input type="range" id="rate" value="0"><span id="rehearsal-rate"></span><span id="rehearsing"></span>
    <details class="log-menu"></details><input type="file" id="play-log"><select id="play-speed"><option value="2">2</option></select>
    <div id="voice-scripts"><label><input type="radio" name="v" value="">Voices</label><label><input type="radio" name="v" value="chatty">Chatty</label></div><span id="voices-now"></span><div id="talkers"></div>`,
});

const here = (path) => `/stage/4/${path}`;
const asked = () => page.asked.map(([path, values]) => [path.replace("/stage/4/", ""), values]);
let undone;
beforeEach(() => {
  undone = 0;
  serve({ "/stage": { revision: 7 } });
});
const undo = () => {
  undone += 1;
};
const state = (more = {}) => ({
  size: { width: 1920, height: 1080 },
  revision: 3,
  changes: [],
  undo: false,
  redo: true,
  air_at_once: false,
  ...more,
});

test("what waits is counted, listed, and put on air only where there is something", async () => {
  const { show, putOnAir } = bar(here);
  show(state());
  const words = () => [find("#stage-size").textContent, find("#waiting").textContent, find("#changes-list").textContent];
  assert.deepEqual(words(), ["1920 × 1080 · r3 is on air", "nothing waiting", "What you see here is what viewers see."]);
  assert.deepEqual(
    ["put-on-air", "set-back", "undo", "redo"].map((id) => find(`#${id}`).disabled),
    [true, true, true, false],
  );
  show(state({ revision: 0, changes: ["The chat is wider."] }));
  assert.deepEqual(words(), ["1920 × 1080 · nothing on air yet", "1 change waiting", "The chat is wider."]);
  assert.deepEqual(
    ["put-on-air", "set-back"].map((id) => find(`#${id}`).disabled),
    [false, true],
  );
  show(state({ changes: ["a", "b"], air_at_once: true }));
  assert.deepEqual(
    [find("#waiting").textContent, find("#waiting").className, find("#at-once").checked],
    ["every edit on air", "live", true],
  );
  await putOnAir();
  assert.deepEqual(said(), ["Revision 7 is on air."]);
});

test("the draft is set back with a way back, and every edit goes on air where that is asked for", async () => {
  bar(here);
  find("#set-back").click();
  await settled();
  pressable("Undo").click();
  find("#at-once").checked = true;
  find("#at-once").dispatchEvent(new globalThis.Event("change"));
  await settled();
  assert.deepEqual(asked(), [
    ["set-back", {}],
    ["undo", {}],
    ["at-once", { on: "1" }],
  ]);
  serve({ "/stage": { error: "Nobody is there." } });
  find("#set-back").click();
  await settled();
  assert.equal(said().at(-1), "Nobody is there.");
});

test("what was on air is listed, compared in words and restored as a draft", async () => {
  revisions(here, undo);
  serve({
    "/stage/4/revisions/2/restore": {},
    "/stage/4/revisions/2": { changes: [] },
    "/stage/4/revisions": {
      revisions: [
        { number: 3, at: 0, by: "Teo", on_air: true },
        { number: 2, at: 0, by: null, on_air: false },
      ],
    },
  });
  find("#stage-size").click();
  await settled();
  assert.deepEqual(
    all(".revision").map((row) => [row.querySelector("b").textContent, row.querySelector(".chip") !== null]),
    [
      ["r3", true],
      ["r2", false],
    ],
  );
  const [, second] = all(".revision");
  const press = (words) => [...second.querySelectorAll("button")].find((one) => one.textContent === words).click();
  press("Compare");
  await settled();
  assert.equal(second.querySelector("ul").textContent, "It is the same as the draft.");
  press("Restore");
  await settled();
  assert.equal(find("#revisions").open, false);
  pressable("Undo").click();
  assert.equal(undone, 1);
});

function doing(chosen, pieces = ["a", "b", "c"].map((id) => ({ id }))) {
  const sent = [];
  const wished = [];
  const edits = {
    send: async (edit) => {
      sent.push(edit);
      return { edits: 9 };
    },
  };
  const made = new Commands({
    edits,
    draft: { document: { pieces } },
    state: { chosen: new Set(chosen) },
    called: (piece) => `Piece ${piece.id}`,
    undo,
    wish: (at) => wished.push(at),
    draw: () => {},
  });
  return { made, sent, wished };
}

test("what is done, is done with all that is chosen, and with nothing where nothing is", async () => {
  const { sent } = doing(["a", "b"]);
  find("#for-many i").click();
  for (const id of ["group", "ungroup", "remove-many"]) find(`#${id}`).click();
  find("#fit-how button").click();
  await settled();
  assert.deepEqual(sent, [
    { pieces: ["a", "b"], do: "arrange", how: "left" },
    { pieces: ["a", "b"], do: "group" },
    { pieces: ["a", "b"], do: "ungroup" },
    { do: "off", pieces: ["a", "b"] },
    { do: "fit", piece: "a", to: "stage", how: "inside" },
  ]);
  assert.deepEqual(said(), ["2 pieces are taken off the stage."]);
  pressable("Undo").click();
  assert.equal(undone, 1);
});

test("with nothing chosen nothing is sent", async () => {
  const { sent, made } = doing([]);
  made.copy();
  await made.duplicate();
  await made.remove();
  made.orderBy(1);
  assert.deepEqual([sent, said()], [[], []]);
});

test("pieces are copied over to other stages, and the copies are chosen", async () => {
  const { sent, wished, made } = doing(["b"]);
  await made.paste();
  assert.deepEqual(sent, []);
  made.copy();
  await made.paste();
  await made.duplicate();
  made.orderBy(-1);
  assert.deepEqual(sent, [
    { do: "paste", pieces: [{ id: "b" }], beside: true },
    { pieces: ["b"], do: "duplicate" },
    { do: "order", piece: "b", at: 0 },
  ]);
  assert.deepEqual([wished, said()], [[9, 9], ["1 piece copied. Put down here or on another stage with Ctrl v."]]);
});

const running = (more = {}) => ({ key: "flood", held: false, at: 30_000, length: 60_000, rate: 600, per_minute: 590, ...more });
async function rehearsing() {
  serve({
    "/stage/scripts": {
      scripts: [
        {
          key: "calm",
          bars: [
            [1, 1],
            [4, 0],
          ],
        },
        { key: "flood", bars: [[8]] },
      ],
    },
    "/stage/4": { lines: 3, lasts_ms: 61_000, bars: [[1]] },
  });
  const tell = rehearsal(here);
  await settled();
  page.asked.length = 0;
  return tell;
}
const bars = () => all("#script-bars i").map((part) => part.style.height);

test("a script shows how many lines come when, and plays at its own pace or another", async () => {
  const tell = await rehearsing();
  tell({ rehearsal: null });
  assert.deepEqual(
    [bars(), find("#hold").disabled, find("#rehearsal-rate").textContent],
    [["8px", "8px", "32px", "0px"], true, "its own pace"],
  );
  find("#rehearse").click();
  find("#rate").value = "100";
  find("#rate").dispatchEvent(new globalThis.Event("input"));
  assert.equal(find("#rehearsal-rate").textContent, "600 a minute");
  find("#rehearse").click();
  await settled();
  assert.deepEqual(asked(), [
    ["rehearse", { script: "calm", rate: "" }],
    ["rehearse", { script: "calm", rate: "600" }],
  ]);
});

test("what runs can be held, stepped, moved and stopped, and says so once", async () => {
  const tell = await rehearsing();
  tell({ rehearsal: running() });
  assert.deepEqual(
    [find("#rehearse span").textContent, find("#script-bars").getAttribute("aria-valuenow"), find("#rehearsal-rate").textContent, bars()],
    ["Stop", "50", "590 a minute", ["32px"]],
  );
  assert.deepEqual([find("#rehearsing").textContent, find("#rate").value], ["Made-up lines play in this draft alone.", "100"]);
  find("#hold").click();
  find("#step").click();
  key("ArrowRight", { target: find("#script-bars") });
  tell({ rehearsal: running({ held: true }) });
  assert.deepEqual([find("#hold").getAttribute("aria-label"), find("#rehearsal-rate").textContent], ["Go on", "held at 30 s"]);
  find("#hold").click();
  find("#rehearse").click();
  await settled();
  assert.deepEqual(asked(), [
    ["rehearsal", { how: "hold", value: "" }],
    ["rehearsal", { how: "step", value: "" }],
    ["rehearsal", { how: "at", value: "31200" }],
    ["rehearsal", { how: "on", value: "" }],
    ["rehearse", { script: "", rate: "600" }],
  ]);
  tell({ rehearsal: null });
  assert.equal(find("#rehearsing").textContent, "The rehearsal is over.");
});

test("what was said lately is played again in the draft, and how much that is is said", async () => {
  const tell = await rehearsing();
  find("#play-recent").click();
  await settled();
  tell({ rehearsal: running({ key: "playback" }) });
  assert.deepEqual([asked(), said(), bars()], [[["play-recent", { minutes: "10" }]], ["Playing 3 lines, for 1 min."], ["32px"]]);
});

const cast = [
  ["t", "Teo"],
  ["b", "<b>Bo"],
];

test("somebody talks while their key is held, and stops when the window is left", async () => {
  const tell = voiceRehearsal(here, cast);
  key("1");
  key("1", { repeat: true });
  key("2", { ctrlKey: true });
  key("9");
  page.window.dispatchEvent(new globalThis.KeyboardEvent("keyup", { key: "1" }));
  key("2");
  page.window.dispatchEvent(new globalThis.Event("blur"));
  await settled();
  assert.deepEqual(
    asked().map(([, { who, on }]) => [who, on]),
    [
      ["t", "1"],
      ["t", "0"],
      ["b", "1"],
      ["b", "0"],
    ],
  );
  tell({ voices: { key: "chatty", people: [["c", "Cy"]], talk: ["c"] } });
  assert.deepEqual(
    [find("#voices-now").textContent, all(".talker").map((one) => [one.textContent, one.classList.contains("on")])],
    ["Chatty", [["1Cy", true]]],
  );
  tell({ voices: null });
  assert.deepEqual([find("#voices-now").textContent, all(".talker").length], ["Voices", 2]);
  find("#voice-scripts input").value = "chatty";
  type(find("#voice-scripts input"), "chatty");
  await settled();
  assert.deepEqual(asked().at(-1), ["voices", { script: "chatty" }]);
});

test("digits that are typed in a field let nobody talk", async () => {
  voiceRehearsal(here, cast);
  key("1", { target: find("#rate") });
  await settled();
  assert.deepEqual(page.asked, []);
});
