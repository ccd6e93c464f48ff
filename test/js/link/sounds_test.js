import assert from "node:assert/strict";
import { test } from "node:test";
import { setTimeout as pause } from "node:timers/promises";
import { eachOnAPage, page, PlainEvent } from "../support/page.js";
import { Sounds } from "../../../assets/js/link/sounds.js";

eachOnAPage({ html: '<div id="stage"></div>' });

// Sounds, each in the hand of the test.
class FakeAudio extends EventTarget {
  static all = [];

  constructor(address) {
    super();
    Object.assign(this, { address, duration: 2, currentTime: 0, playing: false });
    FakeAudio.all.push(this);
  }

  tell(what) {
    this.dispatchEvent(new PlainEvent(what));
  }

  play() {
    this.playing = true;
    return this.refuses ? Promise.reject(new Error("no")) : Promise.resolve();
  }

  pause() {
    this.playing = false;
  }
}

const turn = () => new Promise((done) => setImmediate(done));

function sounds() {
  FakeAudio.all = [];
  globalThis.Audio = FakeAudio;
  const failed = [];
  const made = new Sounds("/air/secret", { root: page.document.querySelector("#stage") }, (id) => failed.push(id));
  return { made, failed, audio: () => FakeAudio.all.at(-1), all: () => FakeAudio.all.map((one) => one.address) };
}

test("a sound is heard, then what is read aloud", async () => {
  const { made, audio, all } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", said: 0.7, v: 0.5, from: 0 } });
  audio().tell("loadedmetadata");
  await turn();
  assert.deepEqual([audio().playing, audio().volume], [true, 0.5]);
  audio().tell("ended");
  await turn();
  assert.deepEqual([all(), audio().volume], [["/sounds/a.ogg", "/air/secret/said/1.wav"], 0.7]);
});

// What is loaded on demand takes as long as it takes.
async function until(there) {
  for (let turns = 0; turns < 2000 && !there(); turns += 1) await pause(5);
}

// A voice of this screen's own for German and English.
function speaking(...languages) {
  const spoken = [];
  globalThis.SpeechSynthesisUtterance = class {
    constructor(text) {
      this.text = text;
    }
  };
  globalThis.speechSynthesis = {
    getVoices: () => languages.map((lang) => ({ lang })),
    speak: (utterance) => spoken.push(utterance),
    cancel: () => spoken.push("hush"),
  };
  return spoken;
}
const say = {
  t: [
    ["ann gave five", null],
    ["danke für alles", "de"],
  ],
  v: "en-gb",
  r: 1.2,
  p: 0.8,
  s: 9,
};

test("a screen with voices of its own says it by them, each part in its language", async () => {
  const { made, all } = sounds();
  const spoken = speaking("en_US", "de-DE");
  made.hear({ sound: { i: 1, said: 0.7, say, v: 1, from: 0 } });
  await until(() => spoken.length > 0);
  assert.deepEqual(
    [spoken[0].text, spoken[0].lang, spoken[0].volume, spoken[0].rate, spoken[0].pitch],
    ["ann gave five", "en_US", 0.7, 1.2, 0.8],
  );
  assert.equal(spoken.length, 1);
  spoken[0].onend();
  await until(() => spoken.length > 1);
  assert.deepEqual([spoken[1].text, spoken[1].voice.lang, all()], ["danke für alles", "de-DE", []]);
  made.hear({ stop: 1 });
  assert.equal(spoken[2], "hush");
});

test("it says nothing longer than it may, and nothing after that", async () => {
  const { made } = sounds();
  const spoken = speaking("en-GB", "de-DE");
  made.hear({ sound: { i: 1, said: 0.7, say, v: 1, from: 0 } });
  await until(() => spoken.length > 0);
  page.clock.pass(8900);
  assert.equal(spoken.length, 1);
  page.clock.pass(200);
  await turn();
  assert.deepEqual(spoken.slice(1), ["hush"]);
});

test("where one part has no voice here, the machine says all of it", async () => {
  const { made, all } = sounds();
  const spoken = speaking("en-GB");
  made.hear({ sound: { i: 1, said: 0.7, say, v: 1, from: 0 } });
  await until(() => all().length > 0);
  delete globalThis.speechSynthesis;
  assert.deepEqual([spoken, all()], [[], ["/air/secret/said/1.wav"]]);
});

test("a page that takes over goes on where the other was", async () => {
  const { made, audio, all } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", said: 1, v: 1, from: 2500 } });
  audio().tell("loadedmetadata");
  await turn();
  assert.deepEqual(all(), ["/sounds/a.ogg", "/air/secret/said/1.wav"]);
  audio().tell("loadedmetadata");
  assert.equal(audio().currentTime, 0.5);
});

test("a sound waits for its time, less what is over where another page takes over", async () => {
  const { made, audio, all } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", v: 1, from: 400, w: 1500 } });
  page.clock.pass(1000);
  await turn();
  assert.deepEqual(all(), []);
  page.clock.pass(200);
  await turn();
  audio().tell("loadedmetadata");
  assert.deepEqual([all(), audio().currentTime ?? 0], [["/sounds/a.ogg"], 0]);
  made.hear({ sound: { i: 2, u: "/sounds/b.ogg", v: 1, from: 2500, w: 1500 } });
  await turn();
  audio().tell("loadedmetadata");
  assert.equal(audio().currentTime, 1);
});

test("what is stopped while it waits is never heard", async () => {
  const { made, all } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", v: 1, from: 0, w: 1500 } });
  made.hear({ stop: 1 });
  page.clock.pass(2000);
  await turn();
  assert.deepEqual(all(), []);
});

test("what is stopped is silent, and nothing that belonged to it begins", async () => {
  const { made, audio, all, failed } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", said: 9, v: 1, from: 0 } });
  audio().tell("loadedmetadata");
  await turn();
  made.hear({ stop: 1 });
  assert.equal(audio().playing, false);
  audio().tell("ended");
  await turn();
  assert.deepEqual([all(), failed], [["/sounds/a.ogg"], []]);
});

test("another sound ends the one before; stopping one that is over ends nothing", async () => {
  const { made, audio } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", v: 1, from: 0 } });
  const first = audio();
  first.tell("loadedmetadata");
  made.hear({ sound: { i: 2, u: "/sounds/b.ogg", v: 1, from: 0 } });
  const second = audio();
  second.tell("loadedmetadata");
  await turn();
  made.hear({ stop: 1 });
  assert.deepEqual([first.playing, second.playing], [false, true]);
});

test("what cannot be played is said, so that another page is told", async () => {
  const { made, audio, failed } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", v: 1, from: 0 } });
  audio().tell("error");
  await turn();
  made.hear({ sound: { i: 2, u: "/sounds/b.ogg", v: 1, from: 0 } });
  audio().refuses = true;
  audio().tell("loadedmetadata");
  await turn();
  assert.deepEqual(failed, [1, 2]);
});

test("what is over by now is not heard from the page that takes over", async () => {
  const { made, audio } = sounds();
  made.hear({ sound: { i: 1, u: "/sounds/a.ogg", v: 1, from: 41000 } });
  audio().tell("loadedmetadata");
  await turn();
  assert.equal(audio().playing, false);
});

test("what is told again after a cut line goes on, and what is played once more, or was stopped, begins anew", async () => {
  const { made, audio, all } = sounds();
  const hear = (from) => made.hear({ sound: { i: 7, u: "/sounds/a.ogg", v: 1, from } });
  hear(0);
  const first = audio();
  first.tell("loadedmetadata");
  hear(1000);
  assert.deepEqual([all().length, first.playing], [1, true]);
  hear(0);
  assert.deepEqual([all().length, first.playing], [2, false]);
  made.hear({ stop: 7 });
  hear(1000);
  audio().tell("loadedmetadata");
  assert.deepEqual([all().length, audio().currentTime], [3, 1]);
});
