import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, pressable, run, said, serve, settled, type } from "../support/page.js";

const SOUND = {
  id: "s1",
  name: "Ring",
  was: -13.94,
  loudness: -23,
  seconds: 1.62,
  bytes: 17_500,
  peaks: [1, 4, 2],
  shelf: "Small",
  used: ["Tips", "Follows"],
};
const LOOSE = { ...SOUND, id: "s2", name: "Drop", shelf: null, used: [], bytes: 5001 };
const FILM = { id: "f1", name: "Owl", seconds: 12.04, width: 640, height: 360, bytes: 2_340_000, used: [] };
const PICTURE = { id: "p1", name: "Reed", width: 80, height: 90, bytes: 900, used: [] };
const ROOM = { files: [12, 3000], megabytes: [48, 8000] };
const SHEET = { of_all: ROOM, sounds: [SOUND, LOOSE], films: [FILM], pictures: [PICTURE] };

eachOnAPage({
  html: `<span id="on-air"><b></b></span><p id="summary"></p><p id="room"></p><button id="bring"></button><input id="bring-files" type="file">
    <section id="sounds"></section><section id="films"></section><section id="pictures"></section><div id="drop-here" hidden></div>
    <dl id="keys-list"></dl><button id="show-keys"></button><dialog id="keys"></dialog><div id="messages"></div>`,
});

let played;
beforeEach(async () => {
  played = { asked: [], fails: false };
  globalThis.Audio = class extends EventTarget {
    constructor() {
      super();
      played.audio = this;
    }
    play() {
      played.asked.push(this.src);
      return played.fails ? Promise.reject(new Error("no")) : Promise.resolve();
    }
    pause() {
      played.asked.push("pause");
    }
  };
  serve({
    "/dress/files/sheet": SHEET,
    "/dress/files/sound/s2/remove": { ...SHEET, sounds: [SOUND] },
    "/dress/files/sound/s1": SHEET,
    "/dress/files/sound/s2": SHEET,
  });
  await run("files/main.js");
});

test("every kind is listed with what there is to know of it", () => {
  assert.equal(find("#summary").textContent, "2 sounds, 1 film, 1 picture");
  assert.equal(find("#room").textContent, "Room: 12 of 3 000 files, with the pictures of people and cues, and 48 of 8 000 MB.");
  assert.deepEqual(
    all(".file-row .said").map((facts) => facts.textContent),
    ["1.6 s · −13.9 → −23.0 LUFS · 6 kB", "1.6 s · −13.9 → −23.0 LUFS · 18 kB", "12.0 s · 640 × 360 · 2.3 MB", "80 × 90 · 1 kB"],
  );
  assert.deepEqual(
    all(".file-shelf").map((shelf) => shelf.textContent),
    ["On no shelf", "Small"],
  );
});

test("where it is used is said in one place, whole in its title", () => {
  assert.deepEqual(
    all(".chip").map((chip) => [chip.textContent, chip.title]),
    [["Tips, Follows", "Tips, Follows"]],
  );
});

test("the loudest place of a wave fills its height and silence still shows", () => {
  const heights = all("#sounds .wave")[1].querySelectorAll("rect");
  assert.deepEqual(
    [...heights].map((bar) => Number(bar.getAttribute("height"))),
    [9, 36, 18],
  );
});

test("one sound is heard at a time, and pressed again it stops", async () => {
  called("Hear Ring").click();
  await settled();
  assert.equal(called("Hear Ring").getAttribute("aria-pressed"), "true");
  called("Hear Drop").click();
  await settled();
  assert.deepEqual(
    ["Hear Ring", "Hear Drop"].map((name) => called(name).getAttribute("aria-pressed")),
    ["false", "true"],
  );
  called("Hear Drop").click();
  assert.equal(called("Hear Drop").getAttribute("aria-pressed"), "false");
  assert.deepEqual(played.asked, ["pause", "/sounds/s1.ogg", "pause", "/sounds/s2.ogg", "pause"]);
});

test("a sound that cannot be played here is said to", async () => {
  played.fails = true;
  called("Hear Ring").click();
  await settled();
  assert.deepEqual(said(), ["“Ring” cannot be played here."]);
});

test("a new name and a new shelf are kept", async () => {
  type(called("Name of Ring"), "Bell");
  type(called("Shelf of Drop"), "Large");
  await settled();
  assert.deepEqual(page.asked.slice(1), [
    ["/dress/files/sound/s1", { name: "Bell" }],
    ["/dress/files/sound/s2", { shelf: "Large" }],
  ]);
});

test("whoever was in a field is in it again when the list is drawn anew", async () => {
  called("Name of Drop").focus();
  type(called("Name of Drop"), "Drip");
  await settled();
  assert.equal(page.document.activeElement.getAttribute("aria-label"), "Name of Drop");
});

test("what is taken away can be put back", async () => {
  called("Take Drop away").click();
  await settled();
  assert.deepEqual([called("Name of Drop"), said()], [undefined, ["Drop is gone."]]);
  serve({ "/dress/files/sound/s2/put-back": SHEET });
  pressable("Undo").click();
  await settled();
  assert.ok(called("Name of Drop"));
});

test("what plays with a cue cannot be taken away, and says with which", () => {
  assert.deepEqual([called("Take Ring away").disabled, called("Take Drop away").disabled], [true, false]);
  assert.equal(called("Take Ring away").title, "Plays with Tips, Follows: choose another one there first.");
});

test("files are brought one after another, and those refused are named", async () => {
  const sent = [];
  globalThis.fetch = async (path, options) => {
    sent.push([path, options.body.get("kind"), options.body.get("file").name]);
    const refused = options.body.get("kind") === "";
    return { ok: !refused, json: async () => (refused ? { error: "That is no sound." } : SHEET) };
  };
  const files = [
    new File(["a"], "a.wav", { type: "audio/wav" }),
    new File(["b"], "b.txt", { type: "text/plain" }),
    new File(["c"], "c.webm", { type: "video/webm" }),
  ];
  const drop = Object.assign(new globalThis.Event("drop"), { dataTransfer: { types: ["Files"], files } });
  page.window.dispatchEvent(drop);
  for (let turn = 0; turn < 10; turn += 1) await settled();
  assert.deepEqual(sent, [
    ["/dress/files/bring", "sound", "a.wav"],
    ["/dress/files/bring", "", "b.txt"],
    ["/dress/files/bring", "film", "c.webm"],
  ]);
  assert.deepEqual([said(), find("#summary").textContent], [["That is no sound."], "2 sounds, 1 film, 1 picture"]);
});

test("where there is nothing yet it says what may be dropped", async () => {
  serve({ "/dress/files/sheet": { of_all: ROOM, sounds: [], films: [], pictures: [] } });
  await run("files/main.js");
  assert.equal(find("#summary").textContent, "0 sounds, 0 films, 0 pictures");
  assert.equal(all(".file-none").length, 3);
});
