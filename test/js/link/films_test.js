import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { Sounds } from "../../../assets/js/link/sounds.js";

eachOnAPage({ html: "<div></div>" });

let sounds;
let failed;

beforeEach(() => {
  failed = [];
  sounds = new Sounds("/air/reed", { root: page.document }, (id) => failed.push(id));
});

// A film that stands on the picture, in a browser that refuses or not.
const film = (refusal) => {
  const video = page.document.createElement("video");
  const did = [];
  const play = () => {
    did.push(video.muted ? "silent" : `heard at ${video.volume}`);
    return refusal && !video.muted ? Promise.reject(Object.assign(new Error("no"), { name: refusal })) : Promise.resolve();
  };
  Object.assign(video, { muted: true, play, did });
  video.dataset.alert = "7";
  page.document.body.append(video);
  return video;
};
const done = async () => {
  await import("../../../assets/js/link/films.js");
  await new Promise(setImmediate);
};
const told = () => {
  sounds.hear({ sound: { i: 7, f: 1, v: 0.6, from: 0 } });
  return done();
};
const drawn = () => {
  sounds.drawn();
  return done();
};

test("a film’s own sound is heard", async () => {
  const video = film();
  await told();
  assert.deepEqual([video.did, failed], [["heard at 0.6"], []]);
});

test("also one that comes onto the picture later, unless it was stopped by then", async () => {
  await told();
  await drawn();
  const video = film();
  assert.deepEqual([video.did, video.muted], [[], true]);
  await drawn();
  await drawn();
  assert.deepEqual([video.did, video.muted], [["heard at 0.6"], false]);
  page.document.body.replaceChildren();
  await told();
  sounds.hear({ stop: 7 });
  const stopped = film();
  await drawn();
  assert.deepEqual([stopped.did, stopped.muted], [[], true]);
  await told();
  assert.deepEqual(stopped.did, ["heard at 0.6"]);
});

test("the film that is drawn anew, as after a cut line, is heard as well", async () => {
  await told();
  page.document.body.replaceChildren();
  const anew = film();
  await drawn();
  assert.deepEqual(anew.did, ["heard at 0.6"]);
});

test("a clip beside what plays is waited for by itself", async () => {
  sounds.hear({ sound: { i: 8, f: 1, b: 1, v: 0.3, from: 0 } });
  await told();
  const [clip, own] = [film(), film()];
  clip.dataset.alert = "8";
  await drawn();
  assert.deepEqual([clip.did, own.did], [["heard at 0.3"], ["heard at 0.6"]]);
});

test("where nothing may be heard by itself a film goes on in silence, and the page says so", async () => {
  const video = film("NotAllowedError");
  await told();
  assert.deepEqual([video.did, failed], [["heard at 0.6", "silent"], [7]]);
});

test("a film that is taken away meanwhile says nothing of the page, and one that is over does not begin anew", async () => {
  film("AbortError");
  await told();
  assert.deepEqual(failed, []);
  page.document.body.replaceChildren();
  const over = film();
  Object.defineProperty(over, "ended", { value: true });
  await told();
  assert.deepEqual(over.did, []);
});
