import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { all, called, eachOnAPage, find, page, PlainEvent, pressable, serve, settled, type } from "../support/page.js";
import { Chime } from "../../../assets/js/prompter/chime.js";
import { Speech } from "../../../assets/js/prompter/speech.js";

eachOnAPage({
  html: `<div id="speaking" hidden><span id="speaking-words"></span></div><button id="speech-skip"></button><button id="speech-stop"></button>
    <div id="speech-sheet"></div><div id="chime-sheet"></div>`,
});

let voices;
let spoken;
let tones;

// What a browser has: voices, and something to make tones with.
class Words extends EventTarget {
  constructor(text) {
    super();
    this.text = text;
  }
}

class Tones {
  currentTime = 0;
  destination = {};

  createOscillator() {
    const tone = { frequency: {}, connect: (next) => next, stop() {} };
    tone.start = (at) => tones.push([tone.frequency.value, Number(at.toFixed(2))]);
    return tone;
  }

  createGain() {
    return { gain: { setValueAtTime() {}, linearRampToValueAtTime() {}, exponentialRampToValueAtTime() {} }, connect: (next) => next };
  }
}

beforeEach(() => {
  voices = [
    { voiceURI: "a", name: "Anna", lang: "en-GB" },
    { voiceURI: "b", name: "Bo", lang: "sv" },
  ];
  spoken = [];
  tones = [];
  Object.assign(globalThis, {
    SpeechSynthesisUtterance: Words,
    AudioContext: Tones,
    speechSynthesis: { getVoices: () => voices, speak: (one) => spoken.push(one), cancel() {}, addEventListener() {} },
  });
  serve({ "/prompter/say/": (_, path) => ({ text: `said ${path.split("/").at(-1)}` }) });
});

const card = (i, more = {}) => ({ i, s: "aired", p: `person ${i}`, at: [], ...more });
const heard = () => spoken.map((one) => one.text);

async function over(how = "end") {
  spoken.at(-1).dispatchEvent(new PlainEvent(how));
  await settled();
}

async function reading(which, cards) {
  const speech = new Speech();
  type(called("Read aloud"), which);
  speech.heard(cards);
  await settled();
  return speech;
}

test("nothing is read unless it is wanted, and then only what is meant", async () => {
  await reading("none", [card(1)]);
  assert.deepEqual(heard(), []);
  await reading("mention", [
    card(2),
    card(3, { at: ["question"] }),
    card(4, { at: ["mention"], s: "off" }),
    card(5, { at: ["mention"], s: "held" }),
  ]);
  assert.deepEqual(heard(), ["said 5"]);
});

test("one after another, and what is said stands there while it is", async () => {
  await reading("all", [card(1), card(2)]);
  assert.deepEqual([heard(), find("#speaking").hidden, find("#speaking-words").textContent], [["said 1"], false, "said 1"]);
  await over();
  assert.deepEqual(heard(), ["said 1", "said 2"]);
  await over("error");
  assert.equal(find("#speaking").hidden, true);
});

test("who spoke before is not named again", async () => {
  await reading("all", [card(1, { p: "ann" }), card(2, { p: "ann" }), card(3, { p: "bo" })]);
  await over();
  await over();
  assert.deepEqual(
    page.asked.map(([path]) => path),
    ["/prompter/say/1", "/prompter/say/2?again=1", "/prompter/say/3"],
  );
});

test("of a flood the newest are read", async () => {
  await reading(
    "all",
    Array.from({ length: 12 }, (_, at) => card(at + 1)),
  );
  for (let turn = 0; turn < 8; turn += 1) await over();
  assert.deepEqual(heard(), ["said 1", "said 7", "said 8", "said 9", "said 10", "said 11", "said 12"]);
});

test("what is pulled is not said, and not said to its end", async () => {
  const speech = await reading("all", [card(1), card(2), card(3)]);
  speech.gone(2);
  speech.gone(1);
  await settled();
  assert.deepEqual(heard(), ["said 1", "said 3"]);
});

test("a line that cannot be said is left out", async () => {
  serve({ "/prompter/say/1": { error: "Gone." }, "/prompter/say/2": { text: "" }, "/prompter/say/3": { text: "three" } });
  await reading("all", [card(1), card(2), card(3)]);
  assert.deepEqual(heard(), ["three"]);
});

test("skipping goes on with the next, stopping with none", async () => {
  const speech = await reading("all", [card(1), card(2), card(3)]);
  find("#speech-skip").click();
  await settled();
  assert.deepEqual(heard(), ["said 1", "said 2"]);
  find("#speech-stop").click();
  await settled();
  assert.deepEqual([heard().length, find("#speaking").hidden, speech.waiting], [2, true, []]);
});

test("it speaks as it is set, and remembers that", async () => {
  await reading("all", []);
  type(called("Voice"), "b");
  type(called("Speed"), "1.5");
  type(called("Volume"), "0.3");
  const again = new Speech();
  again.heard([card(1)]);
  await settled();
  const [{ voice, rate, volume, lang }] = spoken;
  assert.deepEqual([voice.name, rate, volume, lang], ["Bo", 1.5, 0.3, "sv"]);
});

test("without a voice of the browser's own the machine speaks", async () => {
  voices = [];
  const played = [];
  globalThis.Audio = class extends EventTarget {
    constructor(address) {
      super();
      this.address = address;
      played.push(this);
    }
    play() {
      return Promise.resolve();
    }
    pause() {}
  };
  await reading("all", [card(1), card(2)]);
  assert.deepEqual([played.map((one) => one.address), called("Voice").textContent], [["/prompter/say/1/wav"], "of the machine"]);
  played[0].dispatchEvent(new PlainEvent("ended"));
  await settled();
  assert.equal(played[1].address, "/prompter/say/2/wav");
});

test("reading nothing any more ends what is being read", async () => {
  await reading("all", [card(1), card(2)]);
  type(called("Read aloud"), "none");
  await settled();
  assert.deepEqual([heard(), find("#speaking").hidden], [["said 1"], true]);
  assert.ok(pressable("Stop"));
});

// Chimes.

const chimes = (settings, ...cards) => {
  const chime = new Chime();
  chime.set({ every_s: 0, ...settings });
  page.clock.pass(60_000);
  chime.heard(cards);
  return tones.map(([hertz]) => hertz);
};

test("each kind of line has its chime, the one that weighs most first", () => {
  assert.deepEqual(chimes({}, card(1, { at: ["mention", "supporter"] })), [523, 659]);
  tones = [];
  assert.deepEqual(chimes({ mention: "none" }, card(1, { at: ["mention", "supporter"] })), [1319, 1568, 1760]);
  tones = [];
  assert.deepEqual(chimes({}, card(1, { s: "waits", at: ["mention"] })), [196, 196]);
  tones = [];
  assert.deepEqual(chimes({ all: "drop" }, card(1), card(2, { s: "off" })), [880]);
  tones = [];
  assert.deepEqual(chimes({ all: "none" }, card(1)), []);
});

test("its notes come one after another", () => {
  chimes({}, card(1, { at: ["supporter"] }));
  assert.deepEqual(tones, [
    [1319, 0],
    [1568, 0.09],
    [1760, 0.18],
  ]);
});

test("not more often than is set, and never without volume", () => {
  const chime = new Chime();
  chime.set({ all: "drop", every_s: 5 });
  page.clock.pass(5000);
  chime.heard([card(1), card(2)]);
  page.clock.pass(4999);
  chime.heard([card(3)]);
  assert.equal(tones.length, 1);
  page.clock.pass(1);
  chime.heard([card(4)]);
  assert.equal(tones.length, 2);
  chime.set({ volume: 0, every_s: 0 });
  chime.heard([card(5)]);
  assert.equal(tones.length, 2);
});

test("a chime that is chosen is heard and kept", () => {
  new Chime();
  type(called("A question"), "bell");
  assert.deepEqual(
    tones.map(([hertz]) => hertz),
    [784, 1047],
  );
  assert.equal(new Chime().settings.question, "bell");
  assert.equal(all("#chime-sheet .sheet-row").length, 8);
});
